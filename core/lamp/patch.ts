import { CELL, type Raster } from "./picture";

/** A patch of the picture, in cells: what lies within it, and its corners. */
export interface Patch {
  cells: number[];
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A rectangle in shares of a picture's width and height, from its upper left corner. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

export function boxOf({ left, top, right, bottom }: Patch, { width, height }: Raster): Box {
  const [w, h] = [CELL / width, CELL / height];
  return { x: left * w, y: top * h, w: (right - left) * w, h: (bottom - top) * h };
}

/** The cells whose middle lies in a box that a person drew; at least the one in its middle. */
export function patchOf(box: Box, { width, height, across, down }: Raster): Patch {
  const between = (x: number, n: number): number => Math.min(n - 1, Math.max(0, Math.floor(x)));
  const left = between((box.x * width) / CELL + 0.5, across);
  const top = between((box.y * height) / CELL + 0.5, down);
  const right = Math.max(left + 1, Math.min(across, Math.round(((box.x + box.w) * width) / CELL)));
  const bottom = Math.max(top + 1, Math.min(down, Math.round(((box.y + box.h) * height) / CELL)));
  const cells: number[] = [];
  for (let j = top; j < bottom; j++) for (let i = left; i < right; i++) cells.push(j * across + i);
  return { cells, left, top, right, bottom };
}

/** A box as it appears once the picture is turned clockwise by a quarter, half or three quarters. */
export function turned({ x, y, w, h }: Box, degrees: 0 | 90 | 180 | 270): Box {
  if (degrees === 90) return { x: 1 - y - h, y: x, w: h, h: w };
  if (degrees === 180) return { x: 1 - x - w, y: 1 - y - h, w, h };
  if (degrees === 270) return { x: y, y: 1 - x - w, w: h, h: w };
  return { x, y, w, h };
}
