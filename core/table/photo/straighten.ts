import { inkBelow } from "./flatten";
import { at, shrunk, type Gray } from "./gray";

/** Widest turn that is looked for, degrees. */
const MOST_DEGREES = 7;

/** Ink of a picture as points, so that many turns are tried on few numbers. */
function inkOf(g: Gray, from = 0, to = g.width): [x: number, y: number][] {
  const cut = inkBelow(g);
  const out: [number, number][] = [];
  for (let j = 0; j < g.height; j++) for (let i = from; i < to; i++) if (g.y[j * g.width + i] < cut) out.push([i, j]);
  return out;
}

/** How sharply lines of print stand out when looked along a slope: the sum of squares of the ink by row. */
function sharpness(ink: readonly [number, number][], slope: number, rows: number): number {
  const sums = new Float64Array(2 * rows + 2);
  for (const [x, y] of ink) {
    const r = Math.round(y - slope * x + rows / 2);
    if (r >= 0 && r < sums.length) sums[r]++;
  }
  let value = 0;
  for (let r = 1; r < sums.length; r++) value += (sums[r] - sums[r - 1]) ** 2;
  return value;
}

/** Slope of the lines of print, by the sharpest rows: first in coarse steps, then in fine ones. */
function slopeOf(ink: readonly [number, number][], rows: number, around = 0, reach = MOST_DEGREES): number {
  let best = around;
  for (let step = reach / 12, width = reach; step > 0.01; step /= 4, width = step * 5) {
    const middle = best;
    let top = -1;
    for (let d = middle - width; d <= middle + width; d += step) {
      const value = sharpness(ink, Math.tan((d * Math.PI) / 180), rows);
      if (value > top) [top, best] = [value, d];
    }
  }
  return best;
}

/**
 * Turned so that its lines lie level. The lines of a page that was not photographed from straight above run together: the slope is
 * taken at the top and at the bottom, and what lies between is turned by what lies between.
 */
export function straightened(g: Gray): Gray {
  const by = Math.max(1, Math.round(Math.max(g.width, g.height) / 900));
  const small = shrunk(g, by);
  const ink = inkOf(small);
  if (ink.length < 50) return g;
  const whole = slopeOf(ink, small.height);
  const half = small.height / 2;
  const top = slopeOf(
    ink.filter(([, y]) => y < half),
    small.height,
    whole,
    1.5,
  );
  const low = slopeOf(
    ink.filter(([, y]) => y >= half),
    small.height,
    whole,
    1.5,
  );
  const out = new Uint8ClampedArray(g.y.length);
  const tan = (d: number) => Math.tan((d * Math.PI) / 180);
  const middle = g.width / 2;
  // Columns lean as much as lines do, where the page was only turned.
  const lean = tan(whole);
  for (let j = 0; j < g.height; j++) {
    const share = Math.max(0, Math.min(1, (j / g.height - 0.25) / 0.5));
    const slope = tan(top) * (1 - share) + tan(low) * share;
    for (let i = 0; i < g.width; i++)
      out[j * g.width + i] = at(g, i - lean * (j - g.height / 2), j + slope * (i - middle));
  }
  return { ...g, y: out };
}
