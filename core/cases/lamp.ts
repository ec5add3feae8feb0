import type { Dialect, Faults } from "../flash/dialect/dialect";
import { encode, flashesOf, seeded, type EncodeOptions, type Lit } from "../flash/dialect/encode";

/** What a lamp did while somebody watched: flashes with times from the start of watching, and its edges. */
export interface Played {
  /** Flashes that overlap the watch; a flash may have begun before 0 or end after `until`. */
  flashes: Lit[];
  edges: [t: number, lit: 0 | 1][];
  until: number;
}

export interface Watch extends Omit<EncodeOptions, "random"> {
  seed: number;
  /** Show time at which watching starts, ms; negative: before the key is turned. */
  from: number;
  until: number;
}

/** Plays a unit's show once, the same for the flashes and for the edges. */
export function play(dialect: Dialect, faults: Faults, w: Watch): Played {
  const flashes: Lit[] = [];
  for (const { start, end, flash } of flashesOf(dialect, faults, { ...w, random: seeded(w.seed) })) {
    if (start >= w.from + w.until) break;
    if (end <= w.from) continue;
    const last = flashes[flashes.length - 1];
    // A lamp that goes from one mark straight into the next does not change in between.
    if (last && start - w.from <= last.end) last.end = end - w.from;
    else flashes.push({ start: start - w.from, end: end - w.from, flash });
  }
  const edges = encode(dialect, faults, w.from + w.until, { ...w, random: seeded(w.seed) });
  return { flashes, edges, until: w.until };
}
