import type { Track } from "./evidence";
import type { Observer } from "./observer";

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
export function stepDensity(late: number, variance: number): number {
  const wide = Math.exp((late * late) / (-18 * variance));
  const three = wide * wide * wide;
  return ((1 - WIDE) * three * three * three + (WIDE / 3) * wide) / (SQRT_2PI * Math.sqrt(variance));
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
