import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Connector, Pack, Variant } from "@core/pack/pack";
import { findWays, shapeOf, type Asked, type Seen } from "@core/pack/find";
import { connectorIdOf, tellsByDashLamp, type Way } from "@core/pack/way";
import { PACKS } from "./index";

interface Stand {
  pack: Pack;
  variant: Variant;
  way: Way;
  plug: Connector | null;
}

/** All that somebody may stand before: each way in of each model. */
const STANDS: Stand[] = PACKS.flatMap((pack) =>
  pack.variants.flatMap((variant) =>
    [...new Set(variant.systems.map((s) => s.way))].map((id) => {
      const way = pack.ways.find((w) => w.id === id)!;
      return { pack, variant, way, plug: pack.connectors.find((c) => c.id === connectorIdOf(way)) ?? null };
    }),
  ),
);

/** All that can be seen there. */
const seenOf = ({ way, plug }: Stand): Seen => ({
  lamp: tellsByDashLamp(way) ? "yes" : "no",
  ...(plug && {
    shape: shapeOf(plug),
    colour: plug.colour,
    cavities: plug.cavities.length,
    place: plug.place,
    symbol: plug.symbols?.[0] ?? "none",
  }),
});

const stands = fc.constantFrom(...STANDS);
const probabilityOf = (asked: Asked, { way, variant }: Stand): number =>
  findWays(PACKS, asked).ways.find((w) => w.way === way && w.variant === variant)?.probability ?? 0;

describe("findWays", () => {
  it("ranks no way above one that fits all that was seen as well", () => {
    for (const stand of STANDS.filter((s) => s.plug)) {
      const { ways, outside } = findWays(PACKS, { seen: seenOf(stand) });
      expect([stand.way.id, probabilityOf({ seen: seenOf(stand) }, stand)]).toEqual([
        stand.way.id,
        ways[0].probability,
      ]);
      expect(ways[0].against).toEqual([]);
      expect(outside).toBeLessThan(0.2);
    }
  });

  it("shares out what is certain: all ways and what is outside make no more than one", () => {
    fc.assert(
      fc.property(
        stands,
        fc.boolean(),
        fc.subarray(["shape", "colour", "cavities", "place", "symbol", "lamp"] as const),
        (stand, make, keys) => {
          const all = seenOf(stand);
          const seen = Object.fromEntries(keys.map((k) => [k, all[k]])) as Seen;
          const { ways, outside } = findWays(PACKS, { seen, ...(make && { make: stand.pack.id }) });
          const sum = ways.reduce((s, w) => s + w.probability, outside);
          expect(sum).toBeLessThanOrEqual(1 + 1e-9);
          expect(sum).toBeGreaterThan(0.75);
          expect(ways.map((w) => w.probability)).toEqual(ways.map((w) => w.probability).toSorted((a, b) => b - a));
        },
      ),
    );
  });

  it("is never less sure of the right way for one thing more that fits it", () => {
    fc.assert(
      fc.property(
        stands.filter((s) => s.plug !== null),
        fc.shuffledSubarray(["shape", "colour", "cavities", "place", "symbol", "lamp"] as const, { minLength: 6 }),
        (stand, order) => {
          const all = seenOf(stand);
          let [seen, before]: [Seen, number] = [{}, probabilityOf({ seen: {} }, stand)];
          for (const key of order) {
            seen = { ...seen, [key]: all[key] };
            const now = probabilityOf({ seen }, stand);
            expect([key, now >= before * 0.999]).toEqual([key, true]);
            before = now;
          }
        },
      ),
    );
  });

  it("asks next for what tells the likely models apart, and never for what is known", () => {
    fc.assert(
      fc.property(
        stands,
        fc.subarray(["shape", "colour", "cavities", "place", "symbol", "lamp"] as const),
        (stand, keys) => {
          const all = seenOf(stand);
          const seen = Object.fromEntries(keys.map((k) => [k, all[k]])) as Seen;
          const { tellApart } = findWays(PACKS, { seen });
          for (const { what, answers } of tellApart) {
            expect(keys.filter((k) => all[k] !== undefined)).not.toContain(what);
            expect(answers.length).toBeGreaterThan(1);
          }
        },
      ),
    );
  });

  it("says of another year, or a plug that no table knows, that it lies outside", () => {
    for (const pack of PACKS) {
      const last = Math.max(...pack.variants.map((v) => v.years[1]));
      const { ways, outsideWhy } = findWays(PACKS, { make: pack.id, year: last + 1, seen: {} });
      expect(ways).toEqual([]);
      expect(outsideWhy).toContain(`${pack.make} of ${last + 1} is outside these tables`);
    }
    const { outside, outsideWhy } = findWays(PACKS, {
      seen: { colour: "pink", cavities: 37, symbol: "HORN", shape: "round" },
    });
    expect(outside).toBeGreaterThan(0.5);
    expect(outsideWhy).toContain("fits no table here");
  });
});
