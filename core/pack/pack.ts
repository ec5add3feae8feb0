import type { Dialect } from "../flash/dialect";

/** One make's knowledge, as an open file. Everything that differs between makes is data here, never code. */
export interface Pack {
  format: "klinko-pack";
  version: 1;
  id: string;
  make: string;
  title: string;
  revision: string;
  source: string;
  systems: System[];
  dialects: Dialect[];
  connectors: Connector[];
  ways: Way[];
  variants: Variant[];
  tables: Table[];
  clears: ClearWay[];
  proving: Proving;
}

export interface System {
  id: string;
  name: string;
  /** SAE J1930 name of the unit, and the lamp that it drives. */
  unit: string;
  lamp: string;
}

/** Where something holds. What is absent holds everywhere. Years are model years, both ends included. */
export interface Scope {
  years?: [from: number, to: number];
  engines?: string[];
  markets?: string[];
}

export interface Variant {
  id: string;
  model: string;
  years: [from: number, to: number];
  engines: { id: string; name: string; cylinders: number }[];
  markets: string[];
  /** For each system that can be read: the way in. */
  systems: { system: string; way: string; scope?: Scope }[];
}

export type CavityRole = "ground" | "test" | "power" | "signal" | "airbag" | "empty";

export interface Connector {
  id: string;
  name: string;
  /** Size of the drawing, in its own units; cavities are placed in it, seen looking into the socket. */
  size: [width: number, height: number];
  shape: "block" | "round-ended";
  notch: "top" | "bottom" | "left" | "right" | "none";
  colour: string;
  where: string;
  cavities: Cavity[];
}

export interface Cavity {
  id: string;
  at: [x: number, y: number];
  role: CavityRole;
  /** For `test`: the system whose unit listens on this line. */
  system?: string;
  wire?: string;
}

export interface Way {
  id: string;
  title: string;
  /** Letter of the method: A bridges two cavities, B a small two-wire plug. */
  method: string;
  connector: string;
  bridge: [from: string, to: string];
  dialect: string;
  preconditions: string[];
  steps: Step[];
  /** What to look at when the lamp does not answer, likeliest first. */
  nothingHappens: string[];
}

export interface Step {
  id: string;
  title: string;
  text: string;
  key: "off" | "on" | "any";
  wire: "out" | "in" | "any";
  caution?: string;
}

export interface Table {
  id: string;
  system: string;
  scope?: Scope;
  entries: Entry[];
}

export interface Entry {
  code: string;
  kind: "fault" | "status";
  scope?: Scope;
  /** The circuit that the code names; never a part. */
  circuit: string;
  title: string;
  sets: string;
  affects: string;
  lookFirst: string[];
  /** Comes before every other code: what the unit says besides it cannot be trusted. */
  first?: string;
}

export type CostId = "radio-code" | "clock" | "learned-idle" | "readiness" | "time";

export interface ClearWay {
  id: string;
  title: string;
  system: string;
  kind: "fuse" | "battery";
  /** The pack's figure; what is shorter does not count. */
  seconds: number;
  what: string;
  /** The mistake that people make here. */
  trap?: string;
  costs: { id: CostId; text: string }[];
  steps: string[];
  afterwards: string[];
  caution?: string;
}

export interface Proving {
  /** How the vehicle must be run before the re-read says anything. */
  idleMinutes: number;
  drive: string;
  readiness: string;
}
