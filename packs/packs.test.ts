import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { decode } from "@core/flash/decode";
import { isFault } from "@core/flash/dialect/digits";
import { encode } from "@core/flash/dialect/encode";
import { ordered } from "@core/flash/dialect/show";
import { findWays, shapeOf } from "@core/pack/find";
import { checkPack, packJsonSchema, readPack } from "@core/pack/schema";
import { entriesFor, outside, systemsOf, tableOwner } from "@core/pack/scope";
import { bridgeEffect, leadsEffect } from "@core/procedure/bridge";
import { hiddenFaults } from "@core/simulated/hidden-faults";
import { PACKS } from "./index";
import { MODELS } from "./models";

const vehicles = PACKS.flatMap((pack) =>
  pack.variants.flatMap((v) =>
    v.engines.flatMap((e) =>
      v.years.map((year) => ({ pack, facts: { variant: v.id, year, engine: e.id, market: v.markets[0] } })),
    ),
  ),
).filter(({ pack, facts }) => outside(pack, facts) === null);

describe.each(PACKS.map((p) => [p.id, p] as const))("pack %s", (_, pack) => {
  it("holds against the schema, also as a file", () => {
    expect(checkPack(structuredClone(pack))).toMatchObject({ pack: { id: pack.id }, unknown: [] });
    expect(readPack(JSON.stringify(pack))).toHaveProperty("pack");
  });

  it("has 20 or more codes of the engine, a status code, one that comes first, and a number with two meanings", () => {
    const entries = pack.tables.filter((t) => t.system === "engine").flatMap((t) => t.entries);
    expect(new Set(entries.map((e) => e.code)).size).toBeGreaterThanOrEqual(20);
    expect(entries.some((e) => e.kind === "status")).toBe(true);
    expect(entries.some((e) => e.first)).toBe(true);
  });

  it("rules its causes out only by others of the list, and every way says what to do when nothing happens", () => {
    for (const way of pack.ways) expect([way.id, way.nothingHappens.length > 1]).toEqual([way.id, true]);
  });
});

it("every one of the eleven methods has a way", () => {
  expect([...new Set(PACKS.flatMap((p) => p.ways.map((w) => w.method)))].sort().join("")).toBe("ABCDEFGHIJK");
});

describe("every vehicle of every pack", () => {
  it("has a way in whose wires are right, and codes that its lamp can show", () => {
    for (const { pack, facts } of vehicles)
      for (const { system, connector, way, dialect } of systemsOf(pack, facts)) {
        if (way.ask.kind === "bridge") expect(bridgeEffect(connector!, way, ...way.ask.bridge).kind).toBe("right");
        if (way.ask.kind === "reader")
          expect(leadsEffect(connector!, way, way.ask.ground, way.ask.signal).kind).toBe("right");
        if (way.tells.kind === "readiness") continue;
        const entries = entriesFor(pack, facts, system);
        expect(entries.length).toBeGreaterThan(2);
        if (dialect) for (const e of entries) expect([e.code, isFault(dialect, e.code)]).toEqual([e.code, true]);
        if (system === "engine") expect(pack.clears.some((c) => c.system === tableOwner(pack, system))).toBe(true);
      }
  });

  it("hides faults in its simulation that its lamp then tells", () => {
    for (const [i, { pack, facts }] of vehicles.entries()) {
      const faults = hiddenFaults(pack, facts, i);
      const { dialect, system, way } = systemsOf(pack, facts)[0];
      if (!dialect || dialect.advance === "button" || way.tells.kind !== "lamp") continue;
      const codes = faults.filter((f) => f.system === system).map((f) => f.code);
      const stored = dialect.phases.some((p) => p.kind === "stored" && p.memory === "stored");
      expect(codes).toHaveLength(2);
      const edges = encode(dialect, { stored: codes, live: stored ? [] : codes }, 200_000);
      expect(decode(dialect, { mode: "edges", edges, until: 200_000 }).codes).toEqual(ordered(dialect, codes));
    }
  });
});

describe("findWays", () => {
  it("names the way of every vehicle that is told in full, and never another make's", () => {
    for (const { pack, facts } of vehicles) {
      const { ways } = findWays(PACKS, { make: pack.id, ...facts, seen: {} });
      expect(ways.map((w) => w.way.id).sort()).toEqual(
        [...new Set(systemsOf(pack, facts).map((s) => s.way.id))].sort(),
      );
    }
  });

  it("finds each plug by what it looks like, ahead of all that look different", () => {
    for (const pack of PACKS)
      for (const way of pack.ways) {
        const c = pack.connectors.find((x) => "connector" in way.ask && x.id === way.ask.connector);
        if (!c) continue;
        const { ways } = findWays(PACKS, {
          seen: { shape: shapeOf(c), colour: c.colour, cavities: c.cavities.length, place: c.place },
        });
        expect([way.id, ways[0].connector?.id, ways[0].pack.id]).toEqual([way.id, c.id, pack.id]);
      }
  });

  it("says plainly what is outside: another year, the engine with the scan socket, a plug that nobody has", () => {
    const six = { make: "osaril", variant: "coupe", engine: "2.5 six", market: "home", seen: {} };
    expect(findWays(PACKS, { ...six, year: 1995 }).outsideWhy).toMatch(/scan socket/);
    expect(findWays(PACKS, { ...six, engine: "1.8", year: 1995 }).outsideWhy).toBeNull();
    expect(findWays(PACKS, { ...six, year: 2010 }).outsideWhy).toMatch(/outside these tables.*1985 to 1995/);
    const odd = findWays(PACKS, { seen: { shape: "round", colour: "red", cavities: 40, place: "boot" } });
    expect(odd.outsideWhy).toMatch(/fits no table/);
  });

  it("asks for what tells the likely ones apart", () => {
    const { tellApart, ways } = findWays(PACKS, { seen: { place: "under-dash" } });
    expect(ways.length).toBeGreaterThan(2);
    expect(tellApart.length).toBeGreaterThan(0);
    expect(tellApart.every((q) => q.answers.length > 1 && q.what !== "place")).toBe(true);
  });
});

it("the published JSON Schema asks for the same fields as the check", () => {
  const schema = packJsonSchema() as { required: string[] };
  expect(JSON.parse(readFileSync("docs/formats/pack.schema.json", "utf8"))).toEqual(schema);
  // What circuits share may be left out: then what is usual stands in.
  expect([...schema.required, "circuits"].sort()).toEqual(Object.keys(PACKS[0]).sort());
});

it("the names of the models are those of the packs", () => {
  const own = PACKS.map((p) => [p.id, Object.fromEntries(p.variants.map((v) => [v.id, v.model]))]);
  expect(MODELS).toEqual(Object.fromEntries(own));
});
