import { shrunk, type Gray } from "./gray";

/** The light is looked at in blocks of so many pixels. */
const BLOCK = 16;
/** Paper after flattening. */
const PAPER = 240;

/** Uneven light and shadows taken out: each pixel by the paper around it, which is what is brightest there. */
export function flattened(g: Gray): Gray {
  const small = shrunk(g, BLOCK);
  if (!small.width || !small.height) return g;
  // Of the blocks around each the brighter ones hold paper; print only makes a block darker.
  const bright = spread(small, 2, (window) => window[Math.floor(window.length * 0.85)]);
  const paper = spread(bright, 2, (window) => window.reduce((s, v) => s + v, 0) / window.length);
  const out = new Uint8ClampedArray(g.y.length);
  for (let j = 0; j < g.height; j++)
    for (let i = 0; i < g.width; i++) {
      const p = between(paper, i / BLOCK - 0.5, j / BLOCK - 0.5);
      out[j * g.width + i] = (PAPER * g.y[j * g.width + i]) / Math.max(20, p);
    }
  return { ...g, y: out };
}

function spread({ width, height, y }: Gray, reach: number, of: (sorted: number[]) => number): Gray {
  const out = new Uint8ClampedArray(y.length);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const window: number[] = [];
      for (let b = Math.max(0, j - reach); b <= Math.min(height - 1, j + reach); b++)
        for (let a = Math.max(0, i - reach); a <= Math.min(width - 1, i + reach); a++) window.push(y[b * width + a]);
      out[j * width + i] = of(window.sort((p, q) => p - q));
    }
  return { width, height, y: out };
}

/** Between the middles of blocks; at the edge that of the last one. */
function between({ width, height, y }: Gray, px: number, py: number): number {
  const [cx, cy] = [Math.max(0, Math.min(width - 1.001, px)), Math.max(0, Math.min(height - 1.001, py))];
  const [i, j] = [Math.floor(cx), Math.floor(cy)];
  const [a, b] = [cx - i, cy - j];
  const [i2, j2] = [Math.min(width - 1, i + 1), Math.min(height - 1, j + 1)];
  const top = (1 - a) * y[j * width + i] + a * y[j * width + i2];
  const low = (1 - a) * y[j2 * width + i] + a * y[j2 * width + i2];
  return (1 - b) * top + b * low;
}

/** From which gray on something is print, after flattening (Otsu 1979: the split that parts two classes best). */
export function inkBelow({ y }: Gray): number {
  const counts = new Float64Array(256);
  for (const v of y) counts[v]++;
  const all = y.length;
  let sum = 0;
  for (let v = 0; v < 256; v++) sum += v * counts[v];
  let [below, part, best, cut, last] = [0, 0, -1, 128, 128];
  for (let v = 0; v < 256; v++) {
    below += counts[v];
    part += v * counts[v];
    if (!below || below === all) continue;
    const apart = (sum / all) * below - part;
    const value = (apart * apart) / (below * (all - below));
    if (value > best) [best, cut, last] = [value, v, v];
    else if (value === best) last = v;
  }
  // Where nothing lies between ink and paper, every cut between them is as good: the one in the middle.
  return (cut + last + 1) / 2;
}

/** Print black and paper white: grain in the paper is gone, and the edges of letters keep their grays. */
export function contrasted(g: Gray): Gray {
  const cut = inkBelow(g);
  let [ink, n] = [0, 0];
  for (const v of g.y)
    if (v < cut) {
      ink += v;
      n++;
    }
  const [black, white] = [n ? ink / n : 0, cut + (PAPER - cut) * 0.55];
  const out = new Uint8ClampedArray(g.y.length);
  for (let i = 0; i < out.length; i++) out[i] = (255 * (g.y[i] - black)) / (white - black);
  return { ...g, y: out };
}

/** Edges made sharper: what differs from the mean of the pixels around it differs more (unsharp mask). */
export function sharpened(g: Gray, reach: number, much: number): Gray {
  const soft = blurred(blurred(g, reach, 1, g.width), reach, g.width, 1);
  const out = new Uint8ClampedArray(g.y.length);
  for (let i = 0; i < out.length; i++) out[i] = g.y[i] + much * (g.y[i] - soft.y[i]);
  return { ...g, y: out };
}

/** Means over `2 * reach + 1` pixels along one direction, by a running sum. */
function blurred(g: Gray, reach: number, step: number, across: number): Gray {
  const length = step === 1 ? g.width : g.height;
  const breadth = step === 1 ? g.height : g.width;
  const out = new Uint8ClampedArray(g.y.length);
  const span = 2 * reach + 1;
  for (let j = 0; j < breadth; j++) {
    const at = (i: number) => g.y[j * across + Math.max(0, Math.min(length - 1, i)) * step];
    let sum = 0;
    for (let i = -reach; i <= reach; i++) sum += at(i);
    for (let i = 0; i < length; i++) {
      out[j * across + i * step] = sum / span;
      sum += at(i + reach + 1) - at(i - reach);
    }
  }
  return { ...g, y: out };
}
