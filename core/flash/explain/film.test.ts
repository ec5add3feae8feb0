import { describe, expect, it } from "vitest";
import { makeCase } from "../../cases/case";
import { framesOf } from "../../lamp/levels";
import { dialect, DIALECTS } from "../../testing/dialects";
import { decode } from "../decode";
import type { Dialect } from "../dialect/dialect";
import { possibleFaults } from "../dialect/digits";
import { encode, flashesOf, normal, seeded } from "../dialect/encode";
import type { Filmed } from "../seen/evidence";
import { awayOf, edgesOf } from "./film-view";
import { identify } from "../identify";
import { nothingMore } from "../judge/settle";
import { ordered, type Unit } from "../dialect/show";

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
    expect(identify(DIALECTS, evidence).ranked[0].dialect).toBe("end-mark");
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
    expect(
      claims(
        flat.map(() => 5),
        flat.map((_, i) => (i % 20 < 10 ? 40 : 140)),
      ).codes,
    ).toEqual([]);
    expect(
      claims(
        flat,
        flat.map((_, i) => (i % 3 ? NaN : 90)),
      ).codes,
    ).toEqual([]);
    expect(
      claims(
        flat.map((t) => -t),
        flat,
      ).codes,
    ).toEqual([]);
  });
});

describe("a film in which the lamp was lost from view for a while", () => {
  it("does not take that for a rest of the lamp: the list is not whole before a round without it", () => {
    const d = dialect("cycle-lamp");
    // 31 in every round, 42 as well; the second round's 42 and the first one's are out of view.
    const edges = encode(d, { stored: ["31", "42"] }, 70_000);
    const lit = (t: number) => edges.findLast(([at]) => at <= t)![1];
    const times = Array.from({ length: 2100 }, (_, i) => i * 33.3);
    const film = (hidden: readonly (readonly [number, number])[], until: number) => {
      const t = times.filter((x) => x < until && !hidden.some(([a, b]) => x > a && x < b));
      const random = seeded(4);
      return decode(d, {
        mode: "levels",
        levels: { t, y: t.map((x) => 60 + 90 * lit(x) + 4 * normal(random)) },
        until,
      });
    };
    const whole = film([], 69_000);
    expect([whole.codes, whole.complete, whole.wholeRound]).toEqual([["31", "42"], true, true]);
    // Every 42 lies behind a hand: from a gap in the pictures nobody may conclude that there was none.
    const shows = flashesOf42(d);
    const hidden = film(shows, 69_000);
    expect([hidden.complete, hidden.wholeRound, nothingMore(hidden)]).toEqual([false, false, false]);
  });

  it.each(["lead-in", "key-on-three", "cycle-lamp", "long-short"])("is followed through it, %s", (id) => {
    const d = dialect(id);
    const table = possibleFaults(d);
    let read = 0;
    for (let seed = 1; seed <= 6; seed++) {
      const random = seeded(seed);
      const stored = ordered(d, [
        table[Math.floor(table.length * random())],
        table[Math.floor(table.length * random())],
      ]);
      const until = 110_000;
      const edges = encode(d, { stored }, until, { jitter: 0.02, random });
      const lit = (t: number) => edges.findLast(([at]) => at <= t)![1];
      const away = 30_000 + 20_000 * random();
      const back = away + 12_000 + 8000 * random();
      const t = Array.from({ length: 1650 }, (_, i) => i * 66.7).filter((x) => x < away || x > back);
      const film = decode(d, {
        mode: "levels",
        levels: { t, y: t.map((x) => 60 + 90 * lit(x) + 3 * normal(random)) },
        until,
      });
      const sure = film.codes.filter((c) => film.codeConfidence[c] >= 0.9);
      expect([seed, sure.filter((c) => !stored.includes(c))]).toEqual([seed, []]);
      read += Number(inView(d, stored, [away, back], until).every((c) => sure.includes(c)));
    }
    expect(read).toBeGreaterThanOrEqual(5);
  });
});

/** Codes of which a whole showing lay in view, with a margin for what the lamp's clock is off. */
function inView(
  d: Dialect,
  stored: readonly string[],
  [away, back]: readonly [number, number],
  until: number,
): string[] {
  const showings = new Map<Unit, [from: number, to: number]>();
  const margin = 2500;
  const seen = new Set<string>();
  let round = new Set<Unit>();
  const close = () => {
    for (const [unit, [from, to]] of showings)
      if (unit.code && (to + margin < away || from - margin > back) && from > margin && to + margin < until)
        seen.add(unit.code);
    showings.clear();
    round = new Set();
  };
  let last: Unit | null = null;
  for (const { start, end, flash } of flashesOf(d, { stored })) {
    if (start > until) break;
    if (flash.unit !== last && round.has(flash.unit)) close();
    last = flash.unit;
    round.add(last);
    showings.set(last, [showings.get(last)?.[0] ?? start, end]);
  }
  close();
  return stored.filter((c) => seen.has(c));
}

/** Stretches around each showing of 42, ms. */
function flashesOf42(d: Dialect): [number, number][] {
  const out: [number, number][] = [];
  for (const f of flashesOf(d, { stored: ["31", "42"] })) {
    if (f.start > 75_000) break;
    if (f.flash.unit.code !== "42") continue;
    const last = out.at(-1);
    if (last && f.start - last[1] < 2500) last[1] = f.end + 300;
    else out.push([f.start - 300, f.end + 300]);
  }
  return out;
}
