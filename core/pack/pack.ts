import type { Dialect } from "../flash/dialect";
import type { Scope } from "./validity";
import type { Trap, Way } from "./way";

export type { Scope };
export type * from "./way";

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
  /** Fuse that feeds the unit, and the point where its ground is. Units that name the same one share it. */
  feed?: string;
  ground?: string;
  /** What else the unit drives, seen or heard at key-on. */
  drives?: Output[];
  caution?: string;
  /** Its codes stand in the table of another system (the same unit, asked in another way). */
  sameTableAs?: string;
}

export interface Output {
  id: string;
  name: string;
  /** What it does at key-on when all is well. */
  expect: string;
  /** The lamp or part's own feed, where it is not the unit's. */
  feed?: string;
}

export interface Variant {
  id: string;
  model: string;
  years: [from: number, to: number];
  engines: { id: string; name: string; cylinders: number }[];
  markets: string[];
  /** For each system that can be read: the way in, and what blinks where it is not the usual lamp. */
  systems: { system: string; way: string; scope?: Scope; lamp?: string }[];
  traps?: Trap[];
}

export const PLACES = ["under-dash", "glovebox", "engine-bay", "under-seat", "boot", "console"] as const;
export type Place = (typeof PLACES)[number];

export type CavityRole = "ground" | "test" | "power" | "signal" | "airbag" | "empty";

export interface Connector {
  id: string;
  name: string;
  /** Size of the drawing, in its own units; cavities are placed in it, seen looking into the socket. */
  size: [width: number, height: number];
  shape: "block" | "round-ended" | "round" | "trapezoid";
  notch: "top" | "bottom" | "left" | "right" | "none";
  colour: string;
  where: string;
  /** Other places where it was fitted. */
  orElse?: string[];
  place: Place;
  /** Marks on it or in its lid. */
  symbols?: string[];
  /** What its shape promises and does not keep. */
  lookAlike?: string;
  cavities: Cavity[];
}

export interface Cavity {
  id: string;
  at: [x: number, y: number];
  role: CavityRole;
  /** For `test` and `signal`: the system whose unit listens or talks on this line. */
  system?: string;
  wire?: string;
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
  /** Detailed faults behind one vague number, and what tells them apart. */
  details?: { title: string; tell: string }[];
  /** What must not be done, or done first, with this fault: shown before anything else. */
  caution?: string;
  /** Comes before every other code: what the unit says besides it cannot be trusted. */
  first?: string;
}

export type CostId = "radio-code" | "clock" | "learned-idle" | "readiness" | "time";

export interface ClearWay {
  id: string;
  title: string;
  system: string;
  /** Systems whose memories go with it; without, that of `system` alone. */
  wipes?: string[];
  /** It wipes only the code that was shown last. */
  each?: "code";
  kind: "fuse" | "battery" | "button" | "submode";
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
  /** How long that drive takes at least, minutes; where no pack says, see `proving/ran`. */
  driveMinutes?: number;
  readiness: string;
}
