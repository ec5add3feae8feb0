import { calledOf } from "../flash/called";
import type { Dialect } from "../flash/dialect";
import type { Called, Evidence, Filmed, Press, Pressed } from "../flash/evidence";
import type { Trace } from "../lamp/trace";
import { isPicture, type Mark, type Reading } from "./types";

/** What a reading gives the decoder. `now` (ms from its start) is the end of watching while it still goes on. */
export function evidenceOf(
  reading: Pick<Reading, "input" | "marks" | "until" | "pauses" | "counts" | "levels" | "corrected" | "keyOn">,
  now: number,
  dialect: Pick<Dialect, "rest" | "digits">,
): Evidence | Filmed | Pressed | Called {
  const { levels, corrected } = reading;
  // Once somebody has corrected a mark, the marks are what was seen.
  if (isPicture(reading.input) && levels && !corrected) return { mode: "levels", levels, until: reading.until ?? now };
  const { marks, input, pauses } = reading;
  if (input === "counts") return { mode: "counts", counts: calledOf(reading.counts ?? "", dialect).counts, ...(reading.keyOn && { withKey: true }) }; // prettier-ignore
  if (input === "press") return { mode: "button", presses: pressesOf(marks, reading.until ?? now) };
  const until = marks.reduce((last, m) => Math.max(last, m.up ?? m.t), reading.until ?? now);
  if (input === "tap") return { mode: "taps", taps: marks.map((m) => m.t), until, pauses };
  if (input === "keys")
    return { mode: "taps", taps: marks.map((m) => [m.t, m.kind === "l" ? "l" : "s"] as const), until, pauses };
  const held = marks.filter((m) => m.up !== undefined);
  if (input === "hold") return { mode: "holds", holds: held.map((m) => [m.t, m.up!] as const), until, pauses };
  const away = dialect.rest === "lit" ? 0 : 1;
  const edges: [number, 0 | 1][] = [[0, (1 - away) as 0 | 1]];
  for (const m of [...held].sort((a, b) => a.t - b.t)) {
    if (m.t === 0) edges.length = 0;
    edges.push([m.t, away], [m.up!, (1 - away) as 0 | 1]);
  }
  if (edges[0]?.[0] !== 0) edges.unshift([0, (1 - away) as 0 | 1]);
  return { mode: "edges", edges, until, pauses };
}

/** Flashes after each press of the reader's button. Those before the first press belong to none. */
export function pressesOf(marks: readonly Mark[], until: number): Press[] {
  const presses: (Press & { taps: number[] })[] = [];
  for (const m of [...marks].sort((a, b) => a.t - b.t))
    if (m.kind === "p") presses.push({ press: m.t, taps: [], until: Math.max(until, m.t) });
    else presses.at(-1)?.taps.push(m.t);
  return presses.map((p, i) => ({ ...p, until: presses[i + 1]?.press ?? Math.max(until, p.taps.at(-1) ?? 0) }));
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
