import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dialect } from "../../testing/dialects";
import { firstOf, trackOf, type Evidence } from "./evidence";

const spoken = (rest: "dark" | "lit") => ({ ...dialect("lead-in"), rest });

/** Stretches away from rest, each at least `least` long with at least `apart` between them. */
const stretches = (least: number, apart: number) =>
  fc
    .array(fc.tuple(fc.integer({ min: apart, max: 3000 }), fc.integer({ min: least, max: 1500 })), {
      minLength: 1,
      maxLength: 30,
    })
    .map((steps) => {
      let t = 0;
      return steps.map(([rest, ms]): [number, number] => {
        const from = (t += rest);
        return [from, (t += ms)];
      });
    });

const edgesOf = (spans: readonly [number, number][], rest: 0 | 1 = 0): Evidence => ({
  mode: "edges",
  edges: [
    [0, rest],
    ...spans.flatMap(([a, b]): [number, 0 | 1][] => [
      [a, rest ? 0 : 1],
      [b, rest],
    ]),
  ],
  until: spans.at(-1)![1] + 1000,
});
const spansOf = (e: Evidence, rest: "dark" | "lit" = "dark") => {
  const { onset, length } = trackOf(e, spoken(rest));
  return Array.from(onset, (t, i) => [t, t + length[i]]);
};

describe("trackOf", () => {
  it("gives every stretch away from rest as a mark, in whatever order the changes came, of either rest", () => {
    fc.assert(
      fc.property(
        stretches(150, 150),
        fc.constantFrom(0 as const, 1 as const),
        fc.array(fc.nat(), { minLength: 64, maxLength: 64 }),
        (spans, rest, order) => {
          const evidence = edgesOf(spans, rest);
          if (evidence.mode !== "edges") throw new Error();
          const mixed = evidence.edges.map((e, i) => ({ e, k: order[i] })).sort((a, b) => a.k - b.k);
          const bad: [number, 0 | 1][] = [
            [NaN, 1],
            [Infinity, 0],
          ];
          expect(spansOf({ ...evidence, edges: [...bad, ...mixed.map((x) => x.e)] }, rest ? "lit" : "dark")).toEqual(
            spans,
          );
        },
      ),
    );
  });

  it("takes a glitch for none: neither a short flicker at rest nor a short break in a flash changes what is seen", () => {
    fc.assert(
      fc.property(
        stretches(500, 700),
        fc.nat(),
        fc.integer({ min: 5, max: 130 }),
        fc.boolean(),
        (spans, pick, ms, inside) => {
          const [a, b] = spans[pick % spans.length];
          const at = inside ? (a + b) / 2 : a - 350;
          const evidence = edgesOf(spans);
          if (evidence.mode !== "edges") throw new Error();
          const glitch: [number, 0 | 1][] = inside
            ? [
                [at, 0],
                [at + ms, 1],
              ]
            : [
                [at, 1],
                [at + ms, 0],
              ];
          expect(spansOf({ ...evidence, edges: [...evidence.edges, ...glitch] })).toEqual(spans);
        },
      ),
    );
  });

  it("takes flashes for flashes that are as short as a dialect may have them", () => {
    const quick = { rest: "dark", marks: { short: 120 }, gaps: { ...dialect("lead-in").gaps, flash: 120 } } as const;
    const edges = [[0, 0] as const, ...Array.from({ length: 8 }, (_, i) => [1000 + 110 * i, i % 2 ? 0 : 1] as const)];
    expect(trackOf({ mode: "edges", edges, until: 4000 }, quick).onset).toHaveLength(4);
    expect(trackOf({ mode: "edges", edges, until: 4000 }, spoken("dark")).onset.length).toBeLessThan(4);
  });

  it("leaves out what was already on at the start or is still on at the end, and ends the watch there", () => {
    const edges: [number, 0 | 1][] = [
      [0, 1],
      [400, 0],
      [1000, 1],
      [1400, 0],
      [2000, 1],
    ];
    const track = trackOf({ mode: "edges", edges, until: 9000 }, spoken("dark"));
    expect([...track.onset]).toEqual([1000]);
    expect([track.until, track.litAtEnd]).toEqual([2000, true]);
  });

  it("joins a held key that slipped, and leaves a quick second flash alone", () => {
    const holds = [
      [1000, 1400],
      [1410, 1900],
      [1960, 2300],
      [NaN, 3000],
      [4000, 3900],
    ] as const;
    expect(spansOf({ mode: "holds", holds, until: 5000 })).toEqual([
      [1000, 1900],
      [1960, 2300],
    ]);
  });

  it("knows before which mark nobody watched", () => {
    const taps = [500, 900, 8000, [9000, "l"] as const];
    const track = trackOf({ mode: "taps", taps, until: 9500, pauses: [[1200, 7000]] }, spoken("dark"));
    expect(track.pause).toEqual([null, null, [1200, 7000], null]);
    expect([...track.said]).toEqual([0, 0, 0, 2]);
    const first = firstOf(track, 2);
    expect([[...first.onset], first.until]).toEqual([[500, 900], 8000]);
  });
});
