import type { Dialect } from "../flash/dialect";
import type { Pack } from "../pack/pack";
import { systemsOf, type VehicleFacts } from "../pack/scope";
import { bridgeEffect } from "../procedure/bridge";

/** A stand-in for a real vehicle: key, connectors, one wire, lamps, and faults that nobody is told. */
export interface Simulated {
  key: "off" | "on";
  wire: Wire | null;
  /** The wire as it was when the key came on: a unit looks at its test line only then. */
  wireAtKeyOn: Wire | null;
  keyOnAt: number;
  faults: readonly SimulatedFault[];
  /** Codes that each system's unit has stored. */
  memory: Record<string, string[]>;
  /** A wrong bridge blew the unit's fuse: nothing lights until a new one is in. */
  blown: boolean;
  fuseOutAt: number | null;
  batteryOffAt: number | null;
  /** Factor on all lamp times of this vehicle's units. */
  speed: number;
}

export interface Wire {
  connector: string;
  from: string;
  to: string;
}

export interface SimulatedFault {
  system: string;
  code: string;
  /** When it sets its code again after a clear. */
  returns: "key-on" | "drive" | "never";
}

export type SimulatedAction =
  | { do: "key"; to: "off" | "on" }
  | { do: "wire"; wire: Wire | null }
  | { do: "fuse"; out: boolean }
  | { do: "battery"; off: boolean }
  | { do: "new-fuse" }
  | { do: "drive" };

/** Shortest time without power that empties the memory, ms; a pack's own figure lies above it. */
export const FORGETS_AFTER = { fuse: 8_000, battery: 25_000 };

export function simulate(faults: readonly SimulatedFault[], speed: number): Simulated {
  const memory: Record<string, string[]> = {};
  for (const f of faults) memory[f.system] = [...(memory[f.system] ?? []), f.code];
  return {
    key: "off",
    wire: null,
    wireAtKeyOn: null,
    keyOnAt: 0,
    faults,
    memory,
    blown: false,
    fuseOutAt: null,
    batteryOffAt: null,
    speed,
  };
}

/** The vehicle after something was done to it at `now` (ms). Every wrong move has its natural consequence. */
export function act(v: Simulated, action: SimulatedAction, pack: Pack, now: number): Simulated {
  switch (action.do) {
    case "key": {
      if (action.to === v.key) return v;
      if (action.to === "off") return { ...v, key: "off", wireAtKeyOn: null };
      const on: Simulated = { ...v, key: "on", keyOnAt: now, wireAtKeyOn: v.wire };
      return powered(on) ? store(blow(on, pack), "key-on") : on;
    }
    case "wire": {
      const next = { ...v, wire: action.wire };
      return v.key === "on" && powered(v) ? blow(next, pack) : next;
    }
    case "fuse":
      if (action.out) return { ...v, fuseOutAt: now };
      return { ...forget(v, v.fuseOutAt, FORGETS_AFTER.fuse, now), fuseOutAt: null };
    case "battery":
      if (action.off) return { ...v, batteryOffAt: now };
      return { ...forget(v, v.batteryOffAt, FORGETS_AFTER.battery, now), batteryOffAt: null };
    case "new-fuse":
      return { ...v, blown: false };
    case "drive":
      return v.wire || !powered(v) ? v : store(store({ ...v, key: "off", wireAtKeyOn: null }, "key-on"), "drive");
  }
}

/** What a lamp does at this moment. */
export type LampNow =
  | { kind: "dark" }
  | { kind: "lit" }
  | { kind: "show"; dialect: Dialect; faults: string[]; since: number; speed: number };

export function lampOf(v: Simulated, pack: Pack, facts: VehicleFacts, system: string): LampNow {
  if (v.key === "off" || !powered(v)) return { kind: "dark" };
  const access = systemsOf(pack, facts).find((s) => s.system === system);
  if (!access) return { kind: "dark" };
  const wire = v.wireAtKeyOn;
  // Taking the wire out ends the test at once.
  if (wire && v.wire && wire.connector === v.wire.connector && answers(pack, facts, wire, system))
    return { kind: "show", dialect: access.dialect, faults: v.memory[system] ?? [], since: v.keyOnAt, speed: v.speed };
  return { kind: "lit" };
}

function answers(pack: Pack, facts: VehicleFacts, wire: Wire, system: string): boolean {
  const access = systemsOf(pack, facts).find((s) => s.system === system);
  if (!access || access.connector.id !== wire.connector) return false;
  return bridgeEffect(access.connector, access.way, wire.from, wire.to).kind === "right";
}

function blow(v: Simulated, pack: Pack): Simulated {
  const { wire } = v;
  const connector = pack.connectors.find((c) => c.id === wire?.connector);
  if (!wire || !connector || wire.from === wire.to) return v;
  const hot = connector.cavities.some((c) => (c.id === wire.from || c.id === wire.to) && c.role === "power");
  return hot ? { ...v, blown: true } : v;
}

function powered(v: Simulated): boolean {
  return !v.blown && v.fuseOutAt === null && v.batteryOffAt === null;
}

function forget(v: Simulated, since: number | null, after: number, now: number): Simulated {
  return since !== null && now - since >= after ? { ...v, memory: {}, key: "off", wireAtKeyOn: null } : v;
}

function store(v: Simulated, when: "key-on" | "drive"): Simulated {
  const memory = { ...v.memory };
  for (const f of v.faults)
    if (f.returns === when && !memory[f.system]?.includes(f.code))
      memory[f.system] = [...(memory[f.system] ?? []), f.code];
  return { ...v, memory };
}
