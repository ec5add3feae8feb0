import type { Circuit, CircuitKind } from "../pack/circuit";
import type { Entry, Pack } from "../pack/pack";
import { entriesFor, tableOwner, type VehicleFacts } from "../pack/scope";
import { KIND_WORDS } from "./kinds";

/** One circuit of the vehicle, with the codes that name it. */
export interface CircuitHere extends Circuit {
  /** Unique within the vehicle. */
  id: string;
  kind: CircuitKind;
  /** What it is about, for a sentence: "throttle position sensor (TPS)". */
  part: string;
  entries: Entry[];
}

const kindOfCircuit = (circuit: string): CircuitKind =>
  KIND_WORDS.find(([, words]) => words.test(circuit))?.[0] ?? "other";

/** "Engine coolant temperature (ECT) circuit" names a sensor; "Fuel injector circuit, group 1" its injectors. */
function partName(circuit: string, kind: CircuitKind): string {
  const plain = circuit.replace(/\s+circuit\b/i, "").trim();
  const named = /sensor|switch|relay|valve|motor|injector|coil|solenoid|heater|actuator|unit|voltage|reference/i.test(
    plain,
  );
  const sensor = ["thermistor", "position", "pressure", "air-flow", "pickup", "knock"].includes(kind);
  const part = sensor && !named ? plain.replace(/(,|$)/, " sensor$1") : plain;
  // A name in capitals stays: "ABS pump motor".
  return /^[A-Z]{2}|^[A-Z0-9]+\b [A-Z]/.test(part) ? part : part.charAt(0).toLowerCase() + part.slice(1);
}

/** The circuits of a system on this vehicle: as the pack describes them, and the rest by their names. */
export function circuitsOf(pack: Pack, v: VehicleFacts, system: string): CircuitHere[] {
  const owner = tableOwner(pack, system);
  const by = new Map<string, Entry[]>();
  for (const e of entriesFor(pack, v, system))
    if (e.kind === "fault") by.set(e.circuit, [...(by.get(e.circuit) ?? []), e]);
  return [...by].map(([circuit, entries], i) => {
    const told = pack.circuits?.find((c) => c.system === owner && c.circuit === circuit);
    const kind = told?.kind ?? kindOfCircuit(circuit);
    return { ...told, system: owner, circuit, id: `${owner}-${i + 1}`, kind, part: partName(circuit, kind), entries };
  });
}

/** Does the pack itself say what its circuits share? Without, what hangs together is what mostly does. */
export const describesCircuits = (pack: Pack): boolean => (pack.circuits?.length ?? 0) > 0;
