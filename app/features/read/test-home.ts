import type { Dialect } from "@core/flash/dialect/dialect";
import { encode } from "@core/flash/dialect/encode";
import { newReading } from "@core/record/readings";
import type { Reading } from "@core/record/types";
import { NOT_STARTED, type Home } from "./home";

/** Keeps in a list what a session would store. For tests. */
export function homeOf(dialect: Dialect, part: Partial<Home> = {}): Home & { saved: Reading[] } {
  const saved: Reading[] = [];
  return {
    dialect,
    speaks: "given",
    table: [],
    cylinders: null,
    stored: null,
    saved,
    blank: (input) =>
      newReading({
        id: "r",
        job: "j",
        vehicle: "v",
        system: "engine",
        way: "w",
        dialect: dialect.id,
        input,
        run: "before",
        startedAt: NOT_STARTED,
      }),
    save: (reading) => {
      saved.push(reading);
      return Promise.resolve();
    },
    drop: () => Promise.resolve(),
    keep: null,
    ...part,
  };
}

/** Brightness of a lamp that shows some faults, up to a time in ms, 30 pictures a second. For tests. */
export function picturesOf(dialect: Dialect, stored: string[], until: number): { t: number[]; y: number[] } {
  const edges = encode(dialect, { stored }, until);
  const t: number[] = [];
  const y: number[] = [];
  for (let ms = 0; ms < until; ms += 1000 / 30) {
    t.push(ms);
    y.push((edges.findLast(([at]) => at <= ms)?.[1] ? 150 : 70) + 1.5 * Math.sin(ms * 7.7));
  }
  return { t, y };
}
