import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DIALECTS } from "../testing/dialects";
import { decode } from "./decode";
import type { Evidence } from "./evidence";
import { seeded } from "./encode";

/** Half a minute of something that blinks in even time, each onset off by up to `jitter` of the period. */
function blinking(mode: "edges" | "taps", period: number, duty: number, jitter: number, seed: number): Evidence {
  const random = seeded(seed);
  const until = 30_000;
  const onsets = Array.from({ length: Math.floor((until - 800) / period) }, (_, i) => 600 + period * (i + jitter * (2 * random() - 1))); // prettier-ignore
  if (mode === "taps") return { mode, taps: onsets, until };
  return { mode, edges: [[0, 0], ...onsets.flatMap((t): [number, 0 | 1][] => [[t, 1], [t + period * duty, 0]])], until }; // prettier-ignore
}

describe("what only blinks in even time", () => {
  it.each(DIALECTS.filter((d) => d.advance === "self").map((d) => [d.id, d] as const))(
    "is never heard as codes of %s",
    (_, dialect) => {
      fc.assert(
        fc.property(
          fc.constantFrom("edges" as const, "taps" as const),
          // Quicker than a dialect whose codes are single flashes.
          fc.double({ min: 320, max: 1600, noNaN: true }),
          fc.double({ min: 0.35, max: 0.65, noNaN: true }),
          fc.constantFrom(0, 0.02, 0.05),
          fc.nat(1e6),
          (mode, period, duty, jitter, seed) => {
            const got = decode(dialect, blinking(mode, period, duty, jitter, seed));
            const sure = got.confidence >= 0.9 && got.codes.length > 0;
            expect(sure ? got.codes : []).toEqual([]);
            if (got.misfit) expect(got.misfit).toBe("even");
          },
        ),
        { numRuns: 12 },
      );
    },
    60_000,
  );
});
