import styled from "styled-components";
import { pressesOf } from "@core/record/inputs/press";
import { Mono, Soft } from "~/ui/bits";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

const Rows = styled.ol`
  display: grid;
  gap: 6px;
  li {
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 34px;
  }
`;

const Band = styled.span`
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  min-height: 34px;
  padding: 8px 10px;
  border-radius: 8px;
  background: var(--band);
  i {
    width: 12px;
    height: 18px;
    border-radius: 3px;
    background: var(--lit);
  }
  i[data-long] {
    width: 22px;
  }
  i:nth-child(5n) {
    margin-right: 9px;
  }
`;

/** One row a press of the button: its flashes, in groups of five so that the eye counts along. */
export function PressRows({ session }: { session: ReadingSession }) {
  const { marks, until } = useSession(session, (s) => s.reading);
  const presses = pressesOf(marks, until ?? session.now());
  return (
    <>
      <h2>Presses of the button</h2>
      {presses.length === 0 && (
        <Soft>These flashes came before the first press and belong to none. Mark each time you let the button go.</Soft>
      )}
      <Rows aria-label="Presses of the button">
        {presses.map((p, i) => (
          <li key={p.press}>
            <Soft as="span">{i + 1}</Soft>
            <Band aria-hidden>
              {(p.taps ?? []).map((t, n) => (
                <i key={n} data-long={(typeof t !== "number" && t[1] === "l") || undefined} />
              ))}
            </Band>
            <Mono>
              {p.taps?.length ?? 0} {p.taps?.length === 1 ? "flash" : "flashes"}
            </Mono>
          </li>
        ))}
      </Rows>
    </>
  );
}
