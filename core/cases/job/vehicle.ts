import type { Pack } from "../../pack/pack";
import { entriesFor, outside, systemsOf, tableOwner, type SystemAccess } from "../../pack/scope";
import { tellsByDashLamp } from "../../pack/way";
import type { Vehicle } from "../../record/types";
import { RECORD_VERSION } from "../../record/types";
import { simulate, type Simulated, type SimulatedFault } from "../../simulated/state";

/** A vehicle with what is wrong with it, as nobody but the bench knows it. */
export interface Made {
  vehicle: Vehicle;
  systems: SystemAccess[];
  v: Simulated;
}

const pick = <T>(list: readonly T[], random: () => number): T => list[Math.floor(random() * list.length)];

/** Any vehicle of a pack, with none to three faults a system, now and then a dead unit, bulb or output, and changes that explain a code. */
export function makeVehicle(pack: Pack, random: () => number, at: string): Made {
  for (;;) {
    const variant = pick(pack.variants, random);
    const year = variant.years[0] + Math.floor(random() * (1 + variant.years[1] - variant.years[0]));
    const facts = {
      variant: variant.id,
      year,
      engine: pick(variant.engines, random).id,
      market: pick(variant.markets, random),
    };
    const systems = systemsOf(pack, facts);
    if (outside(pack, facts) !== null || !systems.length) continue;
    const faults: SimulatedFault[] = [];
    for (const { system } of systems.filter((s) => tableOwner(pack, s.system) === s.system)) {
      const codes = entriesFor(pack, facts, system).map((e) => e.code);
      const n = random() < 0.25 ? 0 : 1 + Math.floor(random() * 3);
      for (let i = 0; i < n && codes.length; i++) {
        const [code] = codes.splice(Math.floor(random() * codes.length), 1);
        faults.push({ system, code, returns: pick(["key-on", "drive", "never"] as const, random) });
      }
    }
    const dead = random() < 0.05 ? [pick(systems, random).unit] : [];
    const dash = systems.filter((s) => tellsByDashLamp(s.way));
    const bulb = random() < 0.04 && dash.length ? [pick(dash, random).lamp] : [];
    const outputs = systems.flatMap((s) => (s.about.drives ?? []).map((o) => o.id));
    const out = random() < 0.05 && outputs.length ? [pick(outputs, random)] : [];
    const expected = random() < 0.15 && faults.length ? [pick(faults, random).code] : [];
    const vehicle: Vehicle = {
      version: RECORD_VERSION,
      kind: "vehicle",
      id: "made",
      plate: "MADE 1",
      pack: pack.id,
      ...facts,
      changes: expected.length ? [{ text: "Changed", codes: expected }] : [],
      drives: [],
      radio: pick(["none", "code-known", "code-unknown", "not-asked"] as const, random),
      immobiliser: "not-asked",
      createdAt: at,
    };
    const v = { ...simulate(faults, 0.85 + 0.3 * random()), deadUnits: dead, deadLamps: bulb, deadOutputs: out };
    return { vehicle, systems, v };
  }
}
