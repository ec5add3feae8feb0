import { centred, seriesOf, type Channel } from "./channel";

/** Cells with this correlation blink together. */
const TOGETHER = 0.65;
/** What passes is looked for so many cells around, and looked-at pictures earlier and later; from this correlation on it is the same. */
const BESIDE = 3;
const LAGS = 4;
const PASSES = 0.3;
/** A lamp fills at most this share of the picture. */
export const LARGEST = 0.06;

/** The cells around a seed whose values go with its own; none where they are too many to be a lamp. */
export function grow(seed: number, channel: Channel, across: number, down: number, taken: Uint8Array): number[] {
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
export function travels(
  cells: readonly number[],
  seed: number,
  channel: Channel,
  across: number,
  down: number,
): boolean {
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
