import { describe, expect, it } from "vitest";
import { encode, seeded } from "@core/flash/dialect/encode";
import { howWell } from "@core/flash/search/instead";
import { memoriesOf } from "@core/flash/dialect/dialect";
import { nearBy } from "@core/flash/dialect/near-by";
import { FITS_SEEN, misreadAsked, misreadsOf } from "@core/job/misread";
import { entriesFor, systemsOf } from "@core/pack/scope";
import type { Mark } from "@core/record/mark";
import { CARS, list, Made } from "./testing/made-job";

/** A key held while the lamp is lit: taps alone cannot tell a long flash from a short one. One flash is missed. */
const held = (edges: readonly (readonly [number, 0 | 1])[], missed = -1): Mark[] =>
  edges
    .flatMap(([t, lit], i) =>
      lit && i + 1 < edges.length ? [{ id: i + 1, t: t + 180, up: edges[i + 1][0] + 150 }] : [],
    )
    .filter((_, i) => i !== missed);

const lamps = Object.keys(CARS).flatMap((id) => {
  const made = new Made(id as keyof typeof CARS);
  const access = systemsOf(made.c.pack, made.c.vehicle).find((s) => s.system === "engine")!;
  const { dialect } = access;
  if (!dialect || dialect.rest !== "dark" || dialect.advance !== "self" || memoriesOf(dialect).length > 1) return [];
  const table = new Set(entriesFor(made.c.pack, made.c.vehicle, "engine").map((e) => e.code));
  return [{ id: id as keyof typeof CARS, dialect, table }];
});

const MINUTE = 60_000;
const SHORT = 9_000;

function misreads({ id, dialect }: (typeof lamps)[number], read: string, marks: Mark[], until: number) {
  const m = new Made(id).read(1, "engine", list([read], 1, 0.8), { input: "hold", marks, until });
  const asked = misreadAsked(m.c, "engine", read);
  const scores = asked?.watches.map((w) => howWell(dialect, w.seen, w.lists, asked.cylinders));
  return asked && misreadsOf(asked, scores!);
}

/** Each strange code beside one of a table, with both. */
const pairs = lamps.flatMap((lamp) =>
  [...lamp.table].flatMap((code) =>
    nearBy(lamp.dialect, code)
      .filter((c) => !lamp.table.has(c))
      .slice(0, 2)
      .map((strange) => ({ lamp, code, strange })),
  ),
);

describe("a code that stands in no table", () => {
  it("was no slip where it was seen well, whatever stands beside it", () => {
    const shares = pairs.slice(0, 80).map(({ lamp, strange }, k) => {
      const { dialect } = lamp;
      const shown = { [memoriesOf(dialect)[0]]: [strange] };
      const marks = held(encode(dialect, shown, MINUTE, { jitter: 0.03, random: seeded(k) }));
      return misreads(lamp, strange, marks, MINUTE)?.reduce((sum, m) => sum + m.share, 0) ?? 0;
    });
    expect(shares.filter((share) => share > 0.1)).toEqual([]);
  });

  it("is held against numbers that were called out, and against presses, too", () => {
    const called = (counts: string, read: string[], code: string, more = {}) => {
      const m = new Made("norrvik").read(1, "engine", list(read, 1, 0.8), {
        input: "counts",
        counts,
        until: 0,
        ...more,
      });
      const asked = misreadAsked(m.c, "engine", code)!;
      return misreadsOf(
        asked,
        asked.watches.map((w) => howWell(asked.dialect, w.seen, w.lists, asked.cylinders)),
      );
    };
    const lead = "1 3 1 3 1 3";
    const once = called(`${lead} 1 9`, ["19"], "19");
    const thrice = called(`${lead} 1 9 1 9 1 9 ${lead} 1 9 1 9 1 9`, ["19"], "19");
    const of = (list: typeof once, code: string) => list.find((m) => m.instead[0].code === code)!.share;
    expect(of(once, "18")).toBeGreaterThan(FITS_SEEN);
    expect(of(thrice, "18")).toBeLessThan(of(once, "18"));
    const press = new Made("lindqvar");
    const { dialect } = press.c.systems.find((s) => s.system === "engine")!;
    const table = new Set(entriesFor(press.c.pack, press.c.vehicle, "engine").map((e) => e.code));
    const strange = [...table].flatMap((c) => nearBy(dialect!, c)).find((c) => !table.has(c))!;
    press.read(1, "engine", list([strange], 1, 0.8), { input: "counts", counts: strange, until: 0 });
    const asked = misreadAsked(press.c, "engine", strange)!;
    const scores = asked.watches.map((w) => howWell(asked.dialect, w.seen, w.lists, asked.cylinders));
    expect(scores.flat().every((s) => s !== null && s > -Infinity)).toBe(true);
    expect(misreadsOf(asked, scores).length).toBe(asked.slips.length);
  });

  it("is laid to the code that was shown, where a flash of it was missed", () => {
    let named = 0;
    for (const [k, { lamp, code, strange }] of pairs.entries()) {
      const { dialect } = lamp;
      const random = seeded(k);
      const edges = encode(dialect, { [memoriesOf(dialect)[0]]: [code] }, SHORT, { jitter: 0.03, random });
      const flashes = edges.filter(([, lit]) => lit).length;
      const missed = Math.floor(random() * flashes);
      const found = misreads(lamp, strange, held(edges, missed), SHORT) ?? [];
      named += Number(found.some((m) => m.share >= FITS_SEEN && m.instead.some((e) => e.code === code)));
      for (const m of found) for (const e of m.instead) expect(lamp.table).toContain(e.code);
      expect(found.reduce((sum, m) => sum + m.share, 0)).toBeLessThanOrEqual(1 + 1e-9);
    }
    expect(pairs.length).toBeGreaterThan(60);
    expect(named / pairs.length).toBeGreaterThan(0.9);
  });
});
