import type { History } from "./history";
import type { Patch } from "./patch";
import type { Raster } from "./picture";

/** A patch that blinks, with what speaks for it. */
export interface Found extends Patch {
  /** How much it looks like a lamp, from 0; lamps of ordinary films have 4 and more. */
  score: number;
  /** Times of the looked-at pictures, and the state in each, from the blinking alone. */
  t: readonly number[];
  lit: Uint8Array;
  /** Changes of state. */
  changes: number;
  /** How far lit and dark lie apart, in deviations within the states. */
  apart: number;
  /** Colour that the lit lamp adds: difference of the mean chroma planes, lit less dark. */
  colour: { u: number; v: number };
}

/** Pictures looked at: about so many a second, over so many seconds at most. */
const RATE = 8;
const SECONDS = 30;
/** Side of the block against which a cell is held, cells. */
const NEAR = 20;
/** A lamp has at least so many changes before it is believed. */
const MIN_CHANGES = 4;
/** Lit and dark stretches shorter than this are no lamp's, ms. */
const DWELL_MS = 140;
/** Cells with this correlation blink together. */
const TOGETHER = 0.65;
/** What passes is looked for so many cells around, and looked-at pictures earlier and later; from this correlation on it is the same. */
const BESIDE = 3;
const LAGS = 4;
const PASSES = 0.3;
/** A lamp fills at most this share of the picture. */
const LARGEST = 0.06;
/** A trembling camera moves an edge by about this share of its height within a cell. */
const ROUGH = 0.06;
/** So few cells are small, and so small a change of the chroma planes is none. */
const SMALL = 6;
const COLOURLESS = 3;
/** Among what blinks clearly, the lamp itself goes further than its glow: full marks from here on, 0 to 255. */
const STRONG = 60;
const MOST = 4;

/** Values of all cells in the looked-at pictures, a cell's in a row, and how far each cell's went. */
interface Channel {
  value: Float32Array;
  pictures: number;
  low: Float32Array;
  high: Float32Array;
  jitter: Float32Array;
}

/**
 * The patches of a picture that blink like a lamp, the likeliest first: each cell is held against its surroundings (so that
 * what changes the whole picture, as daylight, exposure or a hand, says little), split in two states over time, and judged by
 * how far those lie apart, how seldom it is between them, how often and how slowly it changes; neighbours that change with it
 * make the patch. A lit lamp that never changes, a needle that sweeps over cells one after the other, and what passes once, score
 * low or not at all.
 */
export function findLamps(history: History): Found[] {
  const { raster } = history;
  const { across, down } = raster;
  const count = across * down;
  const picks = looked(history);
  const n = picks.length;
  if (n < 20) return [];
  const times = picks.map((k) => history.time(k));
  const luma = channel(picks, raster, (k, plane) => plane.set(history.cells(k).y));
  const colour = channel(picks, raster, (k, plane) => {
    const { u, v } = history.cells(k);
    for (let c = 0; c < count; c++) plane[c] = v[c] - u[c];
  });
  const rough = roughness(history.cells(picks[n >> 1]).y, across, down);
  const judged: { cell: number; score: number; series: Channel; split: Split }[] = [];
  for (let c = 0; c < count; c++) {
    const a = judge(luma, c, times, rough[c]);
    const b = judge(colour, c, times, 0);
    const best = !a || (b && b.score > a.score) ? b : a;
    if (best) judged.push({ cell: c, score: best.score, series: best === a ? luma : colour, split: best });
  }
  judged.sort((a, b) => b.score - a.score);
  const taken = new Uint8Array(count);
  const found: Found[] = [];
  for (const seed of judged) {
    if (found.length >= MOST || seed.score < 0.5) break;
    if (taken[seed.cell]) continue;
    const cells = grow(seed.cell, seed.series, across, down, taken);
    for (const c of cells) taken[c] = 1;
    if (cells.length > LARGEST * count) continue;
    // What blinks just as another does is its glow or its mirror image.
    if (found.some((f) => echo(f.lit, seed.split.lit))) continue;
    if (travels(cells, seed.cell, seed.series, across, down)) continue;
    const xs = cells.map((c) => c % across);
    const ys = cells.map((c) => Math.floor(c / across));
    const colour = colourOf(history, picks, cells, seed.split.lit);
    found.push({
      cells,
      left: Math.min(...xs),
      top: Math.min(...ys),
      right: Math.max(...xs) + 1,
      bottom: Math.max(...ys) + 1,
      score: seed.score * looks(cells.length, colour),
      t: times,
      lit: seed.split.lit,
      changes: seed.split.changes,
      apart: seed.split.apart,
      colour,
    });
  }
  return found.sort((a, b) => b.score - a.score);
}

/** A lit lamp is seldom tiny, and seldom without a colour; the edge of something white that trembles is both. */
function looks(cells: number, { u, v }: Found["colour"]): number {
  const size = Math.min(1, 0.7 + 0.1 * cells);
  return cells < SMALL && Math.hypot(u, v) < COLOURLESS ? 0.35 * size : size;
}

/** Indices of the pictures that are looked at, the oldest first. */
function looked(history: History): number[] {
  const picks: number[] = [];
  const end = history.size ? history.time(history.size - 1) : 0;
  let last = -Infinity;
  for (let k = 0; k < history.size; k++) {
    const t = history.time(k);
    if (t < end - SECONDS * 1000 || t - last < 1000 / RATE - 1) continue;
    picks.push(k);
    last = t;
  }
  return picks;
}

/** Goes through the looked-at pictures: each cell less the mean of the block that it lies in. */
function channel(
  picks: readonly number[],
  { across, down }: Raster,
  read: (pick: number, plane: Float32Array) => void,
): Channel {
  const count = across * down;
  const blocks = Math.ceil(across / NEAR);
  const block = Int32Array.from({ length: count }, (_, c) => Math.floor(Math.floor(c / across) / NEAR) * blocks + Math.floor((c % across) / NEAR)); // prettier-ignore
  const sum = new Float32Array(blocks * Math.ceil(down / NEAR));
  const size = new Float32Array(sum.length);
  for (let c = 0; c < count; c++) size[block[c]]++;
  const pictures = picks.length;
  const value = new Float32Array(count * pictures);
  const out: Channel = {
    value,
    pictures,
    low: new Float32Array(count).fill(Infinity),
    high: new Float32Array(count).fill(-Infinity),
    jitter: new Float32Array(count),
  };
  const { low, high, jitter } = out;
  const plane = new Float32Array(count);
  for (const [k, pick] of picks.entries()) {
    read(pick, plane);
    sum.fill(0);
    for (let c = 0; c < count; c++) sum[block[c]] += plane[c];
    for (let b = 0; b < sum.length; b++) sum[b] /= size[b];
    for (let c = 0, at = k; c < count; c++, at += pictures) {
      const x = (value[at] = plane[c] - sum[block[c]]);
      if (x < low[c]) low[c] = x;
      if (x > high[c]) high[c] = x;
      if (k) jitter[c] += Math.min(8, Math.abs(x - value[at - 1]));
    }
  }
  return out;
}

/** One cell's values. */
const seriesOf = ({ value, pictures }: Channel, cell: number): Float32Array =>
  value.subarray(cell * pictures, (cell + 1) * pictures);

/** How much a cell differs from its neighbours, in one picture: an edge there blinks as the camera trembles. */
function roughness(y: Uint8Array, across: number, down: number): Float32Array {
  const out = new Float32Array(y.length);
  for (let j = 0; j < down; j++)
    for (let i = 0; i < across; i++) {
      const c = j * across + i;
      const differs = (x: number, z: number) =>
        x < 0 || z < 0 || x >= across || z >= down ? 0 : Math.abs(y[z * across + x] - y[c]);
      out[c] = Math.max(differs(i - 1, j), differs(i + 1, j), differs(i, j - 1), differs(i, j + 1));
    }
  return out;
}

interface Split {
  score: number;
  lit: Uint8Array;
  changes: number;
  apart: number;
}

/** Splits the values of a cell in two states over time; null where they do not make two. */
function judge(channel: Channel, cell: number, times: readonly number[], rough: number): Split | null {
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

/** The cells around a seed whose values go with its own; none where they are too many to be a lamp. */
function grow(seed: number, channel: Channel, across: number, down: number, taken: Uint8Array): number[] {
  const n = channel.pictures;
  const { v: own, power: xx } = centred(channel, seed);
  const cells = [seed];
  const seen = new Set(cells);
  const most = LARGEST * across * down;
  for (let k = 0; k < cells.length && cells.length <= most; k++) {
    const x = cells[k] % across;
    for (const c of [
      x > 0 ? cells[k] - 1 : -1,
      x < across - 1 ? cells[k] + 1 : -1,
      cells[k] - across,
      cells[k] + across,
    ]) {
      if (c < 0 || c >= across * down || seen.has(c) || taken[c]) continue;
      seen.add(c);
      const other = seriesOf(channel, c);
      let [sum, square, xy] = [0, 0, 0];
      for (let q = 0; q < n; q++) {
        const x = other[q];
        sum += x;
        square += x * x;
        xy += own[q] * x;
      }
      const yy = square - (sum * sum) / n;
      if (xy / Math.sqrt(xx * yy + 1e-9) > TOGETHER && yy > 0.2 * xx) cells.push(c);
    }
  }
  return cells;
}

/**
 * Does what blinks here blink beside it a little earlier or later? Then it passes: a needle, a hand, a reflection. A lamp's glow
 * comes and goes with the lamp.
 */
function travels(cells: readonly number[], seed: number, channel: Channel, across: number, down: number): boolean {
  const n = channel.pictures;
  const own = centred(channel, seed);
  const inside = new Set(cells);
  const beside = new Set<number>();
  for (const c of cells) {
    const [x, y] = [c % across, Math.floor(c / across)];
    for (let j = Math.max(0, y - BESIDE); j <= Math.min(down - 1, y + BESIDE); j++)
      for (let i = Math.max(0, x - BESIDE); i <= Math.min(across - 1, x + BESIDE); i++)
        if (!inside.has(j * across + i)) beside.add(j * across + i);
  }
  for (const c of beside) {
    const other = centred(channel, c);
    if (other.power < 0.2 * own.power) continue;
    const norm = Math.sqrt(own.power * other.power) + 1e-9;
    const at = (lag: number): number => {
      let sum = 0;
      for (let k = Math.max(0, -lag); k < Math.min(n, n - lag); k++) sum += own.v[k] * other.v[k + lag];
      return sum / norm;
    };
    const together = at(0);
    for (let lag = 1; lag <= LAGS; lag++)
      if (Math.max(at(lag), at(-lag)) > Math.max(PASSES, together + 0.15)) return true;
  }
  return false;
}

function centred(channel: Channel, cell: number): { v: Float32Array; power: number } {
  const v = seriesOf(channel, cell).slice();
  const mean = v.reduce((a, b) => a + b, 0) / v.length;
  let power = 0;
  for (let k = 0; k < v.length; k++) {
    v[k] -= mean;
    power += v[k] * v[k];
  }
  return { v, power };
}

function echo(a: Uint8Array, b: Uint8Array): boolean {
  let same = 0;
  for (let k = 0; k < a.length; k++) if (a[k] === b[k]) same++;
  const share = same / a.length;
  return share > 0.93 || share < 0.07;
}

function colourOf(
  history: History,
  picks: readonly number[],
  cells: readonly number[],
  lit: Uint8Array,
): { u: number; v: number } {
  const sums = [0, 0, 0, 0];
  let on = 0;
  for (const [k, pick] of picks.entries()) {
    const { u, v } = history.cells(pick);
    on += lit[k];
    for (const c of cells) {
      sums[lit[k] ? 0 : 1] += u[c];
      sums[lit[k] ? 2 : 3] += v[c];
    }
  }
  const [a, b] = [Math.max(1, on * cells.length), Math.max(1, (picks.length - on) * cells.length)];
  return { u: sums[0] / a - sums[1] / b, v: sums[2] / a - sums[3] / b };
}
