import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DIALECTS } from "../../testing/dialects";
import { watch } from "../../testing/person";
import { align } from "./align";
import { score } from "./score";
import { possibleFaults } from "../dialect/digits";
import type { Dialect, Faults } from "../dialect/dialect";
import { trackOf, type Track } from "../seen/evidence";
import { flatten } from "./flat";
import { OBSERVERS } from "../seen/observer";
import { showOf } from "../dialect/show";

const ABLE = DIALECTS.filter((d) => d.advance === "self");

interface Seen {
  own: Dialect;
  faults: Faults;
  track: Track;
}

/** A unit's list as somebody taps it, flashes missed and doubled. */
const seen: fc.Arbitrary<Seen> = fc.constantFrom(...ABLE).chain((own) => {
  const memory = own.phases.find((p) => p.kind === "stored")!.memory;
  return fc
    .record({
      list: fc.uniqueArray(fc.constantFrom(...possibleFaults(own)), { minLength: 1, maxLength: 3 }),
      seed: fc.nat(1e6),
      miss: fc.constantFrom(0, 0.03),
    })
    .map(({ list, seed, miss }) => {
      const faults = { [memory]: list };
      const evidence = watch(own, faults, "taps", { seed, miss, double: miss, jitter: 0.03, until: 60_000 });
      return { own, faults, track: trackOf(evidence, own) };
    });
});

const o = OBSERVERS.taps[1];
const flatOf = (own: Dialect, faults: Faults) => flatten(showOf(own, faults), "taps");

describe("score and align", () => {
  it("the sum over all ways to explain the marks is never less than the best of them", () => {
    fc.assert(
      fc.property(seen, ({ own, faults, track }) => {
        const flat = flatOf(own, faults);
        // A sum drops what is far behind; one mark more or less on the clock is a matter of a nat.
        expect(score(track, flat, 1, o).logLik).toBeGreaterThan(
          align(track, flat, 1, o).logLik - 1 - track.until * o.extra,
        );
      }),
      { numRuns: 150 },
    );
  });

  it("marks that the best way explains go on in the show, none twice and none backwards", () => {
    fc.assert(
      fc.property(seen, ({ own, faults, track }) => {
        const used = [...align(track, flatOf(own, faults), 1, o).flash].filter((f) => f >= 0);
        expect(used).toEqual([...new Set(used)].sort((a, b) => a - b));
        expect(used.length).toBeGreaterThan(0.85 * track.onset.length);
      }),
      { numRuns: 150 },
    );
  });

  it("what was played explains more than the same at another tempo, and than noise", () => {
    fc.assert(
      fc.property(seen, ({ own, faults, track }) => {
        fc.pre(track.onset.length > 8);
        const flat = flatOf(own, faults);
        const at = (tempo: number) => score(track, flat, tempo, o).logLik;
        expect(at(1)).toBeGreaterThan(Math.max(at(0.85), at(1.18)));
      }),
      { numRuns: 100 },
    );
  });

  it("a hypothesis that is given up was behind by what was asked, never one that leads", () => {
    fc.assert(
      fc.property(seen, fc.constantFrom(0.9, 1, 1.1), ({ own, faults, track }, tempo) => {
        const flat = flatOf(own, faults);
        const best = score(track, flat, 1, o);
        const alone = score(track, flat, tempo, o).logLik;
        const beside = score(track, flat, tempo, o, best).logLik;
        if (beside > -Infinity) expect(beside).toBeCloseTo(alone, 6);
        else expect(alone).toBeLessThan(best.logLik);
        expect(score(track, flat, 1, o, best).logLik).toBeCloseTo(best.logLik, 6);
      }),
      { numRuns: 100 },
    );
  });
});
