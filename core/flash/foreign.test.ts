import { describe, expect, it } from "vitest";
import { makeCase } from "../cases/case";
import { DIALECTS } from "../testing/dialects";
import { watch } from "../testing/person";
import { decode, type Decoded } from "./decode";
import type { Dialect } from "./dialect/dialect";
import { possibleFaults } from "./dialect/digits";
import { seeded } from "./dialect/encode";
import type { Filmed } from "./seen/evidence";

const ABLE = DIALECTS.filter((d) => d.advance === "self");
const PAIRS = ABLE.flatMap((own) => ABLE.filter((other) => other !== own).map((other) => [own, other] as const));

/** What is claimed surely and is not so: a wrong vehicle may lead astray, since its table would then give meanings. */
const astray = (got: Decoded, truth: readonly string[]): string[] =>
  got.confidence >= 0.9 ? got.codes.filter((c) => !truth.includes(c)) : [];

/** Two or three codes of a dialect. */
function listOf(own: Dialect, seed: number): string[] {
  const random = seeded(seed);
  const all = possibleFaults(own);
  return [...new Set(Array.from({ length: 3 }, () => all[Math.floor(random() * all.length)]))];
}

describe("a lamp that speaks another dialect than is thought", () => {
  it.each(["edges", "taps"] as const)("is not surely told to say what it does not, %s", (mode) => {
    // A hand costs twice what edges do: every other pair of it.
    const wrong = PAIRS.flatMap(([own, other], i) => {
      if (mode === "taps" && i % 2) return [];
      const { memory } = own.phases.find((p) => p.kind === "stored")!;
      const stored = listOf(own, i + 1);
      const got = decode(other, watch(own, { [memory]: stored }, mode, { seed: i + 1, jitter: 0.03, until: 90_000 }));
      return astray(got, stored).map((c) => `${own.id} ${stored.join()} as ${other.id}: ${c}`);
    });
    expect(wrong).toEqual([]);
  });

  it("is not surely told to say what it does not, in a film, and is mostly told to be another", () => {
    const answers = PAIRS.filter((_, i) => i % 2 === 0).map(([own, other], i) => {
      const c = makeCase(own, "levels", i % 2 ? "clean" : "normal", 900 + i);
      const got = decode(other, { mode: "levels", levels: c.data, until: c.until } as unknown as Filmed);
      return { got, wrong: astray(got, c.truth.codes).map((code) => `${c.id} as ${other.id}: ${code}`) };
    });
    // Some lists can be said in two dialects' times.
    expect(answers.filter((a) => a.wrong.length).map((a) => a.wrong.join("; ")).length).toBeLessThan(
      0.05 * answers.length,
    );
    expect(answers.filter((a) => a.got.misfit).length).toBeGreaterThan(0.7 * answers.length);
  });
});
