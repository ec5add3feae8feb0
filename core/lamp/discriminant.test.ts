import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { normal, seeded } from "../flash/dialect/encode";
import { brightnessOf, DARK, discriminantOf, LIT, strangeness } from "./discriminant";
import type { Features } from "./measure";

/** Pictures of a lamp whose every feature wanders with the daylight, far more than the lamp moves any of them. */
function pictures(seed: number, daylight: number, lamp: readonly number[], n = 400) {
  const random = seeded(seed);
  const features: Features[] = [];
  const lit: number[] = [];
  for (let k = 0; k < n; k++) {
    const on = random() < 0.3 ? 1 : 0;
    const light = daylight * normal(random);
    features.push(
      Float64Array.from(
        [100, 120, 130, 100, 120, 130],
        (x, i) => x + light * (i % 3 === 0 ? 1 : 0.1) + (i < 3 ? on * lamp[i] : 0) + 0.7 * normal(random),
      ),
    );
    lit.push(on);
  }
  return { features, lit };
}

describe("discriminantOf", () => {
  it("tells lit from dark under any daylight, whichever of brightness and colour the lamp changes", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.double({ min: 0, max: 40, noNaN: true }),
        fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: -14, max: 14 }))).filter((l) => Math.hypot(...l) > 8),
        (seed, daylight, lamp) => {
          const { features, lit } = pictures(seed, daylight, lamp);
          const d = discriminantOf(features, lit)!;
          const wrong = features.filter((f, k) => (brightnessOf(d, f) > (DARK + LIT) / 2 ? 1 : 0) !== lit[k]).length;
          expect(wrong / features.length).toBeLessThan(0.02);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("puts the means of both states where the scale has them, and knows what is neither", () => {
    const { features, lit } = pictures(3, 5, [12, -6, 4]);
    const d = discriminantOf(features, lit)!;
    expect([brightnessOf(d, d.dark), brightnessOf(d, d.lit)].map(Math.round)).toEqual([DARK, LIT]);
    const usual = features.map((f) => strangeness(d, f)).sort((a, b) => a - b);
    const hand = Float64Array.from(d.dark, (x, i) => x + (i < 3 ? 30 : -25));
    expect(strangeness(d, hand)).toBeGreaterThan(10 * usual[Math.floor(0.99 * usual.length)]);
  });

  it("claims nothing where a state is missing", () => {
    const { features } = pictures(4, 5, [12, 0, 0]);
    expect(
      discriminantOf(
        features,
        features.map(() => 0),
      ),
    ).toBeNull();
    expect(discriminantOf([], [])).toBeNull();
  });
});
