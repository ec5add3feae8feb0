import { useEffect, useState } from "react";
import styled from "styled-components";
import { beatOf, judgeBeat } from "@core/procedure/key-beat";
import { clock } from "~/store/clock";
import { cue } from "~/store/cue";
import { useSettings } from "~/store/use-settings";
import { Button } from "./Button";
import { Kbd, Row, Soft } from "./bits";
import { mono } from "./theme";

const Beats = styled.ol`
  display: flex;
  gap: 8px;
  li {
    ${mono}
    display: grid;
    place-items: center;
    width: 58px;
    height: 58px;
    border: 2px solid var(--line);
    border-radius: 10px;
    font-weight: 700;
  }
  li[data-on="1"] {
    border-width: 4px;
  }
  li[aria-current] {
    background: var(--petrol);
    border-color: var(--petrol);
    color: var(--on-petrol);
  }
`;

/** A beat for the key cycle, heard, felt and seen; and a judgement whether the cycle came in time. */
export function KeyBeat({
  beat,
  onLast,
}: {
  beat: { times: number; withinSeconds: number };
  /** The key has come on for the last time: the lamp tells now. */
  onLast?: (() => void) | undefined;
}) {
  const settings = useSettings();
  const [at, setAt] = useState(-1);
  const [turns, setTurns] = useState<number[]>([]);
  const beats = beatOf(beat);
  const plays = at >= 0 && at < beats.length;
  const verdict = judgeBeat(turns, beat);
  useEffect(() => {
    if (!plays) return;
    cue(beats[at].on ? "up" : "down", settings);
    if (at === beats.length - 1 && !turns.length) onLast?.();
    const wait = (beats[at + 1]?.at ?? beats[at].at + 800) - beats[at].at;
    return clock.after(wait, () => setAt(at + 1));
    // One beat at a time: only its number moves it on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
  const turn = (time: number) => {
    const next = [...(turns.length >= beat.times ? [] : turns), time];
    setTurns(next);
    // A cycle that was too slow brings no list.
    if (judgeBeat(next, beat)?.good) onLast?.();
  };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.code !== "KeyK" || e.repeat || (e.target as HTMLElement).closest("input, textarea")) return;
      turn(clock.of(e));
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  });
  return (
    <div style={{ display: "grid", gap: 12 }}>
      <Beats aria-label="The beat of the key">
        {beats.map((b, i) => (
          <li key={i} data-on={b.on} aria-current={i === at ? "step" : undefined}>
            {b.on ? "on" : "off"}
          </li>
        ))}
      </Beats>
      <Row>
        <Button $look="primary" onPress={() => (setTurns([]), setAt(0))}>
          {plays ? "From the start" : "Play the beat"}
        </Button>
        <Button onPress={() => turn(clock.ticks())}>
          Key is on ({Math.min(turns.length, beat.times)} of {beat.times}) <Kbd>K</Kbd>
        </Button>
      </Row>
      <p role="status">
        {verdict ? (
          <strong>{verdict.says}</strong>
        ) : (
          <Soft as="span">Turn the key to the beat. Tap with each "on" to have it judged.</Soft>
        )}
      </p>
    </div>
  );
}
