import { FIRST, gauss } from "../seen/density";
import type { Flat } from "./flat";
import type { Observer } from "../seen/observer";

/** The key is usually turned on within this time from the start of watching, ms. */
const KEY_ON_WITHIN = 2500;
/** A watch that somebody begins by asking begins so exactly, ms; and so often it does not at all. */
const ASKED_SD = 40;
const UNTIMELY = 0.03;

/** Flashes that should have been seen in `ms` before flash `j`, and were not: probability of that. */
export function missedBefore(flat: Flat, j: number, ms: number, tempo: number, o: Observer): number {
  let p = 1;
  let left = ms - o.lag;
  let i = j;
  for (let k = 0; k < 40; k++) {
    const before = i === flat.loopAt && flat.loopAt < flat.n ? flat.n - 1 : i - 1;
    if (before < 0) break;
    left -= flat.step[before] * tempo;
    if (left < 0) break;
    p *= o.miss;
    i = before;
  }
  return p;
}

/** Flashes that should have been seen in the `ms` after flash `j`. */
export function missedAfter(flat: Flat, j: number, ms: number, tempo: number, o: Observer): number {
  let p = 1;
  let left = ms - o.lag;
  const factor = o.miss;
  let i = j;
  for (let k = 0; k < 40; k++) {
    const slack = 3 * Math.sqrt(flat.stepVar[i]) * tempo + 2 * o.onsetSd;
    left -= flat.step[i] * tempo;
    if (flat.next[i] < 0 || left < slack) break;
    p *= factor;
    i = flat.next[i];
  }
  return p;
}

/**
 * Probability that the first mark, at `t`, is flash `j`: watching began with the show (the first flashes may have been
 * missed), or somewhere in it, and then what came before within the watch was missed.
 */
export function beginning(flat: Flat, j: number, t: number, tempo: number, o: Observer): number {
  const middle = ((1 - flat.fromStart) / flat.n) * missedBefore(flat, j, t, tempo, o);
  if (j > 5) return middle;
  let at = flat.first;
  for (let i = 0; i < j; i++) at += flat.step[i];
  if (flat.usual !== undefined) {
    // Both of the two times that are compared were seen by the same eyes.
    const sd = Math.SQRT2 * o.onsetSd + ASKED_SD;
    const off = t - flat.usual - (at - flat.first) * tempo;
    return (UNTIMELY + ((1 - UNTIMELY) * gauss(off, sd * sd)) / FIRST) * o.miss ** j;
  }
  // The show begins soon after watching does; later only where the key was turned late.
  const wait = t - at * tempo;
  const timely = wait < -400 ? 0 : wait < KEY_ON_WITHIN ? 1 : 0.1;
  const missed = o.miss ** j;
  return middle + flat.fromStart * timely * missed;
}

export function missedAfterStart(flat: Flat, until: number, tempo: number, o: Observer): number {
  if (!flat.n) return 1;
  const wait = flat.first * tempo + KEY_ON_WITHIN;
  return until < wait ? 1 : o.miss * missedAfter(flat, 0, until - wait, tempo, o);
}
