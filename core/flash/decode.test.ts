import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dialect, DIALECTS } from "../testing/dialects";
import { watch } from "../testing/person";
import twoMemoriesCut from "../testing/two-memories-cut.json";
import { calledOf } from "./seen/called";
import { decode } from "./decode";
import { memoriesOf, type Dialect, type Faults } from "./dialect/dialect";
import { possibleFaults } from "./dialect/digits";
import type { Evidence, Tap } from "./seen/evidence";
import { ordered } from "./dialect/show";

const lists = (d: Dialect, max = 4) =>
  fc.uniqueArray(fc.constantFrom(...possibleFaults(d)), { minLength: 1, maxLength: max });

/** Long enough for two rounds of any list of up to four codes. */
const LONG = 240_000;

describe("decode(encode(x)) = x", () => {
  it.each(["lead-in", "long-short", "even-when-clear", "cycle-lamp"])(
    "edges of %s, at any tempo, begun anywhere",
    (id) => {
      const d = dialect(id);
      fc.assert(
        fc.property(
          lists(d),
          fc.double({ min: 0.82, max: 1.22, noNaN: true }),
          fc.integer({ min: 0, max: 90_000 }),
          fc.integer(),
          (list, speed, from, seed) => {
            const got = decode(
              d,
              watch(d, { stored: list }, "edges", { seed, speed, jitter: 0.03, from, until: LONG }),
            );
            expect(got).toMatchObject({ state: "codes", codes: ordered(d, list), complete: true });
            expect(got.confidence).toBeGreaterThan(0.95);
            for (const p of [got.confidence, got.completeness, ...Object.values(got.codeConfidence)])
              expect(p).toBeLessThanOrEqual(1);
            expect(Math.abs(got.tempo / speed - 1)).toBeLessThan(0.02);
          },
        ),
        { numRuns: 25 },
      );
    },
  );

  it.each(["lead-in", "long-short"])("taps and holds of a careful person, %s", (id) => {
    const d = dialect(id);
    fc.assert(
      fc.property(lists(d, 3), fc.constantFrom("taps" as const, "holds" as const), fc.integer(), (list, mode, seed) => {
        const got = decode(
          d,
          watch(d, { stored: list }, mode, { seed, speed: 0.95, jitter: 0.03, until: LONG, sd: 40 }),
        );
        expect(got).toMatchObject({ state: "codes", codes: ordered(d, list) });
      }),
      { numRuns: 25 },
    );
  });

  it("of two memories that share codes, cut so that each showed others of them: one order, and no breakdown", () => {
    const {
      dialect: d,
      evidence,
      options,
    } = twoMemoriesCut as unknown as { dialect: Dialect; evidence: Evidence; options: object };
    const got = decode(d, evidence, options);
    const { live = [], stored = [] } = got.memories;
    expect([...got.codes].sort()).toEqual([...new Set([...live, ...stored])].sort());
  });

  it("a missed and a doubled flash in one of two rounds change nothing, and are shown as what they are", () => {
    const d = dialect("lead-in");
    const evidence = watch(d, { stored: ["26", "43"] }, "taps", { seed: 5, jitter: 0.03, until: 170_000 });
    if (evidence.mode !== "taps") throw new Error();
    const clean = decode(d, evidence);
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 60 }), fc.boolean(), (i, drop) => {
        const taps = [...evidence.taps] as number[];
        const changed = drop ? taps.toSpliced(i, 1) : taps.toSpliced(i, 0, taps[i] - 150);
        const got = decode(d, { ...evidence, taps: changed });
        expect(got.codes).toEqual(clean.codes);
        if (drop) expect(got.missed).toHaveLength(1);
        else expect(got.assignment.filter((a) => a === null)).toHaveLength(1);
      }),
      { numRuns: 30 },
    );
  });

  it("is surer with every round on clean input", () => {
    const d = dialect("long-short");
    let last = 0;
    for (const until of [20_000, 45_000, 90_000, 180_000]) {
      const { confidence } = decode(d, watch(d, { stored: ["7", "43"] }, "holds", { seed: 3, jitter: 0.03, until }));
      expect(confidence).toBeGreaterThanOrEqual(last - 1e-3);
      last = confidence;
    }
    expect(last).toBeGreaterThan(0.99);
  });
});

describe("what is not a list of codes", () => {
  const empty = (id: string, mode: "edges" | "taps") =>
    decode(dialect(id), watch(dialect(id), {}, mode, { seed: 1, jitter: 0.03, until: 60_000 }));

  it("nothing stored needs the show to say so", () => {
    expect(empty("lead-in", "taps")).toMatchObject({ state: "none", codes: [], complete: true });
    expect(empty("even-when-clear", "edges")).toMatchObject({ state: "none" });
    expect(empty("long-short", "edges")).toMatchObject({ state: "dark" });
    expect(empty("cycle-lamp", "edges")).toMatchObject({ state: "steady" });
  });

  it("a list that was cut is not called complete, and a code cut in two is not told", () => {
    const d = dialect("lead-in");
    // The lead-in and one whole showing of 26; the next is cut.
    const got = decode(d, watch(d, { stored: ["26", "43"] }, "edges", { seed: 1, until: 34_000 }));
    expect(got).toMatchObject({ state: "codes", codes: ["26"], complete: false });
    expect(got.completeness).toBeLessThan(0.5);
  });

  it("another rhythm is said to be no such dialect, and never a certain code", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 120_000 }), { minLength: 12, maxLength: 60 }), (times) => {
        const got = decode(dialect("lead-in"), { mode: "taps", taps: times, until: 120_000 });
        expect(got.codes.length === 0 || got.confidence < 0.99).toBe(true);
      }),
      { numRuns: 30 },
    );
  });
});

describe("a watch that was broken off", () => {
  it("finds its place again after a pause", () => {
    const d = dialect("lead-in");
    const whole = watch(d, { stored: ["26", "43"] }, "taps", { seed: 8, jitter: 0.03, until: 200_000 });
    if (whole.mode !== "taps") throw new Error();
    const [from, to] = [40_000, 71_300];
    const taps = (whole.taps as number[]).filter((t) => t < from || t > to);
    const got = decode(d, { mode: "taps", taps, until: 200_000, pauses: [[from, to]] });
    expect(got).toMatchObject({ state: "codes", codes: ["26", "43"] });
    expect(got.confidence).toBeGreaterThan(0.99);
    expect(got.assignment.every((a) => a !== null)).toBe(true);
  });
});

describe("how often a code was seen", () => {
  it("counts no showing of which nothing was marked: in a pause, or while nobody tapped", () => {
    const list = ["lead-in", "long-short", "even-when-clear", "end-mark", "cycle-lamp"];
    fc.assert(
      fc.property(
        fc.constantFrom(...list),
        fc.integer(),
        fc.integer({ min: 15_000, max: 50_000 }),
        fc.boolean(),
        (id, seed, from, told) => {
          const d = dialect(id);
          const [a, b] = possibleFaults(d);
          const whole = watch(d, { stored: [a, b] }, "taps", { seed, jitter: 0.02, until: 120_000 });
          if (whole.mode !== "taps") return;
          const [gone, back] = [from, from + 40_000];
          const at = (tap: Tap) => (typeof tap === "number" ? tap : tap[0]);
          const taps = whole.taps.filter((tap) => at(tap) < gone || at(tap) > back);
          const read = decode(d, { ...whole, taps, ...(told && { pauses: [[gone, back]] }) });
          for (const [code, times] of Object.entries(read.timesShown)) {
            const marked = read.assignment.flatMap((x) => (x?.unit.code === code ? [x.showing] : []));
            expect(times).toBeLessThanOrEqual(new Set(marked).size);
            expect(read.roundsShown[code]).toBeLessThanOrEqual(times);
          }
        },
      ),
      { numRuns: 40, seed: 9 },
    );
  });

  it("counts what was called out, not what was left out", () => {
    const d = dialect("lead-in");
    const read = (text: string) =>
      decode(d, { mode: "counts", counts: calledOf(text, d).counts }, { table: ["26", "43"] });
    expect(read("13 13 13 26 26 26 43 43 43").timesShown).toEqual({ 26: 3, 43: 3 });
    expect(read("13 13 26 26 43 43").timesShown).toEqual({ 26: 2, 43: 2 });
  });
});

describe("decode never throws", () => {
  const number = fc.oneof(
    fc.double(),
    fc.integer({ min: -1000, max: 50_000 }),
    fc.constant(NaN),
    fc.constant(Infinity),
    fc.constant(5000),
  );
  const evidence: fc.Arbitrary<Evidence> = fc.oneof(
    fc.record({ mode: fc.constant("taps" as const), taps: fc.array(number, { maxLength: 40 }), until: number }),
    fc.record({
      mode: fc.constant("holds" as const),
      holds: fc.array(fc.tuple(number, number), { maxLength: 30 }),
      until: number,
    }),
    fc.record({
      mode: fc.constant("edges" as const),
      edges: fc.array(fc.tuple(number, fc.constantFrom(0 as const, 1 as const)), { maxLength: 40 }),
      until: number,
    }),
  );
  it.each(DIALECTS.filter((d) => d.advance === "self").map((d) => [d.id, d] as const))(
    "on any evidence, %s",
    (_, d) => {
      fc.assert(
        fc.property(evidence, (e) => {
          const got = decode(d, e);
          expect(got.confidence).toBeGreaterThanOrEqual(0);
          for (const p of [got.confidence, got.completeness, ...Object.values(got.codeConfidence)])
            expect(p).toBeLessThanOrEqual(1);
        }),
        { numRuns: 40 },
      );
    },
  );
});

describe("the table", () => {
  it("makes a known code likelier and forbids none", () => {
    const d = dialect("lead-in");
    const faults: Faults = { [memoriesOf(d)[0]]: ["77"] };
    const evidence = watch(d, faults, "taps", { seed: 2, jitter: 0.03, until: 160_000 });
    expect(decode(d, evidence, { table: ["26", "43"] })).toMatchObject({ codes: ["77"] });
    expect(decode(d, evidence, { table: ["77", "43"] }).confidence).toBeGreaterThan(0.99);
  });
});
