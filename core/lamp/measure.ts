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

export function measure(cells: Planes, site: Site): Features {
  const out = new Float64Array(FEATURES);
  means(cells, site.patch, out, 0);
  means(cells, site.around, out, 3);
  return out;
}

type Planes = Cells | { y: Uint8Array; u: Uint8Array; v: Uint8Array };

/** Luma and chroma of some cells, from place `at` on. */
function means({ y, u, v }: Planes, cells: readonly number[], out: Features, at: number): void {
  let [sumY, sumU, sumV] = [0, 0, 0];
  for (const c of cells) {
    sumY += y[c];
    sumU += u[c];
    sumV += v[c];
  }
  const n = Math.max(1, cells.length);
  out[at] = LOG_UNIT * Math.log((sumY / n + 10) / 10);
  out[at + 1] = sumU / n;
  out[at + 2] = sumV / n;
}

/** Brightness around a patch, 0 to 255. */
export function surroundings(f: Features): number {
  return 10 * Math.exp(f[3] / LOG_UNIT) - 10;
}
