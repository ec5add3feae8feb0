import { score } from "./score";
import type { Track } from "../seen/evidence";
import { playFilm, type Film } from "./film";
import type { Flat } from "./flat";
import { INTERVAL_JITTER, type Observer } from "../seen/observer";

/** Fewer marks than this follow an even time by chance. */
const FEWEST = 4;
/**
 * Log of how rarely something that only blinks in time is watched, together with the density of its period, which is
 * taken from the marks themselves.
 */
const PRIOR = -12;

/** Log probability of marks if they come from something that only blinks in time, as an indicator does; -Infinity for a few. */
export function evenLog(track: Track, observers: readonly Observer[]): number {
  const flat = evenFlat(track);
  return flat ? PRIOR + Math.max(...observers.map((o) => score(track, flat, 1, o).logLik)) : -Infinity;
}

/** As {@link evenLog}, of a film whose frames count `weight`: how much likelier than with a lamp at rest. */
export function evenFilmLog(track: Track, film: Film, weight: number): number {
  const flat = evenFlat(track);
  return flat ? PRIOR + weight * playFilm(film, flat, 1, false).logLik : -Infinity;
}

/** A single flash that comes again for ever, with the usual period and length of the marks. */
function evenFlat({ onset, length }: Track): Flat | null {
  if (onset.length < FEWEST) return null;
  const period = middle(Array.from(onset.subarray(1), (t, i) => t - onset[i]));
  const known = Array.from(length).filter((ms) => ms === ms);
  return {
    n: 1,
    flashes: [],
    step: Float64Array.of(period),
    stepVar: Float64Array.of((period * INTERVAL_JITTER) ** 2),
    next: Int32Array.of(0),
    length: Float64Array.of(known.length ? middle(known) : period / 2),
    long: Uint8Array.of(0),
    loopAt: 0,
    first: 0,
    // It may have begun before the watch, or be switched on in it.
    fromStart: 0.5,
  };
}

const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1];
