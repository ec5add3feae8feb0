import { describe, expect, it } from "vitest";
import { makeCase } from "../cases/case";
import { framesOf } from "../lamp/levels";
import { dialect, DIALECTS } from "../testing/dialects";
import { decode } from "./decode";
import type { Filmed } from "./evidence";
import { awayOf, edgesOf } from "./film-view";
import { identify } from "./identify";

const film = (id: string, profile: "clean" | "normal" | "hard", seed: number) => {
  const c = makeCase(dialect(id), "levels", profile, seed);
  return { c, evidence: { mode: "levels", levels: c.data, until: c.until } as unknown as Filmed };
};

describe("brightness", () => {
  it.each(DIALECTS.filter((d) => d.advance === "self").map((d) => d.id))("of a lamp tells its list, %s", (id) => {
    for (const seed of [11, 12]) {
      const { c, evidence } = film(id, "normal", seed);
      const got = decode(dialect(id), evidence);
      expect([c.id, got.state, got.codes]).toEqual([c.id, c.truth.state, expect.arrayContaining(c.truth.shown)]);
      for (const code of got.codes) expect(c.truth.codes).toContain(code);
    }
  });

  it("is told apart from daylight that wanders: every change of the lamp is found", () => {
    const d = dialect("lead-in");
    const { evidence } = film("lead-in", "normal", 21);
    const frames = framesOf(evidence.levels, awayOf(d))!;
    const lengths = edgesOf(frames).map(([t], i, all) => (all[i + 1]?.[0] ?? t) - t);
    // The shortest mark or rest of this dialect lasts 400 ms at the nominal tempo, 320 at the quickest.
    expect(Math.min(...lengths.slice(1, -1))).toBeGreaterThan(250);
    expect(frames.contrast / frames.noise).toBeGreaterThan(8);
  });

  it("names the dialect", () => {
    const { evidence } = film("end-mark", "normal", 5);
    expect(identify(DIALECTS, evidence)[0].dialect).toBe("end-mark");
  });

  it("of nothing, of a flat picture and of numbers that are none claims no code", () => {
    const d = dialect("lead-in");
    const flat = Array.from({ length: 600 }, (_, i) => i * 33);
    const claims = (t: number[], y: number[]) => decode(d, { mode: "levels", levels: { t, y }, until: 20_000 });
    expect(claims([], []).codes).toEqual([]);
    expect(claims([0], [100]).codes).toEqual([]);
    expect(
      claims(
        flat,
        flat.map(() => 120),
      ).codes,
    ).toEqual([]);
    expect(claims(flat.map(() => 5), flat.map((_, i) => (i % 20 < 10 ? 40 : 140))).codes).toEqual([]); // prettier-ignore
    expect(claims(flat, flat.map((_, i) => (i % 3 ? NaN : 90))).codes).toEqual([]); // prettier-ignore
    expect(claims(flat.map((t) => -t), flat).codes).toEqual([]); // prettier-ignore
  });
});
