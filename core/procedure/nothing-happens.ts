import type { Cause, SeenInstead } from "../pack/way";

export interface RankedCause {
  cause: Cause;
  /** Share of what is left, 0 to 1; 0 for what was ruled out. */
  probability: number;
  ruledOut: boolean;
}

/** A cause that says what is seen is so much less likely where something else is. */
const NOT_WHAT_IS_SEEN = 0.12;
/** A cause that another one's absence speaks against. */
const UNLIKELY = 0.3;

/**
 * Likely causes when nothing answers, the likeliest first: the pack's weights, times what is seen, times what was ruled out
 * already (Bayes' rule with the pack's weights as prior). What was ruled out comes last.
 */
export function rankCauses(
  causes: readonly Cause[],
  seen: SeenInstead | null,
  ruledOut: readonly string[],
): RankedCause[] {
  const out = new Set(ruledOut);
  const weights = causes.map((c) => {
    if (out.has(c.id)) return 0;
    const fits = !seen || !c.seen || c.seen.includes(seen) ? 1 : NOT_WHAT_IS_SEEN;
    return c.weight * fits * UNLIKELY ** (c.unlikelyAfter ?? []).filter((id) => out.has(id)).length;
  });
  const sum = weights.reduce((a, b) => a + b, 0) || 1;
  return causes
    .map((cause, i) => ({ cause, probability: weights[i] / sum, ruledOut: out.has(cause.id) }))
    .sort((a, b) => b.probability - a.probability);
}
