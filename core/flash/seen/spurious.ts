import { expNeg } from "../trellis/exp";
import type { Track } from "./evidence";
import type { Observer } from "./observer";

/** At most so many marks in a row are taken for spurious. */
export const MAX_EXTRA = 3;
/** Length of a spurious mark: anything up to this, ms. */
const EXTRA_LENGTH = 2000;
/** Typical length of a blip, ms. */
const BLIP = 90;
/** The second of two marks made of one flash comes within this time of the first, ms. */
const DOUBLE_FROM = 60;
const DOUBLE_TO = 320;

/** Density of a spurious mark: one that came from nowhere, or the second of two marks made of one flash. */
function extraDensity(track: Track, m: number, o: Observer): number {
  const gap = m > 0 ? track.onset[m] - track.onset[m - 1] : Infinity;
  const second = gap > DOUBLE_FROM && gap < DOUBLE_TO ? o.double / (DOUBLE_TO - DOUBLE_FROM) : 0;
  const named = track.said[m] ? 0.5 : 1;
  if (track.length[m] !== track.length[m]) return named * (o.extra + second);
  return named * (o.extra + second) * extraLength(track.length[m]);
}

/** Spurious marks are mostly short: half of them blips, the others of any length. */
function extraLength(ms: number): number {
  return (0.5 * expNeg(-ms / BLIP)) / BLIP + (ms < EXTRA_LENGTH ? 0.5 / EXTRA_LENGTH : 1e-6);
}

const known = new WeakMap<Track, Map<Observer, Float64Array>>();

/** Log density of each mark as a spurious one, per ms. The same for every list, so it is worked out once. */
export function logExtras(track: Track, o: Observer): Float64Array {
  const of = known.get(track) ?? known.set(track, new Map()).get(track)!;
  const logs = of.get(o) ?? track.onset.map((_, m) => Math.log(extraDensity(track, m, o)));
  of.set(o, logs);
  return logs;
}
