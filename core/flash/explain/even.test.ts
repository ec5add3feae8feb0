import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DIALECTS } from "../../testing/dialects";
import { decode } from "../decode";
import { normal, seeded } from "../dialect/encode";
import type { Evidence, Filmed } from "../seen/evidence";

/** Half a minute of something that blinks in even time, each onset off by up to `jitter` of the period. */
function blinking(mode: "edges" | "taps", period: number, duty: number, jitter: number, seed: number): Evidence {
  const random = seeded(seed);
  const until = 30_000;
  const onsets = Array.from(
    { length: Math.floor((until - 800) / period) },
    (_, i) => 600 + period * (i + jitter * (2 * random() - 1)),
  );
  if (mode === "taps") return { mode, taps: onsets, until };
  return {
    mode,
    edges: [
      [0, 0],
      ...onsets.flatMap((t): [number, 0 | 1][] => [
        [t, 1],
        [t + period * duty, 0],
      ]),
    ],
    until,
  };
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
        { numRuns: 8 },
      );
    },
    60_000,
  );

  /** Its brightness in half a minute of film, of a bulb that warms and cools, with noise. */
  function filmed(period: number, fps: number, seed: number): Filmed {
    const random = seeded(seed);
    const until = 30_000;
    const [t, y]: [number[], number[]] = [[], []];
    let bulb = 0;
    for (let ms = 0; ms < until; ms += 1000 / fps) {
      const on = ms > 600 && (ms - 600) % period < period / 2 ? 1 : 0;
      bulb += (on - bulb) * (1 - Math.exp(-1000 / fps / (on ? 40 : 65)));
      t.push(ms);
      y.push(70 + 80 * bulb + 3 * normal(random));
    }
    return { mode: "levels", levels: { t, y }, until };
  }

  it.each(DIALECTS.filter((d) => d.advance === "self").map((d) => [d.id, d] as const))(
    "is told as that in a film, whatever is thought to speak, %s",
    (_, dialect) => {
      for (const [i, period] of [700, 900, 1100, 1400].entries()) {
        const fps = i % 2 ? 15 : 30;
        const got = decode(dialect, filmed(period, fps, i + 1));
        // Where it could be the dialect's own way to say that nothing is stored, that is said instead.
        const empty = dialect.empty?.kind === "even" && got.state === "none";
        expect([period, fps, got.misfit ?? (empty ? "even" : got.codes)]).toEqual([period, fps, "even"]);
      }
    },
    60_000,
  );
});
