import { describe, expect, it } from "vitest";
import { makeCase } from "../../cases/case";
import { randomDialect } from "../../cases/random-dialect";
import { holds } from "../../schema/rule";
import { dialectCheck } from "../dialect/dialect-check";
import { dialect } from "../../testing/dialects";
import { encode, seeded } from "../dialect/encode";
import type { Evidence } from "../seen/evidence";
import { kindsOf } from "./kinds";
import { learn } from "./learn";

type Edges = Extract<Evidence, { mode: "edges" }>["edges"];

/** Lamps at random that show at least two codes and their whole list. */
function* lamps(n: number, seed: number) {
  const random = seeded(seed);
  for (let i = 0, made = 0; made < n; i++) {
    const dialect = { ...randomDialect(random), id: `lamp-${i}` };
    if (dialect.advance === "button") continue;
    const made1 = makeCase(dialect, "edges", "clean", seed + i);
    if (made1.truth.shown.length < 2 || !made1.truth.complete) continue;
    made++;
    yield {
      dialect,
      truth: made1.truth,
      watch: { mode: "edges" as const, edges: made1.data as Edges, until: made1.until! },
    };
  }
}

describe("a lamp of which nothing is known", () => {
  const told = [...lamps(12, 43)].map((lamp) => ({ ...lamp, learned: learn([lamp.watch]) }));

  it("is read, and no code is sure that was not shown", () => {
    const read = told.map(({ dialect, truth, learned }) => {
      const [d] = learned.decoded;
      const exact =
        d?.state === "codes" &&
        truth.shown.every((c) => d.codes.includes(c)) &&
        d.codes.every((c) => truth.codes.includes(c));
      return {
        exact,
        sure: (d?.confidence ?? 0) >= 0.9,
        style: learned.dialect?.digits.style === dialect.digits.style,
      };
    });
    expect(read.filter((r) => r.sure && !r.exact)).toEqual([]);
    expect(read.filter((r) => r.exact).length).toBeGreaterThanOrEqual(6);
    expect(read.filter((r) => r.style).length).toBeGreaterThanOrEqual(10);
  }, 120_000);

  it("talks in a way that a pack may hold, and how sure that is lies between 0 and 1", () => {
    for (const { learned } of told) {
      if (learned.dialect) expect(holds(dialectCheck, learned.dialect)).toHaveProperty("value");
      for (const p of [...Object.values(learned.certainty), learned.none]) {
        expect(p).toBeGreaterThanOrEqual(0);
        expect(p).toBeLessThanOrEqual(1 + 1e-9);
      }
    }
  });

  const tens = {
    ...dialect("long-short"),
    marks: { short: 640, long: 1990 },
    gaps: { flash: 640, digit: 1150, repeat: 1990, code: 1990, pass: 3820 },
  };
  const watched = (codes: string[], until: number, seed = 1): Evidence => ({
    mode: "edges",
    edges: encode(tens, { stored: codes }, until, { jitter: 0.02, random: seeded(seed) }),
    until,
  });

  it("asks for what is missing: the rest of a round, a second code; and for neither once both were seen", () => {
    expect(learn([watched(["34", "52"], 45_000)]).settles).toContain("a-round");
    expect(learn([watched(["34"], 90_000)]).settles).toContain("two-codes");
    const whole = learn([watched(["7", "34", "52"], 120_000)]);
    expect(whole.settles).not.toContain("a-round");
    expect(whole.settles).not.toContain("two-codes");
    expect(whole.dialect).toMatchObject({
      digits: { style: "long-short" },
      gaps: { digit: expect.closeTo(1150, -2) as number },
    });
  });

  it("is learned from several watches together: each says its own codes, and what one leaves open the other tells", () => {
    const both = [watched(["34"], 60_000, 2), watched(["7", "52"], 90_000, 3)];
    const learned = learn(both);
    expect(learned.decoded.map((d) => d.codes)).toEqual([["34"], ["7", "52"]]);
    expect(learn([both[0]]).settles).toContain("two-codes");
    expect(learned.settles).not.toContain("two-codes");
  });

  it("is read through slips: flashes that were missed and taps that came twice are no rests of their own", () => {
    const digits = {
      ...dialect("lead-in"),
      gaps: { flash: 520, digit: 1570, repeat: 2680, code: 4800, pass: 4800 },
      phases: [{ kind: "stored" as const, times: 2, memory: "stored" as const }],
      loopFrom: 0,
    };
    const codes = ["47", "83", "65"];
    const whole = encode(digits, { stored: codes }, 160_000, { jitter: 0.02, random: seeded(7) });
    const on = whole.filter(([, lit]) => lit === 1).map(([t]) => t);
    // Every fiftieth is not seen, every fortieth tapped twice.
    const taps = on.flatMap((t, i) => (i % 50 === 14 ? [] : i % 40 === 9 ? [t + 250, t + 400] : [t + 250]));
    const edges = whole.filter(([t]) => !on.some((o, i) => i % 50 === 14 && t >= o && t < o + 700));
    for (const watch of [
      { mode: "taps" as const, taps, until: 160_000 },
      { mode: "edges" as const, edges, until: 160_000 },
    ]) {
      const [read] = learn([watch]).decoded;
      expect([watch.mode, [...read.codes].sort()]).toEqual([watch.mode, [...codes].sort()]);
    }
  });

  it("has a list that comes twice told from the code that leads it, though it is shown oftener the first time", () => {
    const led = {
      ...dialect("lead-in"),
      gaps: { flash: 450, digit: 1400, repeat: 3900, code: 3900, pass: 6000 },
      phases: [
        { kind: "code" as const, code: "55", times: 2, means: "mode" as const },
        { kind: "stored" as const, times: 2, memory: "stored" as const },
        { kind: "stored" as const, times: 1, memory: "stored" as const },
      ],
      loopFrom: null,
      order: "stored" as const,
    };
    for (const codes of [
      ["24", "31", "67"],
      ["43", "18"],
    ]) {
      const edges = encode(led, { stored: codes }, 200_000, { from: -2000, jitter: 0.02, random: seeded(11) });
      const { decoded, dialect: own } = learn([{ mode: "edges", edges, until: 200_000 }]);
      expect(decoded[0].codes).toEqual(codes);
      expect(own).toMatchObject({ phases: led.phases, loopFrom: null });
    }
  });

  it("that sorts its codes is read in their order, wherever in the list the watch begins", () => {
    const risen = { ...tens, gaps: { ...tens.gaps, pass: 1990 }, order: "ascending" as const };
    const random = seeded(12);
    for (const codes of [
      ["12", "34", "47", "81"],
      ["5", "23", "36", "62", "94"],
      ["17", "28", "93"],
    ]) {
      const from = 8000 + 20_000 * random();
      const edges = encode(risen, { stored: codes }, from + 120_000, { from, jitter: 0.02, random });
      const { decoded, dialect: own } = learn([{ mode: "edges", edges, until: 120_000 }]);
      expect([own?.order, ...decoded[0].codes]).toEqual(["ascending", ...codes]);
    }
  });

  it("has its two lists told from the runs between them", () => {
    const group = (flashes: number) =>
      ({ kind: "group", flashes, means: "separator", beforeMs: 9800, afterMs: 9400 }) as const;
    const two = {
      ...dialect("lead-in"),
      gaps: { flash: 480, digit: 1500, repeat: 3000, code: 5200, pass: 7000 },
      phases: [
        group(4),
        { kind: "stored" as const, times: 1, memory: "live" as const },
        group(1),
        { kind: "stored" as const, times: 1, memory: "stored" as const },
      ],
      loopFrom: 0,
    };
    const edges = encode(two, { live: ["35", "62"], stored: ["24", "71"] }, 300_000, {
      jitter: 0.02,
      random: seeded(5),
    });
    const { dialect: own, decoded } = learn([{ mode: "edges", edges, until: 300_000 }]);
    expect(own?.phases.filter((p) => p.kind === "group").map((p) => p.flashes)).toEqual(expect.arrayContaining([1, 4]));
    expect([...decoded[0].codes].sort()).toEqual(["24", "35", "62", "71"]);
  });

  it("holds what is known of it from elsewhere", () => {
    const { dialect: own } = learn([watched(["34", "52"], 90_000)], { style: "total" });
    expect(own === null || own.digits.style === "total").toBe(true);
  });
});

describe("what is no list", () => {
  const row = (next: (random: () => number) => number, seed: number): Evidence => {
    const random = seeded(seed);
    const taps: number[] = [];
    for (let t = 1000; taps.length < 40; t += next(random)) taps.push(t);
    return { mode: "taps", taps, until: taps[39] + 3000 };
  };
  it.each([
    ["random taps", (random: () => number) => 250 - 900 * Math.log(1 - random())],
    ["a metronome", () => 500],
    ["speech rhythm", (random: () => number) => 150 + 350 * random() + (random() < 0.2 ? 900 * random() : 0)],
    ["a failing relay", (random: () => number) => (random() < 0.5 ? 330 : 700) * (0.8 + 0.4 * random())],
  ])(
    "tells no sure code: %s",
    (_, next) => {
      for (let seed = 1; seed <= 2; seed++) {
        const learned = learn([row(next, seed)]);
        const sure = learned.decoded.flatMap((d) => (d.confidence >= 0.9 ? d.codes : []));
        expect([seed, sure]).toEqual([seed, []]);
      }
    },
    60_000,
  );

  it("never throws, whatever comes", () => {
    for (const watch of [
      { mode: "edges" as const, edges: [], until: 0 },
      {
        mode: "edges" as const,
        edges: [
          [0, 1],
          [NaN, 0],
          [5, 1],
          [5, 0],
        ] as Edges,
        until: Infinity,
      },
      {
        mode: "holds" as const,
        holds: [
          [3, 1],
          [10, 400],
          [10, 400],
          [500, 510],
        ] as [number, number][],
        until: 600,
      },
      { mode: "taps" as const, taps: [1, 1, 1, [2, "l"], [900, "s"]] as (number | [number, "s" | "l"])[], until: 1000 },
      { mode: "levels" as const, levels: { t: [], y: [] }, until: 10 },
    ])
      expect(learn([watch]).none).toBeGreaterThan(0);
    expect(learn([]).dialect).toBeNull();
  });
});

describe("times", () => {
  it("are parted where they lie apart, and nowhere else", () => {
    const random = seeded(3);
    const near = (ms: number, n: number) => Array.from({ length: n }, () => ms * (0.96 + 0.08 * random()));
    for (const kinds of [[400], [400, 1200], [300, 800, 2400], [200, 500, 1200, 3000]]) {
      const [best] = kindsOf(
        kinds.flatMap((ms) => near(ms, 12)),
        { ms: 20, share: 0.04 },
        6,
      );
      expect(best.ms).toHaveLength(kinds.length);
      for (const [i, ms] of kinds.entries()) expect(Math.abs(best.ms[i] / ms - 1)).toBeLessThan(0.05);
    }
  });
});
