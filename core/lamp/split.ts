import { seriesOf, type Channel } from "./channel";

/** A lamp has at least so many changes before it is believed. */
const MIN_CHANGES = 4;
/** Lit and dark stretches shorter than this are no lamp's, ms. */
const DWELL_MS = 140;
/** A trembling camera moves an edge by about this share of its height within a cell. */
const ROUGH = 0.06;
/** Among what blinks clearly, the lamp itself goes further than its glow: full marks from here on, 0 to 255. */
const STRONG = 60;

/** A cell's values in two states over time. */
export interface Split {
  score: number;
  lit: Uint8Array;
  changes: number;
  apart: number;
}

/** Splits the values of a cell in two states over time; null where they do not make two. */
export function judge(channel: Channel, cell: number, times: readonly number[], rough: number): Split | null {
  const n = times.length;
  // Most cells hold still: out with them at once.
  const range = channel.high[cell] - channel.low[cell];
  if (range < 5 || range < 3 * (channel.jitter[cell] / n)) return null;
  const v = seriesOf(channel, cell);
  const { threshold, low, high } = twoMeans(v, channel.low[cell], channel.high[cell]);
  let [n1, a0, a1, q0, q1] = [0, 0, 0, 0, 0];
  for (let k = 0; k < n; k++) {
    const x = Math.min(high, Math.max(low, v[k]));
    if (x > threshold) {
      n1++;
      a1 += x;
      q1 += x * x;
    } else {
      a0 += x;
      q0 += x * x;
    }
  }
  const n0 = n - n1;
  if (!n0 || !n1) return null;
  const [m0, m1] = [a0 / n0, a1 / n1];
  const reach = m1 - m0;
  if (reach < 4) return null;
  const within = Math.sqrt(Math.max(0, q0 / n0 - m0 * m0, q1 / n1 - m1 * m1));
  const apart = reach / (1 + within + ROUGH * rough);
  if (apart < 2) return null;
  // States with some slack, so that noise at the border makes no changes.
  const lit = new Uint8Array(n);
  let state = v[0] > threshold ? 1 : 0;
  let since = times[0];
  let changes = 0;
  let hasty = 0;
  let between = 0;
  for (let k = 0; k < n; k++) {
    const over = state ? v[k] < threshold - 0.12 * reach : v[k] > threshold + 0.12 * reach;
    if (over) {
      if (times[k] - since < DWELL_MS) hasty++;
      state = 1 - state;
      since = times[k];
      changes++;
    }
    lit[k] = state;
    if (Math.abs(v[k] - threshold) < 0.22 * reach) between++;
  }
  if (changes < MIN_CHANGES) return null;
  const steady = Math.max(0, 1 - (2.5 * between) / (n + 1)) * Math.max(0, 1 - (3 * hasty) / changes);
  return {
    score: Math.min(12, apart) * (0.7 + 0.3 * Math.min(1, reach / STRONG)) * Math.min(1, changes / 8) * steady,
    lit,
    changes,
    apart,
  };
}

const BINS = new Uint32Array(64);
/** Rounds of two means; they have settled by then. */
const ROUNDS = 6;

/**
 * The threshold between two means of some values, by their histogram: begun at the outer values, so that a lamp that is seldom lit is
 * found as well as one that is seldom dark.
 * @returns also the values below and above which two of a hundred lie
 */
function twoMeans(v: Float32Array, least: number, most: number): { threshold: number; low: number; high: number } {
  BINS.fill(0);
  const width = (most - least) / BINS.length;
  const top = BINS.length - 1;
  for (let k = 0; k < v.length; k++) BINS[Math.min(top, Math.floor((v[k] - least) / width))]++;
  const few = 0.02 * v.length;
  let [a, b] = [0, top];
  for (let sum = BINS[a]; sum <= few; sum += BINS[a]) a++;
  for (let sum = BINS[b]; sum <= few; sum += BINS[b]) b--;
  // In bins: what lies further out counts as the outer ones.
  let between = (a + b) / 2;
  for (let round = 0; round < ROUNDS; round++) {
    let [n0, n1, s0, s1] = [0, 0, 0, 0];
    for (let bin = 0; bin <= top; bin++) {
      const at = Math.min(b, Math.max(a, bin));
      if (at > between) {
        n1 += BINS[bin];
        s1 += BINS[bin] * at;
      } else {
        n0 += BINS[bin];
        s0 += BINS[bin] * at;
      }
    }
    if (!n0 || !n1) break;
    between = (s0 / n0 + s1 / n1) / 2;
  }
  return { threshold: least + (between + 0.5) * width, low: least + a * width, high: least + (b + 1) * width };
}
