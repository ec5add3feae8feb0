import { FEATURES, type Features } from "./measure";

/** A direction in the measured features along which lit and dark lie furthest apart, and how to bring it to a brightness. */
export interface Discriminant {
  weights: Float64Array;
  offset: number;
  /** Distance of lit and dark in standard deviations within them. */
  apart: number;
  /** Inverse of the covariance within the states, and the states' means: to tell what is neither. */
  inverse: Float64Array;
  dark: Float64Array;
  lit: Float64Array;
}

/** Brightness of the dark and of the lit lamp on the scale on which it is told, 0 to 255. */
export const DARK = 70;
export const LIT = 150;

/**
 * Fisher's linear discriminant from pictures with known states, with a little added to the diagonal so that few pictures do
 * not overfit.
 * @returns null where a state is missing
 */
export function discriminantOf(features: readonly Features[], lit: ArrayLike<number>): Discriminant | null {
  const means = [new Float64Array(FEATURES), new Float64Array(FEATURES)];
  const counts = [0, 0];
  for (const [k, f] of features.entries()) {
    counts[lit[k]]++;
    for (let i = 0; i < FEATURES; i++) means[lit[k]][i] += f[i];
  }
  if (counts[0] < 5 || counts[1] < 3) return null;
  for (const s of [0, 1]) for (let i = 0; i < FEATURES; i++) means[s][i] /= counts[s];
  const within = new Float64Array(FEATURES * FEATURES);
  for (const [k, f] of features.entries()) {
    const m = means[lit[k]];
    for (let i = 0; i < FEATURES; i++)
      for (let j = 0; j < FEATURES; j++) within[i * FEATURES + j] += (f[i] - m[i]) * (f[j] - m[j]);
  }
  for (let i = 0; i < FEATURES * FEATURES; i++) within[i] /= features.length;
  for (let i = 0; i < FEATURES; i++) within[i * FEATURES + i] = within[i * FEATURES + i] * 1.03 + 0.15;
  const inverse = inverted(within);
  if (!inverse) return null;
  const weights = new Float64Array(FEATURES);
  for (let i = 0; i < FEATURES; i++)
    for (let j = 0; j < FEATURES; j++) weights[i] += inverse[i * FEATURES + j] * (means[1][j] - means[0][j]);
  let reach = 0;
  for (let i = 0; i < FEATURES; i++) reach += weights[i] * (means[1][i] - means[0][i]);
  if (!(reach > 0)) return null;
  const scale = (LIT - DARK) / reach;
  let offset = DARK;
  for (let i = 0; i < FEATURES; i++) {
    weights[i] *= scale;
    offset -= weights[i] * means[0][i];
  }
  return { weights, offset, apart: Math.sqrt(reach), inverse, dark: means[0], lit: means[1] };
}

/** Brightness of the lamp in a picture: {@link DARK} to {@link LIT}, and beyond by noise. */
export function brightnessOf({ weights, offset }: Discriminant, f: Features): number {
  let sum = offset;
  for (let i = 0; i < FEATURES; i++) sum += weights[i] * f[i];
  return Math.min(255, Math.max(0, sum));
}

/** Squared Mahalanobis distance to the nearer state, or to what lies between them: large where something is in the way. */
export function strangeness({ inverse, dark, weights, apart }: Discriminant, f: Features): number {
  // With x from the dark lamp and w to the lit one: x² - 2 s xw + s² w², s the share of the way. Once a picture: nothing is allocated.
  let [xx, xw] = [0, 0];
  for (let i = 0; i < FEATURES; i++) {
    const x = f[i] - dark[i];
    let row = 0;
    for (let j = 0; j < FEATURES; j++) row += inverse[i * FEATURES + j] * (f[j] - dark[j]);
    xx += row * x;
    xw += weights[i] * x;
  }
  // The weights are the way from dark to lit, taken through the inverse, on the scale of brightness.
  const ww = apart * apart;
  xw *= ww / (LIT - DARK);
  const share = Math.min(1.2, Math.max(-0.2, xw / ww));
  return xx - 2 * share * xw + share * share * ww;
}

/** Inverse of a square matrix by Gauss and Jordan with pivots; null where there is none. */
function inverted(matrix: Float64Array): Float64Array | null {
  const n = FEATURES;
  const a = Float64Array.from(matrix);
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++) out[i * n + i] = 1;
  for (let c = 0; c < n; c++) {
    let p = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]) > Math.abs(a[p * n + c])) p = r;
    if (Math.abs(a[p * n + c]) < 1e-12) return null;
    for (const m of [a, out]) for (let k = 0; k < n; k++) [m[c * n + k], m[p * n + k]] = [m[p * n + k], m[c * n + k]];
    const d = a[c * n + c];
    for (const m of [a, out]) for (let k = 0; k < n; k++) m[c * n + k] /= d;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const f = a[r * n + c];
      for (const m of [a, out]) for (let k = 0; k < n; k++) m[r * n + k] -= f * m[c * n + k];
    }
  }
  return out;
}
