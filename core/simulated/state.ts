import type { Dialect, Faults } from "../flash/dialect/dialect";

/** A stand-in for a real vehicle: key, engine, connectors, one wire, a pulse reader, buttons, lamps, and faults that nobody is told. */
export interface Simulated {
  key: "off" | "on" | "run";
  wire: Wire | null;
  /** The wire as it was when the key came on: a unit looks at its test line only then. */
  wireAtKeyOn: Wire | null;
  keyOnAt: number;
  /** The last times at which the key came on, for the key cycle. */
  keyTurns: readonly number[];
  engineAt: number | null;
  warm: boolean;
  leads: Leads | null;
  /** Buttons that are held, with the time since when. */
  down: Readonly<Record<string, number>>;
  /** Buttons that were held when the key came on. */
  heldAtKeyOn: readonly string[];
  /** The last run that a reader's button asked for. */
  press: { at: number; index: number; system: string } | null;
  /** What a dash that writes shows: which line. */
  dash: { line: number } | null;
  /** Where a dash that walks stands. */
  walk: { module: number; submode: number; at: number } | null;
  /** When what the running test asks for was done. */
  actedAt: number | null;
  /** Are the readiness monitors complete? */
  ready: boolean;
  faults: readonly SimulatedFault[];
  /** Codes that each system's unit has stored. */
  memory: Record<string, string[]>;
  /** A wrong bridge blew the unit's fuse: nothing lights until a new one is in. */
  blown: boolean;
  fuseOutAt: number | null;
  /** Which fuse is out: the way to clear that it belongs to. */
  fuse?: string;
  batteryOffAt: number | null;
  /** How often it was used without a fault that comes back, for each way by which a unit wipes itself. */
  quiet?: Readonly<Record<string, number>>;
  /** Factor on all lamp times of this vehicle's units. */
  speed: number;
  /** Units that are dead (no power, no ground, or the unit itself), by their names. */
  deadUnits?: readonly string[];
  /** Lamps whose bulb is gone, and other outputs that do not work, by their names and ids. */
  deadLamps?: readonly string[];
  deadOutputs?: readonly string[];
}

export interface Wire {
  connector: string;
  from: string;
  to: string;
}

/** Where the leads of a pulse reader, or of a serial adapter, are. */
export interface Leads {
  connector: string;
  /** Cavity of each lead, by its name. */
  at: Readonly<Record<string, string>>;
  /** The red lead is on its feed. */
  fed: boolean;
}

export interface SimulatedFault {
  system: string;
  code: string;
  /** When it sets its code again after a clear. */
  returns: "key-on" | "drive" | "never";
}

export type SimulatedAction =
  | { do: "key"; to: Simulated["key"] }
  | { do: "wire"; wire: Wire | null }
  | { do: "leads"; leads: Leads | null }
  | { do: "down"; button: string }
  | { do: "up"; button: string }
  | { do: "act" }
  | { do: "warm-up" }
  /** The fuse of one way to clear, or one that wipes nothing. */
  | { do: "fuse"; out: boolean; way?: string }
  | { do: "battery"; off: boolean }
  /** A scan adapter is told to clear, by one way of the pack. */
  | { do: "adapter"; way: string }
  /** A fault is mended, or something else is: a mended fault sets its code no more, what is stored stays. */
  | { do: "mend"; system: string; code: string }
  | { do: "new-fuse" }
  | { do: "drive" };

/** What a lamp does at this moment. */
export type LampNow =
  | { kind: "dark" }
  | { kind: "lit" }
  | { kind: "show"; dialect: Dialect; faults: Faults; cylinders: number; since: number; speed: number }
  /** One run of a lamp that rests lit, from `since` on. */
  | { kind: "run"; flashes: number; dialect: Dialect; since: number; speed: number }
  /** Lit, then so many blinks, then lit again. */
  | { kind: "blinks"; count: number; afterMs: number; since: number };

/** Shortest time without power that empties the memory, ms; a pack's own figure lies above it. */
export const FORGETS_AFTER = { fuse: 8_000, battery: 25_000 };

/** Names of buttons that are on no instrument. */
export const READER_BUTTON = "Reader button";
export const UNIT_BUTTON = "Unit button";

export function simulate(faults: readonly SimulatedFault[], speed: number): Simulated {
  const memory: Record<string, string[]> = {};
  for (const f of faults)
    memory[f.system] = [...(memory[f.system] ?? []), f.code].sort((a, b) => Number(a) - Number(b));
  return {
    key: "off",
    wire: null,
    wireAtKeyOn: null,
    keyOnAt: 0,
    keyTurns: [],
    engineAt: null,
    warm: false,
    leads: null,
    down: {},
    heldAtKeyOn: [],
    press: null,
    dash: null,
    walk: null,
    actedAt: null,
    ready: false,
    faults,
    memory,
    blown: false,
    fuseOutAt: null,
    batteryOffAt: null,
    speed,
  };
}

/** The state when a page takes it up again: nobody holds a button, and the key was taken along. */
export function parked(v: Simulated): Simulated {
  return {
    ...v,
    key: "off",
    wireAtKeyOn: null,
    engineAt: null,
    down: {},
    dash: null,
    walk: null,
    press: null,
    actedAt: null,
  };
}

export function powered(v: Simulated): boolean {
  return !v.blown && v.fuseOutAt === null && v.batteryOffAt === null;
}
