import { FIRST, gauss } from "../seen/density";
import type { Track } from "../seen/evidence";

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
  const logs = Float64Array.from(values, (x) => Math.log(Math.max(1, x))).sort();
  const jacobian = logs.reduce((sum, x) => sum + x, 0);
  let best = -Infinity;
  for (let k = 1; k <= KINDS && 2 * k <= values.length + 1; k++)
    best = Math.max(best, fit(logs, k) - 0.5 * (3 * k - 1) * Math.log(values.length));
  return best - jacobian;
}

/** Log likelihood of numbers under `k` normal kinds, fitted by EM from evenly spread quantiles. */
function fit(sorted: Float64Array, k: number): number {
  const count = sorted.length;
  const mean = Float64Array.from({ length: k }, (_, j) => sorted[Math.floor(((j + 0.5) * count) / k)]);
  const variance = new Float64Array(k).fill(0.15 ** 2);
  const share = new Float64Array(k).fill(1 / k);
  const p = new Float64Array(k);
  const [n, x, xx] = [new Float64Array(k), new Float64Array(k), new Float64Array(k)];
  let total = -Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    n.fill(1e-9);
    x.fill(0);
    xx.fill(0);
    total = 0;
    for (let i = 0; i < count; i++) {
      const v = sorted[i];
      let all = 1e-12;
      for (let j = 0; j < k; j++) all += p[j] = share[j] * gauss(v - mean[j], variance[j]);
      total += Math.log(all);
      for (let j = 0; j < k; j++) {
        const w = p[j] / all;
        n[j] += w;
        x[j] += w * v;
        xx[j] += w * v * v;
      }
    }
    for (let j = 0; j < k; j++) {
      mean[j] = x[j] / n[j];
      variance[j] = Math.max(NARROWEST ** 2, xx[j] / n[j] - mean[j] ** 2);
      share[j] = n[j] / count;
    }
  }
  return total;
}
