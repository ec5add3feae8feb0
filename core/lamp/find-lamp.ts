import { channel, looked, type Channel } from "./channel";
import type { History } from "./history";
import type { Patch } from "./patch";
import { grow, LARGEST, travels } from "./region";
import { judge, type Split } from "./split";

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

/** So few cells are small, and so small a change of the chroma planes is none. */
const SMALL = 6;
const COLOURLESS = 3;
const MOST = 4;
/** Cells judged at once. */
const AT_ONCE = 800;

/**
 * The patches of a picture that blink like a lamp, the likeliest first: each cell is held against its surroundings (so that
 * what changes the whole picture, as daylight, exposure or a hand, says little), split in two states over time, and judged by
 * how far those lie apart, how seldom it is between them, how often and how slowly it changes; neighbours that change with it
 * make the patch. A lit lamp that never changes, a needle that sweeps over cells one after the other, and what passes once, score
 * low or not at all.
 *
 * Done in steps of a few milliseconds, so that pictures can be taken in between: whoever calls goes on with the next one when it suits.
 */
export function* searchLamps(history: History): Generator<void, Found[]> {
  const { raster } = history;
  const { across, down } = raster;
  const count = across * down;
  const picks = looked(history);
  const n = picks.length;
  if (n < 20) return [];
  const times = picks.map((k) => history.time(k));
  const luma = yield* channel(picks, raster, (k, plane) => plane.set(history.cells(k).y));
  const colour = yield* channel(picks, raster, (k, plane) => {
    const { u, v } = history.cells(k);
    for (let c = 0; c < count; c++) plane[c] = v[c] - u[c];
  });
  const rough = roughness(history.cells(picks[n >> 1]).y, across, down);
  const judged: { cell: number; score: number; series: Channel; split: Split }[] = [];
  for (let c = 0; c < count; c++) {
    if (c % AT_ONCE === 0) yield;
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
    yield;
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

/** A lit lamp is seldom tiny, and seldom without a colour; the edge of something white that trembles is both. */
function looks(cells: number, { u, v }: Found["colour"]): number {
  const size = Math.min(1, 0.7 + 0.1 * cells);
  return cells < SMALL && Math.hypot(u, v) < COLOURLESS ? 0.35 * size : size;
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
