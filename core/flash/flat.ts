import type { Evidence } from "./evidence";
import { INTERVAL_JITTER } from "./observer";
import { fromStart, type Flash, type Show } from "./show";

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
  const seen = (f: Flash) => mode !== "taps" || f.unit.kind !== "steady";
  const square = (ms: number) => (ms * INTERVAL_JITTER) ** 2;
  const flashes: Flash[] = [];
  const steps: { step: number; variance: number }[] = [];
  let first = 0;
  let sinceLast = 0;
  let varSinceLast = 0;
  const advance = (ms: number) => {
    sinceLast += ms;
    varSinceLast += square(ms);
  };
  const walk = (section: { flashes: Flash[]; ms: number }) => {
    let t = 0;
    for (const f of section.flashes) {
      advance(f.at - t);
      if (seen(f)) {
        if (flashes.length) steps.push({ step: sinceLast, variance: varSinceLast });
        else first = sinceLast;
        flashes.push(f);
        sinceLast = 0;
        varSinceLast = 0;
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
    const head = show.loop!.flashes.find(seen)!;
    let t = 0;
    for (const f of show.loop!.flashes) {
      if (f === head) break;
      advance(f.at - t);
      advance(f.ms);
      t = f.at + f.ms;
    }
    advance(head.at - t);
    steps.push({ step: sinceLast, variance: varSinceLast });
  } else if (n) steps.push({ step: Infinity, variance: 1 });
  return {
    n,
    flashes,
    step: Float64Array.from(steps, (s) => s.step),
    stepVar: Float64Array.from(steps, (s) => s.variance),
    next: Int32Array.from({ length: n }, (_, i) => (i < n - 1 ? i + 1 : loops ? loopAt : -1)),
    length: Float64Array.from(flashes, (f) => f.ms),
    long: Uint8Array.from(flashes, (f) => (f.long ? 1 : 0)),
    loopAt: loops ? loopAt : n,
    first,
    fromStart: fromStart(loops),
  };
}
