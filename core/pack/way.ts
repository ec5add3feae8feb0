import type { Scope } from "./validity";

/** How the unit is made to talk. */
export type Ask =
  /** A wire across two cavities, before the key goes on (A, B, C, F) or the engine starts (E). */
  | { kind: "bridge"; connector: string; bridge: [from: string, to: string] }
  /** A pulse reader, an LED with a button: black lead on ground, signal lead on the pin of one system, red lead on a feed (D). */
  | { kind: "reader"; connector: string; ground: string; signal: string; feed: string; readSeconds: number; clearSeconds: number } // prettier-ignore
  /** A button and an LED on board (D). */
  | { kind: "unit-button"; where: string; readSeconds: number; clearSeconds: number }
  /** The key goes on so many times within a time; it stays on after the last (G). */
  | { kind: "key-cycle"; times: number; withinSeconds: number }
  /** Buttons of the instrument, held together (H). */
  | { kind: "buttons"; buttons: string[]; holdSeconds: number }
  /** The key goes on, and that is all (an LED on the unit itself; J). */
  | { kind: "key-on"; where: string }
  /** A home-made lead on a round plug (K). */
  | { kind: "lead"; connector: string; wires: LeadWire[]; insulate: string };

export interface LeadWire {
  cavity: string;
  /** What it goes to at the other end. */
  to: string;
  colour: string;
}

/** What is seen when it talks. */
export type Tells = { kind: "lamp"; dialect: string; act?: Act } | DashText | ModuleWalk | ReadinessLamp | SerialData;

/** What has to be done when the unit asks for it in the engine-running test. */
export interface Act {
  what: string;
  seconds: number;
  /** Code that the unit stores when it was not done. */
  missed: string;
}

/** A number where the odometer was; a letter in front names the system (H). */
export interface DashText {
  kind: "text";
  systems: { system: string; prefix: string; digits: number }[];
  /** Shown where nothing is stored. */
  none: string;
  next: string;
}

/** A digital dash that walks through its modules (I). */
export interface ModuleWalk {
  kind: "modules";
  modules: { system: string; letter: string; name: string }[];
  /** Sub-modes of each module, in the order in which the button steps through them. */
  submodes: Submode[];
  digits: number;
  /** Shown where nothing is stored, such as dashes. */
  none: string;
  /** Buttons: next sub-mode, next module. */
  nextSubmode: string;
  nextModule: string;
}

export interface Submode {
  id: string;
  title: string;
  shows: "codes" | "value" | "erase";
  /** For `erase`: how long the sub-mode button is held until dashes show. */
  holdSeconds?: number;
}

/** The lamp tells whether the readiness monitors are complete (J). */
export interface ReadinessLamp {
  kind: "readiness";
  /** From key-on until the lamp tells. */
  waitSeconds: number;
  watchSeconds: number;
  /** So many blinks mean: not complete. */
  blinks: number;
  /** What the lamp does when they are. */
  complete: "steady" | "goes-out";
}

/** Serial live data (K). */
export interface SerialData {
  kind: "serial";
  protocols: { id: string; title: string; baud: number; years: [from: number, to: number] }[];
  sampleSeconds: number;
  parameters: Parameter[];
}

/** A value in the unit's block: `value = (byte or two bytes) * factor + offset`. */
export interface Parameter {
  id: string;
  name: string;
  unit: "1/min" | "kPa" | "V" | "°C" | "%" | "km/h";
  at: number;
  bytes: 1 | 2;
  factor: number;
  offset: number;
  /** Range that makes sense on a warm engine at idle. */
  idle: [from: number, to: number];
}

/** One way to get at the codes. */
export interface Way {
  id: string;
  title: string;
  /** Letter of the method, A to K; see the documentation of the pack format. */
  method: string;
  ask: Ask;
  tells: Tells;
  engine: "off" | "running";
  /** The unit answers only at working temperature. */
  engineWarm?: boolean;
  preconditions: string[];
  steps: Step[];
  /** Why it may not answer. */
  nothingHappens: Cause[];
}

export interface Step {
  id: string;
  title: string;
  text: string;
  key: "off" | "on" | "run" | "any";
  wire: "out" | "in" | "any";
  caution?: string;
  timer?: StepTimer;
  /** The key is cycled by a beat. */
  beat?: { times: number; withinSeconds: number };
}

export interface StepTimer {
  /** `hold`: a button is held; `wait`: nothing is touched; `warm-up`; `act`: it has to be done within the time. */
  kind: "hold" | "wait" | "warm-up" | "act";
  seconds: number;
  /** Said when the time is up. */
  then: string;
}

/** What is seen instead when nothing answers. */
export type SeenInstead = "steady" | "dark" | "other-lamp" | "gibberish";

export interface Cause {
  id: string;
  text: string;
  /** What to look at, and what it shows. */
  look: string;
  /** How often it is this, against the others of the list. */
  weight: number;
  /** It is likelier where this is seen, and hardly where something else is. */
  seen?: SeenInstead[];
  /** Causes that, ruled out, make this one unlikely too. */
  unlikelyAfter?: string[];
}

/** Connector that a way needs, or null. */
export function connectorIdOf(way: Way): string | null {
  return "connector" in way.ask ? way.ask.connector : null;
}

/** Dialect of a way whose lamp blinks, or null. */
export function dialectIdOf(way: Way): string | null {
  return way.tells.kind === "lamp" ? way.tells.dialect : null;
}

/** Cavities that a way uses, in the order of its leads. */
export function cavitiesUsed(way: Way): string[] {
  switch (way.ask.kind) {
    case "bridge":
      return way.ask.bridge;
    case "reader":
      return [way.ask.ground, way.ask.signal];
    case "lead":
      return way.ask.wires.map((w) => w.cavity);
    default:
      return [];
  }
}

/** The leads of a way, by the cavity in which each sits; none where a wire is laid. */
export function leadsOf({ ask }: Way): Record<string, string> {
  if (ask.kind === "reader") return { [ask.ground]: "black", [ask.signal]: "signal" };
  if (ask.kind === "lead") return Object.fromEntries(ask.wires.map((w) => [w.cavity, w.colour]));
  return {};
}

/** Is it a lamp in the dash that tells? A reader's LED and an LED on a unit are no such lamp. */
export function tellsByDashLamp({ ask, tells }: Way): boolean {
  if (tells.kind === "readiness") return true;
  return tells.kind === "lamp" && (ask.kind === "bridge" || ask.kind === "key-cycle");
}

/**
 * Index of the first step after which the lamp tells: it belongs to the reading, since whatever is shown while somebody still reads
 * the steps is lost. All steps come before where nothing is lost.
 */
export function tellsFrom({ ask, tells, steps }: Way): number {
  if (tells.kind !== "lamp" && tells.kind !== "readiness") return steps.length;
  const at =
    ask.kind === "reader" || ask.kind === "unit-button"
      ? steps.findIndex((s) => s.timer?.kind === "hold")
      : steps.findIndex(
          (s) => s.key !== "off" && (s.wire !== "out" || s.beat !== undefined) && s.timer?.kind !== "warm-up",
        );
  return at < 0 ? steps.length : at;
}

/** So long after key-on the unit begins to tell, as its steps say, ms. */
export function beginsAfterMs({ steps }: Way): number {
  return (steps.find((s) => s.key === "on" && s.timer?.kind === "wait")?.timer?.seconds ?? 0) * 1000;
}

/** What the lamp of a way does with the key on while nobody asks: a lamp in the dash is lit with the engine off, an LED is its list alone. */
export function lampAtRest({ ask, engine }: Way): "lit" | "dark" {
  return ask.kind === "key-on" || engine === "running" ? "dark" : "lit";
}

/** Systems that one reading by this way tells of: a dash that writes or walks tells of all of its modules. */
export function systemsTold(way: Way, system: string): string[] {
  if (way.tells.kind === "text") return way.tells.systems.map((s) => s.system);
  if (way.tells.kind === "modules") return way.tells.modules.map((m) => m.system);
  return [system];
}

/** Where the vehicle has something that leads astray. */
export interface Trap {
  scope?: Scope;
  text: string;
  /** Nothing of this pack holds for such a vehicle. */
  outside?: boolean;
}
