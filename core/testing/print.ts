import type { Gray } from "../table/photo/gray";

/** Digits five wide and seven high, row by row. For tests. */
const DIGITS = [
  "01110100011001110101110011000101110",
  "00100011000010000100001000010001110",
  "01110100010000100110010001000011111",
  "11110000010000101110000010000111110",
  "00010001100101010010111110001000010",
  "11111100001111000001000011000101110",
  "00110010001000011110100011000101110",
  "11111000010001000100010000100001000",
  "01110100011000101110100011000101110",
  "01110100011000101111000010001001100",
];

/** Blank paper. */
export const paper = (width: number, height: number, gray = 250): Gray => ({
  width,
  height,
  y: new Uint8ClampedArray(width * height).fill(gray),
});

/** Prints a number with its upper left corner at a place, `size` pixels a dot. @returns where it ends, pixels from the left */
export function printed(g: Gray, number: string, x: number, top: number, size: number, ink = 30): number {
  [...number].forEach((d, k) => {
    const left = x + k * 6 * size;
    // Each dot is a little larger than its place, so that those which meet at a corner hang together.
    for (let dot = 0; dot < 35; dot++)
      if (DIGITS[Number(d)][dot] === "1")
        filled(g, left + (dot % 5) * size - 1, top + Math.floor(dot / 5) * size - 1, size + 2, size + 2, ink);
  });
  return x + (number.length * 6 - 1) * size;
}

/** A rectangle of one gray. */
export function filled(g: Gray, x: number, top: number, width: number, height: number, gray: number): void {
  for (let j = top; j < top + height; j++) g.y.fill(gray, j * g.width + x, j * g.width + x + width);
}
