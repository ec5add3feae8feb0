/** A picture in grays, row by row from the top left; 0 is black. */
export interface Gray {
  width: number;
  height: number;
  /** `width * height` values. */
  y: Uint8ClampedArray;
}

/** The grays of a picture of four bytes a pixel (red, green, blue, opacity; ITU-R BT.601 weights). */
export function grayOf(width: number, height: number, rgba: Uint8ClampedArray): Gray {
  const y = new Uint8ClampedArray(width * height);
  for (let i = 0, k = 0; i < y.length; i++, k += 4) y[i] = 0.299 * rgba[k] + 0.587 * rgba[k + 1] + 0.114 * rgba[k + 2];
  return { width, height, y };
}

/** Smaller by a whole factor: the mean of each block of `by` by `by` pixels. */
export function shrunk({ width, height, y }: Gray, by: number): Gray {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Uint8ClampedArray(w * h);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      let sum = 0;
      for (let b = 0; b < by; b++) for (let a = 0; a < by; a++) sum += y[(j * by + b) * width + i * by + a];
      out[j * w + i] = sum / (by * by);
    }
  return { width: w, height: h, y: out };
}

/** The value between pixels (bilinear); beyond the edge it is paper. */
export function at({ width, height, y }: Gray, px: number, py: number): number {
  const [i, j] = [Math.floor(px), Math.floor(py)];
  if (i < 0 || j < 0 || i + 1 >= width || j + 1 >= height) return 255;
  const [a, b] = [px - i, py - j];
  const k = j * width + i;
  return (1 - b) * ((1 - a) * y[k] + a * y[k + 1]) + b * ((1 - a) * y[k + width] + a * y[k + width + 1]);
}

/** A part of a picture, `times` as large. */
export function cutOut(g: Gray, x: number, top: number, width: number, height: number, times = 1): Gray {
  const [w, h] = [Math.max(1, Math.round(width * times)), Math.max(1, Math.round(height * times))];
  const out = new Uint8ClampedArray(w * h);
  for (let j = 0; j < h; j++) for (let i = 0; i < w; i++) out[j * w + i] = at(g, x + i / times, top + j / times);
  return { width: w, height: h, y: out };
}

/** Four bytes a pixel again. */
export function rgbaOf({ width, height, y }: Gray): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(width * height * 4);
  for (let i = 0, k = 0; i < y.length; i++, k += 4) {
    out[k] = out[k + 1] = out[k + 2] = y[i];
    out[k + 3] = 255;
  }
  return out;
}
