import { describe, expect, it } from "vitest";
import { decode } from "@core/flash/decode";
import { isFault } from "@core/flash/digits";
import { encode } from "@core/flash/encode";
import { ordered } from "@core/flash/show";
import { checkPack } from "@core/pack/schema";
import { entriesFor, systemsOf } from "@core/pack/scope";
import { bridgeEffect } from "@core/procedure/bridge";
import { hiddenFaults } from "@core/simulated/hidden-faults";
import { PACKS } from "./index";

const vehicles = PACKS.flatMap((pack) =>
  pack.variants.flatMap((v) =>
    v.engines.flatMap((e) =>
      v.years.map((year) => ({ pack, facts: { variant: v.id, year, engine: e.id, market: v.markets[0] } })),
    ),
  ),
);

describe.each(PACKS.map((p) => [p.id, p] as const))("pack %s", (_, pack) => {
  it("holds against the schema", () => expect(checkPack(structuredClone(pack))).toHaveProperty("pack"));

  it("has 25 or more codes of the engine, a status code, one that comes first, and a number with two meanings", () => {
    const entries = pack.tables.filter((t) => t.system === "engine").flatMap((t) => t.entries);
    expect(new Set(entries.map((e) => e.code)).size).toBeGreaterThanOrEqual(25);
    expect(entries.some((e) => e.kind === "status")).toBe(true);
    expect(entries.some((e) => e.first)).toBe(true);
    expect(entries.length).toBeGreaterThan(new Set(entries.map((e) => e.code)).size);
  });
});

describe("every vehicle of every pack", () => {
  it("has a way in whose bridge is right, and codes that its lamp can show", () => {
    for (const { pack, facts } of vehicles)
      for (const { system, connector, way, dialect } of systemsOf(pack, facts)) {
        expect(bridgeEffect(connector, way, ...way.bridge).kind).toBe("right");
        for (const e of entriesFor(pack, facts, system))
          expect([e.code, isFault(dialect, e.code)]).toEqual([e.code, true]);
        expect(pack.clears.some((c) => c.system === system)).toBe(true);
      }
  });

  it("hides faults in its simulation that its lamp then tells", () => {
    for (const [i, { pack, facts }] of vehicles.entries()) {
      const faults = hiddenFaults(pack, facts, i);
      const { dialect, system } = systemsOf(pack, facts)[0];
      const codes = faults.filter((f) => f.system === system).map((f) => f.code);
      expect(codes).toHaveLength(2);
      expect(
        decode(dialect, { mode: "edges", edges: encode(dialect, { stored: codes }, 150_000), until: 150_000 }).codes,
      ).toEqual(ordered(dialect, codes));
    }
  });
});
