import type { Track } from "./evidence";
import type { Observer } from "./observer";

/** Density of the first onset, per ms: it may come any time. The same for every hypothesis. */
export const FIRST = 1 / 5000;
/** Share of intervals that err more widely than the rest (three times). */
const WIDE = 0.01;
/** Length of a spurious mark: anything up to this, ms. */
const EXTRA_LENGTH = 2000;
/** Typical length of a blip, ms. */
const BLIP = 90;
/** The second of two marks made of one flash comes within this time of the first, ms. */
const DOUBLE_FROM = 60;
const DOUBLE_TO = 320;

const SQRT_2PI = Math.sqrt(2 * Math.PI);
/** Normal density. */
export function gauss(x: number, variance: number): number {
  const z = (x * x) / variance;
  return z > 60 ? 0 : Math.exp(-0.5 * z) / Math.sqrt(variance) / SQRT_2PI;
}

/** Density of a step from one mark to a later one: normal, with a share that errs three times as widely. */
function stepDensity(late: number, variance: number): number {
  const wide = Math.exp((late * late) / (-18 * variance));
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
}

/**
 * Takes a mark in: first its onset, expected `late` ms after the seen one with `variance`, then, where its length is
 * known, its end. An infinite variance means that nothing was expected; then `p` counts the length alone.
 * @param clock is overwritten with the outcome
 * @param expected length of the flash, ms
 * @param mergedLength length of the mark if it ran together with the next one; NaN where there is none
 */
export function tick(
  clock: Clock,
  late: number,
  variance: number,
  o: Observer,
  length: number,
  expected: number,
  mergedLength: number,
): void {
  const noise = o.onsetSd * o.onsetSd;
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
    const own = (0.03 * expected) ** 2;
    const ending = o.endSd * o.endSd;
    const before = variance + own;
    const sum = before + ending;
    const off = late + expected - length;
    let density = (1 - o.merge) * stepDensity(off, sum);
    if (mergedLength === mergedLength) density += o.merge * gauss(late + mergedLength - length, 2 * sum);
    p *= density + 1e-7;
    if (off * off < 12 * sum) {
      // From here on counts the end: as an onset it stands for, without the flash's own jitter, which the next step adds.
      late = (off * ending) / sum + length - expected;
      variance = (before * ending) / sum - own;
    }
  }
  clock.p = p;
  clock.late = late;
  clock.variance = variance;
}

/** Density of a spurious mark: one that came from nowhere, or the second of two marks made of one flash. */
export function extraDensity(track: Track, m: number, o: Observer): number {
  const gap = m > 0 ? track.onset[m] - track.onset[m - 1] : Infinity;
  const second = gap > DOUBLE_FROM && gap < DOUBLE_TO ? o.double / (DOUBLE_TO - DOUBLE_FROM) : 0;
  const named = track.said[m] ? 0.5 : 1;
  if (track.length[m] !== track.length[m]) return named * (o.extra + second);
  return named * (o.extra + second) * extraLength(track.length[m]);
}

/** Spurious marks are mostly short: half of them blips, the others of any length. */
function extraLength(ms: number): number {
  return (0.5 * Math.exp(-ms / BLIP)) / BLIP + (ms < EXTRA_LENGTH ? 0.5 / EXTRA_LENGTH : 1e-6);
}
