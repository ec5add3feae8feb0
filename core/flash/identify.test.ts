import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DIALECTS } from "../testing/dialects";
import { watch } from "../testing/person";
import { possibleFaults } from "./dialect/digits";
import { seeded } from "./dialect/encode";
import type { Evidence } from "./seen/evidence";
import { identify } from "./identify";

const ABLE = DIALECTS.filter((d) => d.advance === "self");

describe("identify", () => {
  it.each(ABLE.map((d) => [d.id, d] as const))(
    "knows %s by its rhythm, whatever it says and however fast",
    (_, own) => {
      fc.assert(
        fc.property(
          fc.uniqueArray(fc.constantFrom(...possibleFaults(own)), { minLength: 2, maxLength: 3 }),
          fc.double({ min: 0.9, max: 1.12, noNaN: true }),
          fc.nat(1e6),
          (stored, speed, seed) => {
            const seen = watch(own, { [own.phases.find((p) => p.kind === "stored")!.memory]: stored }, "edges", {
              seed,
              speed,
              jitter: 0.03,
              until: 90_000,
            });
            const { ranked, none, even } = identify(DIALECTS, seen);
            expect(ranked[0]).toMatchObject({ dialect: own.id });
            expect(ranked[0].probability).toBeGreaterThan(0.9);
            expect(ranked.map((r) => r.dialect).sort()).toEqual(ABLE.map((d) => d.id).sort());
            expect(ranked.reduce((s, r) => s + r.probability, none + even)).toBeCloseTo(1, 6);
          },
        ),
        { numRuns: 2 },
      );
    },
  );

  it("believes none where nothing was shown, nor where something only blinks in even time", () => {
    const blank = identify(DIALECTS, { mode: "edges", edges: [[0, 0]], until: 30_000 });
    expect(new Set(blank.ranked.map((r) => r.probability)).size).toBe(1);
    expect(blank.ranked.reduce((s, r) => s + r.probability, blank.none + blank.even)).toBeCloseTo(1, 6);
    // One that flashes evenly where nothing is stored may well have blinked so.
    const others = DIALECTS.filter((d) => d.empty?.kind !== "even");
    for (const period of [300, 420, 667, 900, 1400]) {
      const edges = Array.from({ length: 40 }, (_, i): [number, 0 | 1] => [500 + (i * period) / 2, i % 2 ? 0 : 1]);
      const { ranked, even, none } = identify(others, {
        mode: "edges",
        edges: [[0, 0], ...edges],
        until: 500 + 20 * period,
      });
      expect([period, ranked[0].probability < 0.5, even + none > 0.5]).toEqual([period, true, true]);
    }
  });

  it("says that it is none of these where somebody taps at random, in speech rhythm or with a failing relay", () => {
    const taps = (gap: (random: () => number, i: number) => number, seed: number): Evidence => {
      const random = seeded(seed);
      const all: number[] = [800];
      while (all[all.length - 1] < 25_000) all.push(all[all.length - 1] + gap(random, all.length));
      return { mode: "taps", taps: all, until: 26_000 };
    };
    const rhythms: Record<string, (random: () => number, i: number) => number> = {
      random: (random) => 250 + 2200 * random(),
      bursts: (random) => 300 - 900 * Math.log(random() + 1e-6),
      speech: (random, i) => (i % (3 + Math.floor(3 * random())) ? 280 + 160 * random() : 700 + 900 * random()),
      relay: (random) => 680 + (random() < 0.25 ? 400 + 900 * random() : 40 * random()),
    };
    for (const [i, [name, gap]] of Object.entries(rhythms).entries()) {
      const { ranked, none } = identify(DIALECTS, taps(gap, i + 1));
      expect([name, ranked[0].probability >= 0.9, none > 0.5]).toEqual([name, false, true]);
    }
  });
});
