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
  scale: number;
  /** Cells across and down; each is {@link CELL} raster pixels wide and high. */
  across: number;
  down: number;
}

/** Side of a cell in raster pixels: a lamp of one per cent of the picture's width fills one. */
export const CELL = 6;
const LONG_SIDE = 640;

export function rasterOf(width: number, height: number): Raster {
  const scale = Math.max(1, Math.max(width, height) / LONG_SIDE);
  const [w, h] = [Math.floor(width / scale), Math.floor(height / scale)];
  return {
    width: w,
    height: h,
    scale,
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

/** Which samples of a picture the cells are made of; the same for all pictures of one size. */
export interface Sampling {
  raster: Raster;
  /** Source column and row of each raster pixel, from `margin` pixels before the picture's edge to as many behind. */
  column: Int32Array;
  row: Int32Array;
  chromaColumn: Int32Array;
  chromaRow: Int32Array;
  /** Room for the sums of a row of cells, and of a picture's columns and rows: a picture must leave nothing to clear away. */
  sums: Uint32Array;
  across: Int32Array;
  down: Int32Array;
}

/** Shifts of the picture up to this, raster pixels, are within the tables. */
const MARGIN = 100;

export function samplingOf(width: number, height: number): Sampling {
  const raster = rasterOf(width, height);
  const table = (n: number, size: number, factor: number): Int32Array => {
    const out = new Int32Array(n + 2 * MARGIN);
    for (let k = 0; k < out.length; k++)
      out[k] = Math.min(size - 1, Math.max(0, Math.floor((k - MARGIN + 0.5) * factor)));
    return out;
  };
  const { width: w, height: h, scale } = raster;
  return {
    raster,
    column: table(w, width, scale),
    row: table(h, height, scale),
    chromaColumn: table(w, (width + 1) >> 1, scale / 2),
    chromaRow: table(h, (height + 1) >> 1, scale / 2),
    sums: new Uint32Array(raster.across),
    across: new Int32Array(w),
    down: new Int32Array(h),
  };
}

/**
 * Gathers a picture into cells that stand still although the camera shakes: nine samples of luma and two of each chroma plane a cell.
 * @param dx,dy where the picture has moved to, whole raster pixels
 * @param into filled and returned
 */
export function gather(p: Picture, s: Sampling, dx: number, dy: number, into: Cells): Cells {
  const { y, u, v, yStride, cStride, cStep } = p;
  const { column, row, chromaColumn, chromaRow, sums } = s;
  const { across, down } = s.raster;
  const [left, top] = [dx + MARGIN, dy + MARGIN];
  for (let j = 0; j < down; j++) {
    sums.fill(0);
    for (let r = 0; r < CELL; r += 2) {
      const line = row[top + j * CELL + r] * yStride;
      let x = left + ((r >> 1) & 1);
      for (let i = 0; i < across; i++, x += CELL)
        sums[i] += y[line + column[x]] + y[line + column[x + 2]] + y[line + column[x + 4]];
    }
    const out = j * across;
    for (let i = 0; i < across; i++) into.y[out + i] = sums[i] / SAMPLES;
    const a = chromaRow[top + j * CELL + 1] * cStride;
    const b = chromaRow[top + j * CELL + 4] * cStride;
    for (let i = 0, x = left + 1; i < across; i++, x += CELL) {
      const l = a + chromaColumn[x] * cStep;
      const r = b + chromaColumn[x + 3] * cStep;
      into.u[out + i] = (u[l] + u[r]) / 2;
      into.v[out + i] = (v[l] + v[r]) / 2;
    }
  }
  return into;
}

/** Luma samples in a cell: every other pixel of every other row. */
const SAMPLES = (CELL / 2) ** 2;

/** As {@link gather}, of some cells only: what a lamp needs in every picture, while the whole is only looked at now and then. */
export function gatherSome(
  p: Picture,
  s: Sampling,
  dx: number,
  dy: number,
  some: readonly number[],
  into: Cells,
): void {
  const { y, u, v, yStride, cStride, cStep } = p;
  const { column, row, chromaColumn, chromaRow } = s;
  const { across } = s.raster;
  for (const c of some) {
    const x = MARGIN + dx + (c % across) * CELL;
    const top = MARGIN + dy + Math.floor(c / across) * CELL;
    let sum = 0;
    for (let r = 0; r < CELL; r += 2) {
      const line = row[top + r] * yStride;
      const k = x + ((r >> 1) & 1);
      sum += y[line + column[k]] + y[line + column[k + 2]] + y[line + column[k + 4]];
    }
    into.y[c] = sum / SAMPLES;
    const a = chromaRow[top + 1] * cStride + chromaColumn[x + 1] * cStep;
    const b = chromaRow[top + 4] * cStride + chromaColumn[x + 4] * cStep;
    into.u[c] = (u[a] + u[b]) / 2;
    into.v[c] = (v[a] + v[b]) / 2;
  }
}

/** Sums of a picture's columns and rows, over one pixel of {@link THIN}; valid until the next picture's. */
export function sumsOf(p: Picture, s: Sampling): { across: Int32Array; down: Int32Array } {
  const { y, yStride } = p;
  const { column, row, across, down } = s;
  const { width, height } = s.raster;
  across.fill(0);
  for (let j = 0; j < height; j++) {
    const line = row[MARGIN + j] * yStride;
    if (j % THIN === 0) for (let i = 0; i < width; i++) across[i] += y[line + column[MARGIN + i]];
    let sum = 0;
    for (let i = THIN / 2; i < width; i += THIN) sum += y[line + column[MARGIN + i]];
    down[j] = sum;
  }
  return { across, down };
}

export const THIN = 8;
