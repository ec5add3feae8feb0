import {
  byKind,
  flag,
  list,
  number,
  object,
  oneOf,
  optional,
  pair,
  pattern,
  text as words,
  whole,
  type Of,
} from "../schema/rule";
import { scopeRule, year } from "./validity";
import { cavityRule, codeRule, id, line, text } from "./words";

const seconds = number(0.1, 7200);

const leadWire = object({
  cavity: cavityRule,
  /** What it goes to at the other end. */
  to: line,
  colour: line,
});
export type LeadWire = Of<typeof leadWire>;

const ask = byKind({
  /** A wire across two cavities, before the key goes on (A, B, C, F) or the engine starts (E). */
  bridge: object({ connector: id, bridge: pair(cavityRule, cavityRule) }),
  /** A pulse reader, an LED with a button: black lead on ground, signal lead on the pin of one system, red lead on a feed (D). */
  reader: object({
    connector: id,
    ground: cavityRule,
    signal: cavityRule,
    feed: line,
    readSeconds: seconds,
    clearSeconds: seconds,
  }),
  /** A button and an LED on board (D). */
  "unit-button": object({ where: text, readSeconds: seconds, clearSeconds: seconds }),
  /** The key goes on so many times within a time; it stays on after the last (G). */
  "key-cycle": object({ times: whole(2, 8), withinSeconds: seconds }),
  /** Buttons of the instrument, held together (H). */
  buttons: object({ buttons: list(line, { min: 1, max: 4 }), holdSeconds: seconds }),
  /** The key goes on, and that is all (an LED on the unit itself; J). */
  "key-on": object({ where: text }),
  /** A home-made lead on a round plug (K). */
  lead: object({ connector: id, wires: list(leadWire, { min: 1, max: 12 }), insulate: line }),
});
/** How the unit is made to talk. */
export type Ask = Of<typeof ask>;

const act = object({
  what: text,
  seconds,
  /** Code that the unit stores when it was not done. */
  missed: codeRule,
});
/** What has to be done when the unit asks for it in the engine-running test. */
export type Act = Of<typeof act>;

const submode = object({
  id,
  title: line,
  shows: oneOf("codes", "value", "erase"),
  /** For `erase`: how long the sub-mode button is held until dashes show. */
  holdSeconds: optional(seconds),
});
export type Submode = Of<typeof submode>;

const parameter = object({
  id,
  name: line,
  unit: oneOf("1/min", "kPa", "V", "°C", "%", "km/h"),
  at: whole(0, 250),
  bytes: oneOf(1, 2),
  factor: number(),
  offset: number(),
  /** Range that makes sense on a warm engine at idle. */
  idle: pair(number(), number()),
});
/** A value in the unit's block: `value = (byte or two bytes) * factor + offset`. */
export type Parameter = Of<typeof parameter>;

const tells = byKind({
  lamp: object({ dialect: words(60), act: optional(act) }),
  /** A number where the odometer was; a letter in front names the system (H). */
  text: object({
    systems: list(object({ system: id, prefix: pattern(/^[A-Za-z]?$/, "one letter or none"), digits: whole(1, 4) }), {
      min: 1,
      max: 12,
    }),
    /** Shown where nothing is stored. */
    none: line,
    next: line,
  }),
  /** A digital dash that walks through its modules (I). */
  modules: object({
    modules: list(object({ system: id, letter: pattern(/^[A-Z]$/, "one capital letter"), name: line }), {
      min: 1,
      max: 12,
    }),
    /** Sub-modes of each module, in the order in which the button steps through them. */
    submodes: list(submode, { min: 1, max: 8 }),
    digits: whole(1, 4),
    /** Shown where nothing is stored, such as dashes. */
    none: line,
    /** Buttons: next sub-mode, next module. */
    nextSubmode: line,
    nextModule: line,
  }),
  /** The lamp tells whether the readiness monitors are complete (J). */
  readiness: object({
    /** From key-on until the lamp tells. */
    waitSeconds: seconds,
    watchSeconds: seconds,
    /** So many blinks mean: not complete. */
    blinks: whole(1, 20),
    /** What the lamp does when they are. */
    complete: oneOf("steady", "goes-out"),
  }),
  /** Serial live data (K). */
  serial: object({
    protocols: list(object({ id, title: line, baud: whole(50, 1_000_000), years: pair(year, year) }), {
      min: 1,
      max: 8,
    }),
    sampleSeconds: seconds,
    parameters: list(parameter, { min: 1, max: 60 }),
  }),
});
/** What is seen when it talks. */
export type Tells = Of<typeof tells>;
type TellsBy<K extends Tells["kind"]> = Extract<Tells, { kind: K }>;
export type DashText = TellsBy<"text">;
export type ModuleWalk = TellsBy<"modules">;
export type ReadinessLamp = TellsBy<"readiness">;
export type SerialData = TellsBy<"serial">;

const timer = object({
  /** `hold`: a button is held; `wait`: nothing is touched; `warm-up`; `act`: it has to be done within the time. */
  kind: oneOf("hold", "wait", "warm-up", "act"),
  seconds,
  /** Said when the time is up. */
  then: text,
});
export type StepTimer = Of<typeof timer>;

const step = object({
  id,
  title: line,
  text,
  key: oneOf("off", "on", "run", "any"),
  wire: oneOf("in", "out", "any"),
  caution: optional(text),
  timer: optional(timer),
  /** The key is cycled by a beat. */
  beat: optional(object({ times: whole(2, 8), withinSeconds: seconds })),
});
export type Step = Of<typeof step>;

const seenInstead = oneOf("steady", "dark", "other-lamp", "gibberish");
/** What is seen instead when nothing answers. */
export type SeenInstead = Of<typeof seenInstead>;

const cause = object({
  id,
  text,
  /** What to look at, and what it shows. */
  look: text,
  /** How often it is this, against the others of the list. */
  weight: number(0.01, 100),
  /** It is likelier where this is seen, and hardly where something else is. */
  seen: optional(list(seenInstead, { min: 1, max: 4 })),
  /** Causes that, ruled out, make this one unlikely too. */
  unlikelyAfter: optional(list(id, { max: 12 })),
});
export type Cause = Of<typeof cause>;

/** Parts of a way of one's own of which nobody may have said anything. */
export const WAY_PARTS = ["way", "plug", "talk"] as const;
export type WayPart = (typeof WAY_PARTS)[number];

export const wayRule = object({
  id,
  title: line,
  /** Letter of the method, A to K; see the documentation of the pack format. */
  method: pattern(/^[A-K]$/, "a letter from A to K"),
  ask,
  tells,
  engine: oneOf("off", "running"),
  /** The unit answers only at working temperature. */
  engineWarm: optional(flag),
  preconditions: list(text, { max: 12 }),
  steps: list(step, { min: 1, max: 20, unique: "id" }),
  /** Why it may not answer. */
  nothingHappens: list(cause, { max: 14, unique: "id" }),
  /** Of a pack of one's own: what nobody has said of it, so that it is as it mostly is. */
  assumed: optional(list(oneOf(...WAY_PARTS), { max: WAY_PARTS.length, unique: true })),
});
/** One way to get at the codes. */
export type Way = Of<typeof wayRule>;
/** What a way says to whoever goes it. */
export type WayTexts = Pick<Way, "preconditions" | "steps" | "nothingHappens">;

export const trapRule = object({
  scope: optional(scopeRule),
  text,
  /** Nothing of this pack holds for such a vehicle. */
  outside: optional(flag),
});
/** Where the vehicle has something that leads astray. */
export type Trap = Of<typeof trapRule>;

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
