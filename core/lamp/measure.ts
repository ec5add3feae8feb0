import type { Patch } from "./patch";
import type { Cells, Raster } from "./picture";

/**
 * What is measured of a patch in each picture: mean luma (logarithmic, so that an exposure step moves lamp and surroundings
 * alike) and chroma of the patch, and the same of what is around it.
 */
export const FEATURES = 6;
export type Features = Float64Array;

/** Cells between a patch and its surroundings (the glow of the lamp), and how far those reach. */
const GLOW = 1;
const AROUND = 3;
/** The log of brightness in these units has about the noise of the chroma planes. */
const LOG_UNIT = 60;

/** Where to measure: the cells of the patch and those around it. */
export interface Site {
  patch: readonly number[];
  around: readonly number[];
}

/** @param others patches of other lamps, which are no surroundings */
export function siteOf(patch: Patch, { across, down }: Raster, others: readonly Patch[] = []): Site {
  const skip = new Set(others.flatMap((o) => o.cells));
  const around: number[] = [];
  for (let j = Math.max(0, patch.top - GLOW - AROUND); j < Math.min(down, patch.bottom + GLOW + AROUND); j++)
    for (let i = Math.max(0, patch.left - GLOW - AROUND); i < Math.min(across, patch.right + GLOW + AROUND); i++) {
      const inside =
        i >= patch.left - GLOW && i < patch.right + GLOW && j >= patch.top - GLOW && j < patch.bottom + GLOW;
      if (!inside && !skip.has(j * across + i)) around.push(j * across + i);
    }
  return { patch: patch.cells, around };
}

export function measure({ y, u, v }: Cells | { y: Uint8Array; u: Uint8Array; v: Uint8Array }, site: Site): Features {
  const out = new Float64Array(FEATURES);
  for (const [k, cells] of [site.patch, site.around].entries()) {
    const of = [0, 0, 0];
    for (const c of cells) {
      of[0] += y[c];
      of[1] += u[c];
      of[2] += v[c];
    }
    const n = Math.max(1, cells.length);
    out[3 * k] = LOG_UNIT * Math.log((of[0] / n + 10) / 10);
    out[3 * k + 1] = of[1] / n;
    out[3 * k + 2] = of[2] / n;
  }
  return out;
}

/** Brightness around a patch, 0 to 255. */
export function surroundings(f: Features): number {
  return 10 * Math.exp(f[3] / LOG_UNIT) - 10;
}
