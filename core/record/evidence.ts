import type { Dialect } from "../flash/dialect/dialect";
import type { Called, Evidence, Filmed, Pressed } from "../flash/seen/evidence";
import type { Trace } from "../lamp/trace";
import { leftOut } from "../lamp/long-watch";
import { watchOf } from "./inputs";
import type { Mark } from "./mark";
import type { Reading } from "./types";

/** What a reading gives the decoder. `now` (ms from its start) is the end of watching while it still goes on. */
export function evidenceOf(
  reading: Pick<Reading, "input" | "marks" | "until" | "pauses" | "counts" | "levels" | "corrected" | "keyOn">,
  now: number,
  dialect: Pick<Dialect, "rest" | "digits">,
): Evidence | Filmed | Pressed | Called {
  const { evidence, by } = watchOf(reading.input);
  return evidence(by === "hand" ? withoutMiddle(reading) : reading, reading.until ?? now, dialect);
}

/** Of hours of tapping the beginning and the newest part; what lies between counts as not watched. */
function withoutMiddle<R extends Pick<Reading, "marks" | "pauses">>(reading: R): R {
  const marks = [...reading.marks].sort((a, b) => a.t - b.t);
  const out = leftOut(marks.map((m) => m.t));
  // Presses of a button are no watch that goes on: each stands for itself.
  if (!out || marks.some((m) => m.kind === "p")) return reading;
  const pause: [number, number] = [marks[out.from].t, marks[out.to - 1].up ?? marks[out.to - 1].t];
  return { ...reading, marks: marks.toSpliced(out.from, out.to - out.from), pauses: [...reading.pauses, pause] };
}

/** A trace as marks that can be corrected like any others: the stretches in which the lamp is away from its rest. */
export function marksOfTrace(trace: Trace, rest: "dark" | "lit"): Mark[] {
  const away = rest === "lit" ? 0 : 1;
  const marks: Mark[] = [];
  let open: number | null = null;
  for (const [t, lit] of trace.edges) {
    if (lit === away) open ??= t;
    else if (open !== null) {
      marks.push({ id: marks.length + 1, t: open, up: t });
      open = null;
    }
  }
  if (open !== null && trace.until > open) marks.push({ id: marks.length + 1, t: open, up: trace.until });
  return marks;
}

/** The timeline of a reading as a trace, in states of the lamp; a tap, which has no length, is given one. */
export function traceOf(
  reading: Pick<Reading, "marks" | "until">,
  now: number,
  rest: "dark" | "lit",
  tapMs = 200,
): Trace {
  const until = reading.until ?? now;
  const [at, away] = rest === "lit" ? ([1, 0] as const) : ([0, 1] as const);
  const edges: Trace["edges"] = [[0, at]];
  for (const m of [...reading.marks].sort((a, b) => a.t - b.t)) {
    if (m.kind === "p") continue;
    if (m.t <= 0) edges.length = 0;
    edges.push([Math.max(0, m.t), away], [m.up ?? m.t + tapMs, at]);
  }
  return { edges, until: Math.max(until, edges.at(-1)![0]) };
}
