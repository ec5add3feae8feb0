import type { Dialect, Faults } from "../dialect/dialect";
import { showOf, type Show } from "../dialect/show";
import type { Score, View } from "../explain/view";
import { viewed, type Watched } from "../explain/viewed";

/** A setting is brought to fit so often at most. */
const REFITS = 3;

/**
 * How well each list explains what was seen: log probability with every kind of observer weighed in, nats; -Infinity where it
 * cannot be. Only differences between lists of one call mean anything.
 * @param cylinders of the engine, where the dialect counts them
 * @returns one for each list; null where nothing was seen that a list could explain
 */
export const howWell = (
  dialect: Dialect,
  evidence: Watched,
  lists: readonly Faults[],
  cylinders?: number,
): number[] | null =>
  viewed(dialect, evidence, (view) => lists.map((list) => explained(view, showOf(dialect, list, cylinders))));

function explained<S, P>(view: View<S, P>, show: Show): number {
  let best = -Infinity;
  for (const first of view.settings) {
    // What there is nothing to set of has a setting that is null.
    let setting = first;
    let score: Score | null = null;
    for (let k = 0; k <= REFITS; k++) {
      const prepared: P = view.prepare(show, setting);
      const next = view.score(prepared);
      if (next.logLik === -Infinity || (score && next.logLik <= score.logLik)) break;
      score = next;
      best = Math.max(best, view.weigh(prepared));
      const better = view.refit(prepared);
      if (better === null) break;
      setting = better;
    }
  }
  return best;
}
