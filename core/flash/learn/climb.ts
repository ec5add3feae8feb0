import type { Evidence } from "../seen/evidence";
import type { Dialect } from "../dialect/dialect";
import { changesOf } from "./changes";
import { fitted } from "./fit";
import { glance, looksOf, type Glanced, type Look } from "./glance";

/** A way that was climbed to, with the watches as it takes them. */
export interface Climbed extends Glanced {
  looks: Look[];
}

/** A change has to gain so much, nats; each may be changed so many times over. */
const GAIN = 0.5;
const ROUNDS = 6;
/** A way that is so far behind another after a round is not changed further, nats. */
const BEHIND = 60;

/**
 * Changes one thing of a way after the other as long as more of the marks is explained by it: a way that was proposed is seldom right in
 * all where a hand missed flashes, and seldom wrong in all.
 * @param rests that occur, ms, ascending
 * @param against the best way so far
 */
export function climbed(
  from: Dialect,
  watches: readonly Evidence[],
  rests: readonly number[],
  against: number,
): Climbed {
  const looks = looksOf(from, watches);
  let best = fitted(glance(from, looks), looks);
  for (let round = 0; round < ROUNDS && (!round || best.log > against - BEHIND); round++) {
    const before = best.log;
    for (const change of changesOf(best.dialect, rests, looks[0]?.track.mode === "taps")) {
      const own = glance(change, looks, best);
      if (own.log > best.log + GAIN) best = own;
    }
    if (best.log === before) break;
    best = fitted(best, looks);
  }
  return { ...best, looks };
}
