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
  const pictures = picks.length;
  const value = new Float32Array(count * pictures);
  const out: Channel = {
    value,
    pictures,
    low: new Float32Array(count).fill(Infinity),
    high: new Float32Array(count).fill(-Infinity),
    jitter: new Float32Array(count),
  };
  // Some pictures at a time, then turned from a picture's values in a row to a cell's: memory likes that better than one by one.
  const some = new Float32Array(Math.min(AT_ONCE, pictures) * count);
  for (let first = 0; first < pictures; first += AT_ONCE) {
    if (first) yield;
    const n = Math.min(AT_ONCE, pictures - first);
    for (let k = 0; k < n; k++) {
      const plane = some.subarray(k * count, (k + 1) * count);
      read(picks[first + k], plane);
      level(plane, across, down);
    }
    turn(some, n, first, out);
  }
  return out;
}

/** Puts some pictures' values into each cell's row from place `first` on, and takes them into its range and jitter. */
function turn(some: Float32Array, n: number, first: number, { value, pictures, low, high, jitter }: Channel): void {
  const count = low.length;
  for (let c = 0, at = first; c < count; c++, at += pictures) {
    let last = first ? value[at - 1] : some[c];
    let [a, b, sway] = [low[c], high[c], 0];
    for (let k = 0, from = c; k < n; k++, from += count) {
      const x = (value[at + k] = some[from]);
      if (x < a) a = x;
      if (x > b) b = x;
      sway += Math.min(8, Math.abs(x - last));
      last = x;
    }
    low[c] = a;
    high[c] = b;
    jitter[c] += sway;
  }
}

/** Takes from each cell the mean of the block that it lies in. */
function level(plane: Float32Array, across: number, down: number): void {
  for (let top = 0; top < down; top += NEAR)
    for (let left = 0; left < across; left += NEAR) {
      const [bottom, right] = [Math.min(down, top + NEAR), Math.min(across, left + NEAR)];
      let sum = 0;
      for (let j = top; j < bottom; j++)
        for (let c = j * across + left, end = j * across + right; c < end; c++) sum += plane[c];
      const mean = sum / ((bottom - top) * (right - left));
      for (let j = top; j < bottom; j++)
        for (let c = j * across + left, end = j * across + right; c < end; c++) plane[c] -= mean;
    }
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
