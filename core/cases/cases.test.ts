import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decode } from "../flash/decode";
import { memoriesOf } from "../flash/dialect/dialect";
import { dialectCheck } from "../flash/dialect/dialect-check";
import { possibleFaults } from "../flash/dialect/digits";
import { seeded } from "../flash/dialect/encode";
import { grammarOf } from "../flash/walk/grammar";
import { ordered, showOf } from "../flash/dialect/show";
import { dialect, DIALECTS } from "../testing/dialects";
import { makeCase } from "./case";
import { play } from "./lamp";
import { randomDialect } from "./random-dialect";
import { truthOf } from "./truth";

describe("made-up cases", () => {
  it("are the same for the same seed, and others for another", () => {
    const d = dialect("lead-in");
    expect(makeCase(d, "taps", "hard", 7)).toEqual(makeCase(d, "taps", "hard", 7));
    expect(makeCase(d, "taps", "hard", 8)).not.toEqual(makeCase(d, "taps", "hard", 7));
  });

  it("count a code as shown only with rest enough on both sides", () => {
    const d = dialect("lead-in");
    const show = showOf(d, { stored: ["26"] });
    const at = show.lead.ms;
    const first = show.loop!.flashes.find((f) => f.unit.kind === "code")!;
    const last = show.loop!.flashes.filter((f) => f.unit.kind === "code" && f.unit.repeat === 0).at(-1)!;
    const enough = (d.gaps.digit + d.gaps.code) / 2;
    const seen = (from: number, to: number) =>
      truthOf(d, { stored: ["26"] }, play(d, { stored: ["26"] }, { seed: 1, from, until: to - from }), 1, null).shown;
    const [begin, end] = [at + first.at, at + last.at + last.ms];
    expect(seen(begin - enough - 5, end + enough + 5)).toEqual(["26"]);
    expect(seen(begin - enough + 5, end + enough + 5)).toEqual([]);
    expect(seen(begin - enough - 5, end + enough - 5)).toEqual([]);
  });

  it.each(["clean", "normal", "hard"] as const)("are read right where the decoder is sure, %s", (profile) => {
    let sure = 0;
    for (const d of DIALECTS.filter((x) => x.advance === "self"))
      for (const mode of ["edges", "taps", "holds"] as const) {
        const c = makeCase(d, mode, profile, 4);
        const got = decode(d, { mode, [mode]: c.data, until: c.until } as never);
        if (got.confidence < 0.9) continue;
        sure++;
        for (const code of c.truth.shown) expect([c.id, got.codes]).toEqual([c.id, expect.arrayContaining([code])]);
        for (const code of got.codes) expect([c.id, c.truth.codes]).toEqual([c.id, expect.arrayContaining([code])]);
        if (got.complete) expect([c.id, c.truth.complete]).toEqual([c.id, true]);
      }
    expect(sure).toBeGreaterThan(14);
  });
});

describe("a dialect at random", () => {
  it("is one that the format allows, and its grammar leads somewhere from every flash but the last", () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const d = randomDialect(seeded(seed));
        expect(dialectCheck.joi().validate(d, { convert: false }).error).toBeUndefined();
        const g = grammarOf(d);
        // An empty memory may show nothing at all; whatever else the show is, it begins somewhere.
        const begins = g.starts.reduce((s, x) => s + x.p, 0);
        expect(begins).toBeGreaterThan(0.7);
        expect(begins).toBeLessThan(1.001);
        for (const ways of g.next) expect(ways.reduce((s, w) => s + w.p, 0)).toBeLessThan(1.001);
      }),
      { numRuns: 200 },
    );
  });

  it("gives any list back from a clean watch", () => {
    fc.assert(
      fc.property(fc.integer(), fc.double({ min: 0.82, max: 1.22, noNaN: true }), (seed, speed) => {
        const random = seeded(seed);
        const d = randomDialect(random);
        const possible = possibleFaults(d);
        const some = [...new Set([0, 1, 2].map(() => possible[Math.floor(random() * possible.length)]))];
        const [memory, second] = memoriesOf(d);
        const faults = { [memory]: ordered(d, some), ...(second && { [second]: ordered(d, some.slice(0, 1)) }) };
        if (d.advance === "button") {
          const c = makeCase(d, "edges", "clean", seed);
          const got = decode(d, { mode: "button", presses: c.data as never });
          expect([d, got.state, new Set(got.codes)]).toEqual([d, c.truth.state, new Set(c.truth.codes)]);
          return;
        }
        const show = showOf(d, faults);
        const until = (show.lead.ms + 2.3 * (show.loop?.ms ?? 0)) * speed + 6000;
        const { edges } = play(d, faults, { seed, from: -800, until, speed, jitter: 0.03 });
        const got = decode(d, { mode: "edges", edges, until });
        expect([d, got.state, new Set(got.codes)]).toEqual([d, "codes", new Set(some)]);
        if (!second) expect([d, got.codes]).toEqual([d, ordered(d, some)]);
      }),
      { numRuns: 60 },
    );
  });
});
