import type { Dialect } from "../dialect/dialect";

/** Logs of what is believed of lamps of any make before one is seen; from the makes that are met most. */
const PRIOR = {
  style: { counted: Math.log(0.4), "long-short": Math.log(0.35), total: Math.log(0.25) },
  mixedDigits: Math.log(0.25),
  round: Math.log(0.65),
  once: Math.log(0.35),
  times: [Math.log(0.55), Math.log(0.2), Math.log(0.2)],
  timesMore: Math.log(0.05),
  fixed: Math.log(0.15),
  between: Math.log(0.08),
  before: Math.log(0.02),
  order: Math.log(0.5),
  rest: { dark: Math.log(0.8), lit: Math.log(0.2) },
  /** One more kind of rest, with a length of its own. */
  kind: -2.5,
} as const;

/** Log probability of a way of talking before anything of it is seen, up to a constant. */
export function logPriorOf({ rest, digits, gaps, phases, loopFrom, max }: Dialect): number {
  const lists = phases.filter((p) => p.kind === "stored");
  const groups = phases.filter((p) => p.kind === "group").length;
  const fixed = phases.filter((p) => p.kind === "code").length;
  const which = -Math.log(digits.style === "counted" ? 9 ** Math.max(...digits.count) : max);
  return (
    PRIOR.style[digits.style] +
    (digits.style === "counted" && digits.count.length > 1 ? PRIOR.mixedDigits : 0) +
    PRIOR.rest[rest] +
    new Set(Object.values(gaps)).size * PRIOR.kind +
    (PRIOR.times[(lists[0]?.times ?? 1) - 1] ?? PRIOR.timesMore) +
    // The code itself is one of many, as each code of a list is.
    fixed * (PRIOR.fixed + which) +
    (groups && lists.length > 1 ? PRIOR.between : 0) +
    (groups && (groups > 1 || lists.length === 1) ? PRIOR.before : 0) +
    (loopFrom === null ? PRIOR.once : PRIOR.round) +
    PRIOR.order
  );
}

/**
 * How much as likely are, together, ways that show exactly the same and mean another code as fixed: where nothing marks a round's
 * beginning, any code of it may be the one that leads it, or ends it, and no watch tells them apart.
 */
export function alikeTo({ gaps, phases, loopFrom }: Dialect): number {
  const shown = phases.filter((p) => p.kind !== "steady");
  const unmarked = loopFrom !== null && gaps.pass <= gaps.code;
  return unmarked && shown.length === 1 && shown[0].kind === "stored" ? 2 * Math.exp(PRIOR.fixed) : 0;
}
