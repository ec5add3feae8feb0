/**
 * One picture of a film or camera: a luma plane and two chroma planes of half its width and height (4:2:0), as video decoders
 * give them. `step` is the distance of neighbouring chroma samples in bytes: 1 where the planes are apart, 2 where interleaved.
 */
export interface Picture {
  /** Time stamp, ms. */
  t: number;
  width: number;
  height: number;
  y: Uint8Array;
  yStride: number;
  u: Uint8Array;
  v: Uint8Array;
  cStride: number;
  cStep: 1 | 2;
}

/**
 * A picture from red, green and blue (four bytes a pixel, alpha unused): full-range BT.601 luma and chroma.
 * @param order of the bytes
 */
export function pictureOfRgba(
  t: number,
  width: number,
  height: number,
  data: Uint8Array | Uint8ClampedArray,
  order: "rgba" | "bgra" = "rgba",
): Picture {
  const [r, b] = order === "rgba" ? [0, 2] : [2, 0];
  const y = new Uint8Array(width * height);
  for (let k = 0, i = 0; k < y.length; k++, i += 4)
    y[k] = 0.299 * data[i + r] + 0.587 * data[i + 1] + 0.114 * data[i + b] + 0.5;
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
  const u = new Uint8Array(cw * ch);
  const v = new Uint8Array(cw * ch);
  for (let j = 0; j < ch; j++)
    for (let k = 0; k < cw; k++) {
      const at = 4 * (Math.min(height - 1, 2 * j) * width + Math.min(width - 1, 2 * k));
      const luma = 0.299 * data[at + r] + 0.587 * data[at + 1] + 0.114 * data[at + b];
      u[j * cw + k] = 128.5 + 0.564 * (data[at + b] - luma);
      v[j * cw + k] = 128.5 + 0.713 * (data[at + r] - luma);
    }
  return { t, width, height, y, yStride: width, u, v, cStride: cw, cStep: 1 };
}

/** Where lamps are looked for: pictures of any size are sampled to a raster, and its pixels gathered in cells. */
export interface Raster {
  /** Raster pixels, and source pixels from one to the next. */
  width: number;
  height: number;
  step: number;
  /** Cells across and down; each is {@link CELL} raster pixels wide and high. */
  across: number;
  down: number;
}

/** Side of a cell in raster pixels: a lamp of one per cent of the picture's width fills one. */
export const CELL = 6;
/** About so many raster pixels the long side has; the step is whole, so that samples are reached by adding. */
const LONG_SIDE = 640;

export function rasterOf(width: number, height: number): Raster {
  const step = Math.max(1, Math.round(Math.max(width, height) / LONG_SIDE));
  const [w, h] = [Math.max(1, Math.floor(width / step)), Math.max(1, Math.floor(height / step))];
  return {
    width: w,
    height: h,
    step,
    across: Math.max(1, Math.floor(w / CELL)),
    down: Math.max(1, Math.floor(h / CELL)),
  };
}

/** Mean luma and chroma of each cell, row by row. */
export interface Cells {
  y: Float32Array;
  u: Float32Array;
  v: Float32Array;
}

export function emptyCells({ across, down }: Raster): Cells {
  const n = across * down;
  return { y: new Float32Array(n), u: new Float32Array(n), v: new Float32Array(n) };
}

/** Luma samples in a cell: every other pixel of every other row, those of its middle row one further on. */
const SAMPLES = (CELL / 2) ** 2;

/**
 * Gathers a picture into cells that stand still although the camera shakes: nine samples of luma and two of each chroma plane a cell.
 * @param dx,dy where the picture has moved to, whole raster pixels
 * @param into filled and returned
 */
export function gather(p: Picture, raster: Raster, dx: number, dy: number, into: Cells): Cells {
  const { y, u, v, yStride, cStride, cStep } = p;
  const { width, height, step, across, down } = raster;
  // Cells that lie within the picture as a whole, whichever way it has moved.
  const [left, right] = within(dx, width, across);
  const [top, bottom] = within(dy, height, down);
  const two = 2 * step;
  const middle = step >> 1;
  for (let j = 0; j < down; j++) {
    const row = j * across;
    if (j < top || j >= bottom) {
      for (let i = 0; i < across; i++) gatherCell(p, raster, dx, dy, row + i, into);
      continue;
    }
    for (let i = 0; i < left; i++) gatherCell(p, raster, dx, dy, row + i, into);
    for (let i = right; i < across; i++) gatherCell(p, raster, dx, dy, row + i, into);
    const [x, z] = [dx + left * CELL, dy + j * CELL];
    let a = (z * step + middle) * yStride + x * step + middle;
    let b = a + two * yStride + step;
    let c = a + 2 * two * yStride;
    // Halved pixel by pixel, since chroma planes have half as many.
    let q = chroma(z + 1, step) * cStride + chroma(x + 1, step) * cStep;
    let r = chroma(z + 4, step) * cStride + chroma(x + 4, step) * cStep;
    const on = CELL * step;
    const half = (CELL / 2) * step * cStep;
    for (let i = left; i < right; i++, a += on, b += on, c += on, q += half, r += half) {
      into.y[row + i] =
        (y[a] + y[a + two] + y[a + 2 * two] + y[b] + y[b + two] + y[b + 2 * two] + y[c] + y[c + two] + y[c + 2 * two]) /
        SAMPLES;
      into.u[row + i] = (u[q] + u[r]) / 2;
      into.v[row + i] = (v[q] + v[r]) / 2;
    }
  }
  return into;
}

/** First of the cells, and one after the last, whose every pixel lies within a picture that has moved by `d`. */
function within(d: number, size: number, cells: number): [number, number] {
  const first = Math.min(cells, Math.max(0, Math.ceil(-d / CELL)));
  return [first, Math.max(first, Math.min(cells, Math.floor((size - d) / CELL)))];
}

/** Chroma sample of a raster pixel. */
const chroma = (pixel: number, step: number): number => ((2 * pixel + 1) * step) >> 2;

/** As {@link gather}, of one cell, which may lie beyond the edge: the edge goes on there. */
export function gatherCell(p: Picture, raster: Raster, dx: number, dy: number, cell: number, into: Cells): void {
  const { y, u, v, yStride, cStride, cStep } = p;
  const { width, height, step, across } = raster;
  const [x, z] = [dx + (cell % across) * CELL, dy + Math.floor(cell / across) * CELL];
  let sum = 0;
  for (let r = 0; r < CELL; r += 2) {
    const line = (clamp(z + r, height) * step + (step >> 1)) * yStride + (step >> 1);
    const from = x + ((r >> 1) & 1);
    for (let c = 0; c < CELL; c += 2) sum += y[line + clamp(from + c, width) * step];
  }
  into.y[cell] = sum / SAMPLES;
  const a = chroma(clamp(z + 1, height), step) * cStride + chroma(clamp(x + 1, width), step) * cStep;
  const b = chroma(clamp(z + 4, height), step) * cStride + chroma(clamp(x + 4, width), step) * cStep;
  into.u[cell] = (u[a] + u[b]) / 2;
  into.v[cell] = (v[a] + v[b]) / 2;
}

const clamp = (x: number, size: number): number => (x < 0 ? 0 : x >= size ? size - 1 : x);

/** Sums of a picture's columns and rows. */
export interface Sums {
  across: Int32Array;
  down: Int32Array;
}

export function emptySums({ width, height }: Raster): Sums {
  return { across: new Int32Array(width), down: new Int32Array(height) };
}

/** One pixel of so many goes into a sum. */
export const THIN = 8;

/** Sums of a picture's columns and rows, over one pixel of {@link THIN}. @param into filled and returned */
export function sumsOf({ y, yStride }: Picture, { width, height, step }: Raster, into: Sums): Sums {
  const { across, down } = into;
  const middle = step >> 1;
  const thin = THIN * step;
  const end = width * step;
  across.fill(0);
  for (let j = 0; j < height; j++) {
    const line = (j * step + middle) * yStride + middle;
    if (j % THIN === 0) for (let i = 0, at = line; i < width; i++, at += step) across[i] += y[at];
    let sum = 0;
    for (let at = line + thin / 2; at < line + end; at += thin) sum += y[at];
    down[j] = sum;
  }
  return into;
}
