import styled from "styled-components";
import type { Reading } from "@core/record/types";
import { watchOf } from "@core/record/inputs";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: 16px;
  border-left: 2px solid var(--line);
  print-color-adjust: exact;
`;

/** One line holds so much of a reading, ms: the list mostly comes round once in that. */
const SHOWN_MS = 60_000;
/** What has no length of its own is drawn so long: a tap or a short flash, and a long one by its key. */
const LONG = { s: 250, l: 900 };
const WIDTH = 1000;

/** What was seen, flash by flash in its time, as it was marked: who takes over can count it again. */
export function MarksLine({ reading: { marks: all, until, input } }: { reading: Reading }) {
  // A press of the reader's button is no flash.
  const marks = all.filter((m) => m.kind !== "p");
  const [first] = marks;
  if (!first) return null;
  const from = Math.max(0, first.t - 500);
  const end = Math.max(until ?? 0, marks.at(-1)!.t);
  const to = Math.min(from + SHOWN_MS, Math.max(end, from + 10_000));
  const x = (t: number) => (WIDTH * (t - from)) / (to - from);
  const shown = marks.filter((m) => m.t <= to);
  const left = marks.length - shown.length;
  return (
    <figure style={{ maxWidth: "none", margin: 0 }}>
      <Svg
        viewBox={`0 0 ${WIDTH} 16`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`${shown.length} flashes in their time`}
      >
        <path d={`M0 15H${WIDTH}`} stroke="var(--line)" strokeWidth="1" />
        {shown.map((m) => (
          <rect
            key={m.id}
            x={x(m.t)}
            y="2"
            width={Math.max(2, x(Math.min(to, m.up ?? m.t + LONG[m.kind === "l" ? "l" : "s"])) - x(m.t))}
            height="12"
            fill="var(--ink)"
          />
        ))}
      </Svg>
      <figcaption>
        {shown.length} {shown.length === 1 ? "flash" : "flashes"} in {Math.round((to - from) / 1000)} s
        {left > 0 && `, and ${left} more until ${Math.round(end / 1000)} s`}
        {watchOf(input).by === "hand" && ", as they were marked by hand"}
      </figcaption>
    </figure>
  );
}
