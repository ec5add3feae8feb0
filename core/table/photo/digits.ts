import { inkBelow } from "./flatten";
import type { Gray } from "./gray";

/** A digit cut out of a picture: its ink on a small grid, row by row, 0 to 1, and how wide it is for its height. */
export interface Glyph {
  ink: number[];
  wide: number;
}

/** A piece of ink as one digit, as two that touch, as three, as four. */
export type Piece = Glyph[][];

interface Box {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

const COLUMNS = 10;
const ROWS = 16;

/** The pieces of ink in a cell that are as high as digits, from left to right; what touches the upper or lower edge belongs to another line. */
export function piecesIn(cell: Gray): Piece[] {
  const { width, height, y } = cell;
  const cut = inkBelow(cell);
  const seen = new Uint8Array(y.length);
  const pieces: Box[] = [];
  for (let start = 0; start < y.length; start++) {
    if (seen[start] || y[start] >= cut) continue;
    const piece = { x0: width, x1: 0, y0: height, y1: 0 };
    const open = [start];
    seen[start] = 1;
    for (let k = open.pop(); k !== undefined; k = open.pop()) {
      const [i, j] = [k % width, Math.floor(k / width)];
      piece.x0 = Math.min(piece.x0, i);
      piece.x1 = Math.max(piece.x1, i);
      piece.y0 = Math.min(piece.y0, j);
      piece.y1 = Math.max(piece.y1, j);
      for (let b = Math.max(0, j - 1); b <= Math.min(height - 1, j + 1); b++)
        for (let a = Math.max(0, i - 1); a <= Math.min(width - 1, i + 1); a++) {
          const n = b * width + a;
          if (seen[n] || y[n] >= cut) continue;
          seen[n] = 1;
          open.push(n);
        }
    }
    pieces.push(piece);
  }
  const whole = pieces.filter((p) => p.y0 > 0 && p.y1 < height - 1);
  const high = Math.max(0, ...whole.map((p) => p.y1 - p.y0 + 1));
  // A digit that is broken in two would be read as none, and the number as another.
  if (whole.some((p) => p.y1 - p.y0 + 1 > 0.35 * high && p.y1 - p.y0 + 1 <= 0.7 * high)) return [];
  return whole
    .filter((p) => p.y1 - p.y0 + 1 > 0.7 * high && high > 8)
    .sort((a, b) => a.x0 - b.x0)
    .map((p) => [1, 2, 3, 4].map((n) => parted(cell, p, n, cut)));
}

/** A piece cut upright into `n`, each time where there is least ink about where a digit should end. */
function parted(cell: Gray, p: Box, n: number, cut: number): Glyph[] {
  const width = p.x1 - p.x0 + 1;
  const inkAt = (x: number) => {
    let sum = 0;
    for (let j = p.y0; j <= p.y1; j++) if (cell.y[j * cell.width + x] < cut) sum++;
    return sum;
  };
  const cuts = [p.x0];
  for (let k = 1; k < n; k++) {
    const ideal = p.x0 + (k * width) / n;
    let [best, least] = [Math.round(ideal), Infinity];
    for (let x = Math.ceil(ideal - (0.22 * width) / n); x <= ideal + (0.22 * width) / n; x++) {
      const ink = inkAt(x) + Math.abs(x - ideal) * 0.01;
      if (ink < least) [best, least] = [x, ink];
    }
    cuts.push(best);
  }
  return cuts.map((x0, k) => glyphOf(cell, { ...p, x0, x1: (cuts[k + 1] ?? p.x1 + 1) - 1 }, cut));
}

function glyphOf({ width, y }: Gray, p: Box, cut: number): Glyph {
  const [w, h] = [p.x1 - p.x0 + 1, p.y1 - p.y0 + 1];
  const ink = new Array<number>(COLUMNS * ROWS).fill(0);
  const n = new Array<number>(COLUMNS * ROWS).fill(0);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const k = Math.floor((j * ROWS) / h) * COLUMNS + Math.floor((i * COLUMNS) / w);
      n[k]++;
      if (y[(p.y0 + j) * width + p.x0 + i] < cut) ink[k]++;
    }
  return { ink: ink.map((v, k) => (n[k] ? v / n[k] : 0)), wide: w / h };
}

/** What each digit looks like on this page: the mean of those that were read there. */
export type OwnDigits = ReadonlyMap<string, { ink: number[]; wide: number; n: number }>;

/** Learns a page's digits from cells whose codes are known. */
export function ownDigits(cells: readonly { code: string; pieces: readonly Piece[] }[]): OwnDigits {
  const out = new Map<string, { ink: number[]; wide: number; n: number }>();
  for (const { code, pieces } of cells) {
    if (pieces.length !== code.length) continue;
    pieces.forEach(([[g]], k) => {
      const own = out.get(code[k]) ?? { ink: g.ink.map(() => 0), wide: 0, n: 0 };
      own.n++;
      own.ink = own.ink.map((v, i) => v + (g.ink[i] - v) / own.n);
      own.wide += (g.wide - own.wide) / own.n;
      out.set(code[k], own);
    });
  }
  return out;
}

/** How unlike a digit and a piece of ink are. */
const unlike = (g: Glyph, d: { ink: number[]; wide: number }): number =>
  g.ink.reduce((s, v, i) => s + (v - d.ink[i]) ** 2, 0) / g.ink.length + 0.6 * (g.wide - d.wide) ** 2;

/** Another digit has to be so much more unlike, or nothing is said. */
const CLEAR = 1.35;
/** What is so unlike every digit of the page is none, or one that the page has not shown. */
const STRANGE = 0.12;

/** A cell read by the page's own digits, or null where they leave it open. */
export function byOwnDigits(pieces: readonly Piece[], own: OwnDigits): string | null {
  if (!pieces.length || own.size < 3) return null;
  let code = "";
  for (const piece of pieces) {
    const read = piece.map((glyphs) => glyphs.map((g) => digitOf(g, own)));
    const whole = read.filter((digits) => digits.every((d) => d.digit !== null));
    if (!whole.length) return null;
    const far = (digits: { far: number }[]) => Math.max(...digits.map((d) => d.far));
    code += whole
      .reduce((a, b) => (far(b) < far(a) ? b : a))
      .map((d) => d.digit)
      .join("");
  }
  return /^[1-9]\d{0,3}$/.test(code) ? code : null;
}

function digitOf(g: Glyph, own: OwnDigits): { digit: string | null; far: number } {
  const ranked = [...own].map(([digit, d]) => ({ digit, far: unlike(g, d) })).sort((a, b) => a.far - b.far);
  const open = ranked[0].far > STRANGE || ranked[1].far < CLEAR * ranked[0].far;
  return { digit: open ? null : ranked[0].digit, far: ranked[0].far };
}
