import { inkBelow } from "./flatten";
import type { Gray } from "./gray";

/** A stroke is a ruled line where it is so long, as a share of the page's width, and so thin, as a share of it. */
const LONG = 0.06;
const THIN = 0.006;

/** Ruled lines taken out: long thin strokes, level or upright. Print that touches one stays. */
export function unruled(g: Gray): Gray {
  const cut = (inkBelow(g) + 240) / 2;
  const out = new Uint8ClampedArray(g.y);
  const long = Math.max(24, Math.round(g.width * LONG));
  const thin = Math.max(3, Math.round(g.width * THIN));
  wipe(g, out, cut, long, thin, g.width, g.height, 1, g.width);
  wipe(g, out, cut, long, thin, g.height, g.width, g.width, 1);
  return { ...g, y: out };
}

/** Along `along` (steps of `step`), across by `across`. */
function wipe(
  g: Gray,
  out: Uint8ClampedArray,
  cut: number,
  long: number,
  thin: number,
  length: number,
  breadth: number,
  step: number,
  across: number,
): void {
  const wipeAt = (i: number, j: number) => {
    if (j >= 0 && j < breadth) out[j * across + i * step] = 240;
  };
  const dark = (i: number, j: number) => j >= 0 && j < breadth && g.y[j * across + i * step] < cut;
  for (let j = 0; j < breadth; j++)
    for (let i = 0; i < length;) {
      if (!dark(i, j)) {
        i++;
        continue;
      }
      let end = i;
      // A gap of a pixel or two is grain.
      while (end < length && (dark(end, j) || dark(end + 1, j) || dark(end + 2, j))) end++;
      if (end - i >= long)
        for (let k = i; k < end; k++) {
          let [a, b] = [j, j];
          while (dark(k, a - 1) && j - a < long) a--;
          while (dark(k, b + 1) && b - j < long) b++;
          // Where it is thicker, print stands on it; where it is as long the other way, two lines cross.
          if (b - a < thin) for (let r = a - 1; r <= b + 1; r++) wipeAt(k, r);
          else if (b - a >= long) for (let r = j - 1; r <= j + 1; r++) wipeAt(k, r);
        }
      i = end + 1;
    }
}
