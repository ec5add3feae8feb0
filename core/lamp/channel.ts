import type { History } from "./history";
import type { Raster } from "./picture";

/** Pictures looked at: about so many a second, over so many seconds at most. */
const RATE = 8;
const SECONDS = 30;
/** Side of the block against which a cell is held, cells. */
const NEAR = 20;
/** Pictures gone through at once. */
const AT_ONCE = 24;

/** Values of all cells in the looked-at pictures, a cell's in a row, and how far each cell's went. */
export interface Channel {
  value: Float32Array;
  pictures: number;
  low: Float32Array;
  high: Float32Array;
  jitter: Float32Array;
}

/** The pictures that are looked at, the oldest first. */
export function looked(history: History): number[] {
  const picks: number[] = [];
  const { from, to } = history;
  const end = to > from ? history.time(to - 1) : 0;
  let last = -Infinity;
  for (let k = from; k < to; k++) {
    const t = history.time(k);
    if (t < end - SECONDS * 1000 || t - last < 1000 / RATE - 1) continue;
    picks.push(k);
    last = t;
  }
  return picks;
}

/** Goes through the looked-at pictures, some at a time: each cell less the mean of the block that it lies in. */
export function* channel(
  picks: readonly number[],
  { across, down }: Raster,
  read: (pick: number, plane: Float32Array) => void,
): Generator<void, Channel> {
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
    if (k && k % AT_ONCE === 0) yield;
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
export const seriesOf = ({ value, pictures }: Channel, cell: number): Float32Array =>
  value.subarray(cell * pictures, (cell + 1) * pictures);

/** As {@link seriesOf}, less its mean, and the sum of its squares. */
export function centred(channel: Channel, cell: number): { v: Float32Array; power: number } {
  const v = seriesOf(channel, cell).slice();
  const mean = v.reduce((a, b) => a + b, 0) / v.length;
  let power = 0;
  for (let k = 0; k < v.length; k++) {
    v[k] -= mean;
    power += v[k] * v[k];
  }
  return { v, power };
}
