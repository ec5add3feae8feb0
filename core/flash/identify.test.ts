import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DIALECTS } from "../testing/dialects";
import { watch } from "../testing/person";
import { possibleFaults } from "./digits";
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
            const seen = watch(own, { [own.phases.find((p) => p.kind === "stored")!.memory]: stored }, "edges", { seed, speed, jitter: 0.03, until: 90_000 }); // prettier-ignore
            const ranked = identify(DIALECTS, seen);
            expect(ranked[0]).toMatchObject({ dialect: own.id });
            expect(ranked[0].probability).toBeGreaterThan(0.9);
            expect(ranked.map((r) => r.dialect).sort()).toEqual(ABLE.map((d) => d.id).sort());
            expect(ranked.reduce((s, r) => s + r.probability, 0)).toBeCloseTo(1, 6);
          },
        ),
        { numRuns: 2 },
      );
    },
  );

  it("believes none where nothing was shown, nor where something only blinks in even time", () => {
    const share = 1 / ABLE.length;
    for (const { probability } of identify(DIALECTS, { mode: "edges", edges: [[0, 0]], until: 30_000 }))
      expect(probability).toBeCloseTo(share, 6);
    // One that flashes evenly where nothing is stored may well have blinked so.
    const others = DIALECTS.filter((d) => d.empty?.kind !== "even");
    for (const period of [300, 420, 667, 900, 1400]) {
      const edges = Array.from({ length: 40 }, (_, i): [number, 0 | 1] => [500 + (i * period) / 2, i % 2 ? 0 : 1]);
      const [first] = identify(others, { mode: "edges", edges: [[0, 0], ...edges], until: 500 + 20 * period });
      expect([period, first.probability < 0.5]).toEqual([period, true]);
    }
  });
});
