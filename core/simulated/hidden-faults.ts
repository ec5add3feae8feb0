import { runsOf } from "../flash/dialect/digits";
import { seeded } from "../flash/dialect/encode";
import type { Pack } from "../pack/pack";
import { entriesFor, systemsOf, tableOwner, type VehicleFacts } from "../pack/scope";
import type { SimulatedFault } from "./state";

/**
 * Two faults that nobody is told, drawn from the vehicle's own table: one that is back as soon as the key is on or after
 * a drive, one that is only history. The same seed hides the same faults. A second system gets one of its own.
 */
export function hiddenFaults(pack: Pack, facts: VehicleFacts, seed: number): SimulatedFault[] {
  const random = seeded(seed);
  const faults: SimulatedFault[] = [];
  const own = systemsOf(pack, facts).filter((s) => tableOwner(pack, s.system) === s.system);
  for (const [i, { system, dialect }] of own.entries()) {
    const codes = entriesFor(pack, facts, system)
      .filter((e) => e.kind === "fault" && !e.first)
      .map((e) => e.code)
      // A table may hold codes that this lamp cannot blink.
      .filter((code) => !dialect || runsOf(dialect, code) !== null);
    const draw = () => codes.splice(Math.floor(random() * codes.length), 1)[0];
    const [one, two] = [draw(), draw()];
    if (i > 0) {
      if (one) faults.push({ system, code: one, returns: "drive" });
      continue;
    }
    if (one) faults.push({ system, code: one, returns: random() < 0.5 ? "key-on" : "drive" });
    if (two) faults.push({ system, code: two, returns: "never" });
  }
  return faults;
}

/** A seed from a text (FNV-1a). */
export function seedOf(text: string): number {
  let hash = 2166136261;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16777619) >>> 0;
  return hash;
}
