import { expNeg } from "../trellis/exp";
import type { Observer } from "./observer";

/** Density of the first onset, per ms: it may come any time. The same for every hypothesis. */
export const FIRST = 1 / 5000;
/** Share of intervals that err more widely than the rest (three times). */
const WIDE = 0.01;
/** Density of a mark that ends when nobody expects it, per ms. */
const ODD_END = 1e-7;

const SQRT_2PI = Math.sqrt(2 * Math.PI);
/** Normal density. */
export function gauss(x: number, variance: number): number {
  const z = (x * x) / variance;
  return z > 60 ? 0 : expNeg(-0.5 * z) / (Math.sqrt(variance) * SQRT_2PI);
}

/** Density of a step from one mark to a later one: normal, with a share that errs three times as widely. */
function stepDensity(late: number, variance: number): number {
  const wide = expNeg((late * late) / (-18 * variance));
  const three = wide * wide * wide;
  return ((1 - WIDE) * three * three * three + (WIDE / 3) * wide) / (SQRT_2PI * Math.sqrt(variance));
}

/**
 * What is known of the unit's clock at a mark: how far its true onset lies after the seen one (ms) and the variance of that.
 * Errors of watching do not add up from mark to mark, the unit's own jitter does: a Kalman filter tells them apart.
 */
export interface Clock {
  /** Density of what was seen of the mark, given what was expected. */
  p: number;
  late: number;
  variance: number;
  /** Below this, nobody cares how probable it is. */
  least: number;
}

export const newClock = (): Clock => ({ p: 0, late: 0, variance: 0, least: 0 });

/** How long the flashes of a show are, at the tempo, ms: each alone, and where it ran together with the next (NaN: it has none). */
export interface Lengths {
  alone: Float64Array;
  merged: Float64Array;
}

/**
 * Takes mark `m` in as flash `j`: first its onset, expected `clock.late` ms after the seen one with `clock.variance`, then, where
 * its length is known, its end. An infinite variance means that nothing was expected; then `p` counts the length alone.
 * All numbers come and go in rows and in `clock`: this is the innermost of all loops, and a fraction that is passed as an argument
 * is put into a box of its own each time.
 * @param clock is overwritten with the outcome; `p` is 0 where it is surely below `clock.least`
 * @param lengths of the marks, ms; NaN where not known
 */
export function tick(clock: Clock, o: Observer, lengths: Float64Array, m: number, flashes: Lengths, j: number): void {
  const noise = o.onsetSd * o.onsetSd;
  const length = lengths[m];
  let late = clock.late;
  let variance = clock.variance;
  let p = 1;
  if (variance === Infinity) {
    late = 0;
    variance = noise;
  } else {
    const sum = variance + noise;
    p = stepDensity(late, sum);
    // What errs far more than it should is not trusted to move the clock as much.
    const share = late * late > 12 * sum ? noise * 9 : noise;
    late *= share / (variance + share);
    variance *= share / (variance + share);
  }
  if (length === length && o.endSd > 0) {
    if (p * peakEnd(o, length) < clock.least) p = 0;
    else {
      const expected = flashes.alone[j];
      const mergedLength = flashes.merged[j];
      const own = 0.0009 * expected * expected;
      const ending = o.endSd * o.endSd;
      const before = variance + own;
      const sum = before + ending;
      const off = late + expected - length;
      let density = (1 - o.merge) * stepDensity(off, sum);
      if (mergedLength === mergedLength) density += o.merge * gauss(late + mergedLength - length, 2 * sum);
      p *= density + ODD_END;
      if (off * off < 12 * sum) {
        // From here on counts the end: as an onset it stands for, without the flash's own jitter, which the next step adds.
        late = (off * ending) / sum + length - expected;
        variance = (before * ending) / sum - own;
      }
    }
  }
  clock.p = p < clock.least ? 0 : p;
  clock.late = late;
  clock.variance = variance;
}

/** The most that {@link tick} can give for an onset that was expected, per ms. */
export const peakOnset = (o: Observer): number => 1 / (SQRT_2PI * o.onsetSd);

/** The most that it can give for the end of a mark of that length (NaN where not known). */
export const peakEnd = (o: Observer, length: number): number =>
  length === length && o.endSd > 0 ? 1 / (SQRT_2PI * o.endSd) + ODD_END : 1;
