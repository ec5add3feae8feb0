import { leftOut } from "../lamp/long-watch";
import { nextId } from "./edit";
import type { Mark, Reading } from "./types";

/** Shorter is no mark: a stretch that pictures show is at least so long, ms. */
const SHORTEST_MS = 20;
/** Marks this close to where all pictures came to were seen while those were worked out, ms. */
const SINCE_MS = 60;

/** The lamp's brightness picture by picture, times in ms. */
export interface Brightness {
  t: ArrayLike<number>;
  y: ArrayLike<number>;
}

/**
 * A reading with the brightness seen in all pictures so far. Of a watch that goes on for very long the middle is left out.
 * @param before what was seen before a camera was taken up again, ms of the reading
 * @param from when the first of these pictures was taken, ms of the reading
 */
export function withBrightness(
  reading: Reading,
  before: { t: number[]; y: number[] },
  from: number,
  { t, y }: Brightness,
): Reading {
  const levels = {
    t: [...before.t, ...Array.from(t, (x) => Math.round((from + x) * 10) / 10)],
    y: [...before.y, ...Array.from(y)],
  };
  const out = reading.input === "camera" ? leftOut(levels.t) : null;
  if (out) for (const row of [levels.t, levels.y]) row.splice(out.from, out.to - out.from);
  return { ...reading, levels };
}

/** A reading with a change of the lamp that was just seen: a mark begins with it, or ends. @param begins whether it left its rest */
export function withChange(reading: Reading, begins: boolean, at: number): Reading {
  const open = reading.marks.findLast((m) => m.up === undefined);
  const marks = begins
    ? [...reading.marks, { id: nextId(reading.marks), t: at }]
    : reading.marks.map((m) => (m === open ? { ...m, up: Math.max(m.t + SHORTEST_MS, at) } : m));
  return { ...reading, marks };
}

/** A reading with the marks that all pictures until then tell, and behind them those that were seen since. */
export function withSeenMarks(reading: Reading, marks: readonly Mark[], until: number): Reading {
  const later = reading.marks.filter((m) => m.t > until - SINCE_MS);
  const since = later.map((m, i) => ({ ...m, id: marks.length + 1 + i }));
  const last = marks.at(-1);
  const still = since.length > 0 && last && since[0].t - last.up! < SINCE_MS;
  // The last stretch goes on: it was cut off where the pictures ended.
  const joined = still
    ? [...marks.slice(0, -1), { ...since[0], t: last.t, id: last.id }, ...since.slice(1)]
    : [...marks, ...since];
  return { ...reading, marks: joined };
}
