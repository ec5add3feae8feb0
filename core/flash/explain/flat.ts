import type { Lengths } from "../seen/density";
import type { Evidence } from "../seen/evidence";
import { INTERVAL_JITTER } from "../seen/observer";
import { fromStart, type Flash, type Section, type Show } from "../dialect/show";

/**
 * A show laid flat for alignment: its flashes by index, and from each the way to the next. Flashes that nobody
 * would mark in this way of watching (the lamp test, for taps) are left out; their time is kept.
 */
export interface Flat {
  n: number;
  flashes: Flash[];
  /** Onset to onset of the next flash, ms nominal. */
  step: Float64Array;
  /** Variance of that step from the unit's own jitter, ms² nominal. */
  stepVar: Float64Array;
  /** Index of the next flash, -1 at the end of the show. */
  next: Int32Array;
  length: Float64Array;
  long: Uint8Array;
  /** Index of the first flash of the loop; `n` where there is none. */
  loopAt: number;
  /** From the start of the show to its first flash, ms nominal. */
  first: number;
  /** Probability that watching began with the show. */
  fromStart: number;
  /** When the first flash was seen in other watches that began as this one did, ms; undefined where there are none. */
  usual?: number;
}

export function flatten(show: Show, mode: Evidence["mode"]): Flat {
  const most = show.lead.flashes.length + (show.loop?.flashes.length ?? 0);
  const step = new Float64Array(most);
  const stepVar = new Float64Array(most);
  const flashes: Flash[] = [];
  let first = 0;
  let sinceLast = 0;
  let varSinceLast = 0;
  const advance = (ms: number) => {
    sinceLast += ms;
    varSinceLast += (ms * INTERVAL_JITTER) ** 2;
  };
  const arrive = () => {
    if (flashes.length) {
      step[flashes.length - 1] = sinceLast;
      stepVar[flashes.length - 1] = varSinceLast;
    } else first = sinceLast;
    sinceLast = 0;
    varSinceLast = 0;
  };
  const walk = (section: Section) => {
    let t = 0;
    for (const f of section.flashes) {
      advance(f.at - t);
      if (isSeen(f, mode)) {
        arrive();
        flashes.push(f);
      }
      advance(f.ms);
      t = f.at + f.ms;
    }
    advance(section.ms - t);
  };
  walk(show.lead);
  const loopAt = flashes.length;
  if (show.loop) walk(show.loop);
  const n = flashes.length;
  const loops = show.loop !== null && loopAt < n;
  if (loops) {
    // From the last flash round to the first of the loop.
    let t = 0;
    for (const f of show.loop!.flashes) {
      advance(f.at - t);
      if (isSeen(f, mode)) break;
      advance(f.ms);
      t = f.at + f.ms;
    }
    arrive();
  } else if (n) {
    step[n - 1] = Infinity;
    stepVar[n - 1] = 1;
  }
  const flat: Flat = {
    n,
    flashes,
    step: step.subarray(0, n),
    stepVar: stepVar.subarray(0, n),
    next: new Int32Array(n),
    length: new Float64Array(n),
    long: new Uint8Array(n),
    loopAt: loops ? loopAt : n,
    first,
    fromStart: fromStart(loops),
  };
  for (let i = 0; i < n; i++) {
    flat.next[i] = i < n - 1 ? i + 1 : loops ? loopAt : -1;
    flat.length[i] = flashes[i].ms;
    flat.long[i] = flashes[i].long ? 1 : 0;
  }
  return flat;
}

/** Writes the lengths of a show's flashes at a tempo into rows that have room for them. */
export function lengthsInto(into: Lengths, { n, next, length, step }: Flat, tempo: number): void {
  for (let j = 0; j < n; j++) {
    into.alone[j] = length[j] * tempo;
    into.merged[j] = next[j] < 0 ? NaN : (step[j] + length[next[j]]) * tempo;
  }
}

/** Nobody taps for a lamp test. */
const isSeen = (f: Flash, mode: Evidence["mode"]) => mode !== "taps" || f.unit.kind !== "steady";
