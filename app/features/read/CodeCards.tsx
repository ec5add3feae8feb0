import styled from "styled-components";
import type { Decoded } from "@core/flash/decode";
import { codeSure, type Sure } from "@core/flash/judge/sureness";
import { atMost } from "@core/job/told";
import { Certainty, Soft } from "~/ui/bits";
import { mono } from "~/ui/theme";
import { listOf } from "@core/job/say";

const Cards = styled.ul`
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 260px), 1fr));
  li {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 16px;
    align-items: center;
    padding: 10px 16px;
    background: var(--sheet);
    border-radius: 12px;
  }
  b {
    ${mono}
    font-size: 2.3rem;
    line-height: 1;
  }
  p {
    font-size: 0.9rem;
    line-height: 1.3;
  }
`;

/** Each code that was read, with its certainty and where it comes from. */
export function CodeCards({ decoded, given, most }: { decoded: Decoded; given: number; most: Sure }) {
  return (
    <>
      <Cards aria-label="Codes read">
        {decoded.codes.map((code) => {
          const times = decoded.timesShown[code] ?? 0;
          const missed = decoded.missed.filter((m) => m.unit.code === code && m.unit.kind === "code").length;
          return (
            <li key={code}>
              <b>{code}</b>
              <p>
                <Certainty word={atMost(codeSure(decoded, code, given), most)} />
                <br />
                seen {times === 1 ? "once" : times === 2 ? "twice" : `${times} times`}
                {missed > 0 && `; ${missed === 1 ? "one blink" : `${missed} blinks`} missed, filled in`}
              </p>
            </li>
          );
        })}
      </Cards>
      {decoded.runnerUp && decoded.runnerUp.probability >= 0.01 && decoded.confidence < 0.99 && (
        <Soft>
          It could also be {decoded.runnerUp.codes.length ? listOf(decoded.runnerUp.codes) : "nothing stored"} (
          {Math.round(decoded.runnerUp.probability * 100)} %). One more round tells them apart.
        </Soft>
      )}
    </>
  );
}
