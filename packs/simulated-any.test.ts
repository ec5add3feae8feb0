import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { outside, systemsOf, tableOwner } from "@core/pack/scope";
import type { Pack } from "@core/pack/pack";
import { displayOf, flashesNow, lampOf, outputsOf } from "@core/simulated/answers";
import { hiddenFaults } from "@core/simulated/hidden-faults";
import { parked, powered, READER_BUTTON, simulate, UNIT_BUTTON, type SimulatedAction } from "@core/simulated/state";
import { act } from "@core/simulated/vehicle";
import { PACKS } from "./index";

/** Anything that a hand could do to a vehicle of a pack, sensible or not. */
function anyAction(pack: Pack): fc.Arbitrary<SimulatedAction | number> {
  const connectors = pack.connectors.length ? pack.connectors : [];
  const cavity = fc.constantFrom(...connectors.flatMap((c) => c.cavities.map((x) => x.id)).concat("Z"));
  const connector = fc.constantFrom(...connectors.map((c) => c.id), "no-such");
  const wire = fc.record({ connector, from: cavity, to: cavity });
  const leads = fc.record({
    connector,
    fed: fc.boolean(),
    at: fc.record({ black: cavity, signal: cavity, yellow: cavity, orange: cavity }),
  });
  const button = fc.constantFrom(READER_BUTTON, UNIT_BUTTON, "SET", "RESET", "MODE", "TRIP");
  return fc.oneof(
    fc.integer({ min: 1, max: 40_000 }),
    fc.constantFrom("off" as const, "on" as const, "run" as const).map((to): SimulatedAction => ({ do: "key", to })),
    fc.option(wire).map((w): SimulatedAction => ({ do: "wire", wire: w })),
    fc.option(leads).map((l): SimulatedAction => ({ do: "leads", leads: l })),
    button.map((b): SimulatedAction => ({ do: "down", button: b })),
    button.map((b): SimulatedAction => ({ do: "up", button: b })),
    fc.boolean().map((out): SimulatedAction => ({ do: "fuse", out })),
    fc.boolean().map((off): SimulatedAction => ({ do: "battery", off })),
    fc
      .constantFrom("act" as const, "warm-up" as const, "new-fuse" as const, "drive" as const)
      .map((x): SimulatedAction => ({ do: x })),
  );
}

describe.each(PACKS.map((p) => [p.id, p] as const))("a vehicle of %s, whatever is done to it", (_, pack) => {
  const vehicles = pack.variants.flatMap((v) =>
    v.engines.map((e) => ({ variant: v.id, year: v.years[1], engine: e.id, market: v.markets[0] })),
  );
  const facts = vehicles.find((f) => outside(pack, f) === null)!;
  const systems = systemsOf(pack, facts);
  const faults = hiddenFaults(pack, facts, 3);

  it("is dark without key or power, stores only its own faults, and shows nothing that it does not store", () => {
    fc.assert(
      fc.property(fc.array(anyAction(pack), { maxLength: 40 }), (actions) => {
        let v = simulate(faults, 1.05);
        let now = 1_000_000;
        for (const a of actions) {
          if (typeof a === "number") now += a;
          else v = act(v, a, pack, facts, now);
          const off = v.key === "off" || !powered(v);
          for (const s of systems) {
            const lamp = lampOf(v, pack, facts, s.system);
            const { lit, flashes } = flashesNow(lamp);
            if (off) expect([lamp.kind, lit]).toEqual(["dark", false]);
            let last = -Infinity;
            let seen = 0;
            for (const f of flashes) {
              expect(f.start).toBeGreaterThanOrEqual(last);
              expect(f.end).toBeGreaterThan(f.start);
              last = f.end;
              if (++seen > 60 || !Number.isFinite(f.end)) break;
            }
            const owner = tableOwner(pack, s.system);
            if (lamp.kind === "show") expect(lamp.faults.stored).toEqual(v.memory[owner] ?? []);
          }
          if (off) expect(displayOf(v, pack, facts, now)).toBeNull();
          expect(outputsOf(v, pack, facts, now).some((o) => o.works && off)).toBe(false);
          for (const [system, codes] of Object.entries(v.memory))
            for (const code of codes) expect(faults.some((f) => f.system === system && f.code === code)).toBe(true);
        }
        // Left alone and taken up again: nobody holds a button, the key was taken along, the memory is as it was.
        const again = parked(v);
        expect(again).toMatchObject({ key: "off", down: {}, memory: v.memory });
        expect(systems.every((s) => lampOf(again, pack, facts, s.system).kind === "dark")).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  it("comes back after a clear with just what comes back by itself", () => {
    let v = simulate(faults, 1);
    v = act(v, { do: "battery", off: true }, pack, facts, 0);
    v = act(v, { do: "battery", off: false }, pack, facts, 60_000);
    expect(Object.values(v.memory).flat()).toEqual([]);
    v = act(v, { do: "key", to: "on" }, pack, facts, 61_000);
    const stored = () =>
      Object.entries(v.memory)
        .flatMap(([s, l]) => l.map((c) => `${s} ${c}`))
        .sort();
    const of = (...when: string[]) =>
      faults
        .filter((f) => when.includes(f.returns))
        .map((f) => `${f.system} ${f.code}`)
        .sort();
    expect(stored()).toEqual(of("key-on"));
    v = act(v, { do: "drive" }, pack, facts, 62_000);
    expect(stored()).toEqual(of("key-on", "drive"));
    expect(v).toMatchObject({ key: "off", warm: true, ready: true });
  });
});
