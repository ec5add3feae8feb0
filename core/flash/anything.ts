import { FIRST, gauss } from "./density";
import type { Track } from "./evidence";

/** At most so many kinds of interval, and of length. */
const KINDS = 4;
const ROUNDS = 12;
/** A kind is at least so wide, as a share: no hand and no unit is more regular. */
const NARROWEST = 0.02;

/**
 * Log probability of marks if nothing is known of what makes them but that their intervals (and lengths) come in a few kinds, in any
 * order: a lamp that speaks no dialect that is known, somebody who taps as they please, a relay that fails. Each number is drawn
 * from a mixture of log-normal kinds fitted to all of them (EM; Dempster, Laird & Rubin 1977), less what fitting gains by itself
 * (BIC; Schwarz 1978).
 */
export function anythingLog({ onset, length }: Track): number {
  const gaps = Array.from(onset.subarray(1), (t, i) => Math.max(1, t - onset[i]));
  const lengths = Array.from(length).filter((ms) => ms === ms);
  return Math.log(FIRST) + mixtureLog(gaps) + mixtureLog(lengths);
}

/** Log density of positive numbers under the mixture of kinds that pays best for itself. */
function mixtureLog(values: readonly number[]): number {
  if (!values.length) return 0;
  const logs = values.map((x) => Math.log(Math.max(1, x)));
  const jacobian = logs.reduce((sum, x) => sum + x, 0);
  let best = -Infinity;
  for (let k = 1; k <= KINDS && 2 * k <= values.length + 1; k++)
    best = Math.max(best, fit(logs, k) - 0.5 * (3 * k - 1) * Math.log(values.length));
  return best - jacobian;
}

/** Log likelihood of numbers under `k` normal kinds, fitted by EM from evenly spread quantiles. */
function fit(x: readonly number[], k: number): number {
  const sorted = [...x].sort((a, b) => a - b);
  let kinds = Array.from({ length: k }, (_, j) => ({
    mean: sorted[Math.floor(((j + 0.5) * x.length) / k)],
    sd: 0.15,
    share: 1 / k,
  }));
  let total = -Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const sums = kinds.map(() => ({ n: 1e-9, x: 0, xx: 0 }));
    total = 0;
    for (const v of x) {
      const p = kinds.map(({ mean, sd, share }) => share * gauss(v - mean, sd * sd));
      const all = p.reduce((a, b) => a + b, 0) + 1e-12;
      total += Math.log(all);
      for (const [j, s] of sums.entries()) {
        const w = p[j] / all;
        s.n += w;
        s.x += w * v;
        s.xx += w * v * v;
      }
    }
    kinds = sums.map(({ n, x: sx, xx }) => ({
      mean: sx / n,
      sd: Math.max(NARROWEST, Math.sqrt(Math.max(0, xx / n - (sx / n) ** 2))),
      share: n / x.length,
    }));
  }
  return total;
}
