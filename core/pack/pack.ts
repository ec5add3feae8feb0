import { dialectCheck } from "../flash/dialect/dialect-check";
import { list, number, object, oneOf, optional, pair, pattern, whole, type Of } from "../schema/rule";
import { circuitRule } from "./circuit";
import { rideRule } from "./ride";
import { scopeRule, year } from "./validity";
import { trapRule, WAY_PARTS, wayRule } from "./way";
import { cavityRule, codeRule, id, line, text } from "./words";

export type { Scope } from "./validity";
export type * from "./way";

const output = object({
  id,
  name: line,
  /** What it does at key-on when all is well. */
  expect: line,
  /** The lamp or part's own feed, where it is not the unit's. */
  feed: optional(line),
});
export type Output = Of<typeof output>;

const system = object({
  id,
  name: line,
  /** SAE J1930 name of the unit, and the lamp that it drives. */
  unit: line,
  lamp: line,
  /** Fuse that feeds the unit, and the point where its ground is. Units that name the same one share it. */
  feed: optional(line),
  ground: optional(line),
  /** What else the unit drives, seen or heard at key-on. */
  drives: optional(list(output, { max: 12, unique: "id" })),
  caution: optional(text),
  /** Its codes stand in the table of another system (the same unit, asked in another way). */
  sameTableAs: optional(id),
});
export type System = Of<typeof system>;

const variant = object({
  id,
  model: line,
  years: pair(year, year),
  engines: list(object({ id: line, name: line, cylinders: whole(1, 16) }), { min: 1, max: 20 }),
  markets: list(line, { min: 1, max: 20 }),
  /** For each system that can be read: the way in, and what blinks where it is not the usual lamp. */
  systems: list(object({ system: id, way: id, scope: optional(scopeRule), lamp: optional(line) }), { max: 20 }),
  traps: optional(list(trapRule, { max: 20 })),
});
export type Variant = Of<typeof variant>;
/** What a pack is for, as somebody tells it. */
export type VehicleTold = Pick<Variant, "model" | "years" | "engines"> & { make: string };

export const PLACES = ["under-dash", "glovebox", "engine-bay", "under-seat", "boot", "console"] as const;
export type Place = (typeof PLACES)[number];

/** `unknown`: nobody has said; never joined to anything. */
const role = oneOf("ground", "test", "power", "signal", "airbag", "empty", "unknown");
export type CavityRole = Of<typeof role>;

const cavity = object({
  id: cavityRule,
  at: pair(number(0, 2000), number(0, 2000)),
  role,
  /** For `test` and `signal`: the system whose unit listens or talks on this line. */
  system: optional(id),
  wire: optional(line),
});
export type Cavity = Of<typeof cavity>;

export const READY_SHAPES = ["block", "round-ended", "round", "trapezoid"] as const;

const connector = object({
  id,
  name: line,
  /** Size of the drawing, in its own units; cavities are placed in it, seen looking into the socket. */
  size: pair(number(10, 2000), number(10, 2000)),
  shape: oneOf(...READY_SHAPES, "own"),
  /** Where the shape is its own: its path, seen looking into the socket, and how somebody would call it ("D-shaped"). */
  outline: optional(
    object({
      path: pattern(/^[MLHVCSQTAZmlhvcsqtaz\d\s,.-]{1,4000}$/, "commands and numbers of an SVG path"),
      words: line,
    }),
  ),
  notch: oneOf("top", "bottom", "left", "right", "none"),
  colour: line,
  where: text,
  /** Other places where it was fitted. */
  orElse: optional(list(text, { max: 8 })),
  place: oneOf(...PLACES),
  /** Marks on it or in its lid. */
  symbols: optional(list(line, { max: 8 })),
  /** What its shape promises and does not keep. */
  lookAlike: optional(text),
  cavities: list(cavity, { max: 60, unique: "id" }),
});
export type Connector = Of<typeof connector>;

const entry = object({
  code: codeRule,
  kind: oneOf("fault", "status"),
  scope: optional(scopeRule),
  /** The circuit that the code names; never a part. */
  circuit: line,
  title: line,
  /** Where the source tells it. */
  sets: optional(text),
  affects: optional(text),
  /** Can the vehicle be driven with it: on, gently and no further than to where it is mended, or not at all? */
  drive: optional(oneOf("on", "gently", "stop")),
  lookFirst: list(text, { max: 8 }),
  /** A change on the vehicle that explains it: with that it is expected, and no fault to chase. */
  expectedIf: optional(line),
  /** Detailed faults behind one vague number, and what tells them apart. */
  details: optional(list(object({ title: line, tell: text }), { min: 1, max: 12 })),
  /** What must not be done, or done first, with this fault: shown before anything else. */
  caution: optional(text),
  /** Comes before every other code: what the unit says besides it cannot be trusted. */
  first: optional(text),
});
export type Entry = Of<typeof entry>;
export type Drivability = NonNullable<Entry["drive"]>;

const table = object({ id, system: id, scope: optional(scopeRule), entries: list(entry, { max: 1000 }) });
export type Table = Of<typeof table>;

const cost = oneOf("radio-code", "immobiliser", "clock", "learned-idle", "readiness", "time");
export type CostId = Of<typeof cost>;

const relearn = object({
  id,
  title: line,
  how: text,
  /** So long it takes at least. */
  seconds: number(1, 7200),
});
/** Something that the unit, or the vehicle, has to learn anew after a clear. */
export type Relearn = Of<typeof relearn>;

const clearWay = object({
  id,
  title: line,
  system: id,
  /** Systems whose memories go with it; without, that of `system` alone. */
  wipes: optional(list(id, { min: 1, max: 40, unique: true })),
  /** It wipes only the code that was shown last. */
  each: optional(oneOf("code")),
  kind: oneOf("fuse", "battery", "button", "submode", "rides", "starts", "adapter"),
  /**
   * What is done, whatever is done it to: something is held so long, or kept off so long, or the steps are gone through, or
   * the vehicle is used so long, or used so often (`count`), until the unit wipes itself.
   */
  does: oneOf("hold", "off", "step-through", "drive", "count"),
  /** The pack's figure; what is shorter does not count. Where it is counted: so long the engine runs each time, at least. */
  seconds: number(1, 7200),
  /** Where it is counted, one of the two: so many starts without the fault, or so many rides without it that hold what is asked. */
  starts: optional(whole(1, 200)),
  ride: optional(rideRule),
  what: text,
  /** The mistake that people make here. */
  trap: optional(text),
  costs: list(object({ id: cost, text }), { max: 10 }),
  steps: list(text, { min: 1, max: 12 }),
  afterwards: list(text, { max: 8 }),
  /** What has to be learned anew afterwards, in its order. */
  relearn: optional(list(relearn, { max: 8, unique: "id" })),
  caution: optional(text),
});
export type ClearWay = Of<typeof clearWay>;

const monitor = object({
  id,
  /** SAE J1979 name. */
  name: line,
  /** Under which conditions it runs, as one would drive for it. */
  needs: text,
  /** So many drives that hold those until it is complete: at least, and where it takes long. */
  drives: pair(whole(1, 60), whole(1, 60)),
});
/** A self-test of the unit that has to have run before an inspection. */
export type Monitor = Of<typeof monitor>;

const proving = object({
  /** How the vehicle must be run before the re-read says anything. */
  idleMinutes: number(0, 120),
  drive: text,
  /** How long that drive takes at least, minutes; where no pack says, see `proving/ran`. */
  driveMinutes: optional(number(1, 600)),
  /** What such a drive must hold, where a log of it is held against it. */
  ride: optional(rideRule),
  readiness: text,
  /** What has to have run before the vehicle is ready for inspection. */
  monitors: optional(list(monitor, { min: 1, max: 16, unique: "id" })),
  /** From this model year on a code can be permanent: no clear wipes it, only the unit itself once it has seen that the fault is gone. */
  permanentFrom: optional(year),
});
export type Proving = Of<typeof proving>;

/** Parts of a pack of one's own of which somebody who has the vehicle may know nothing. */
const PACK_PARTS = [...WAY_PARTS, "clears", "proving"] as const;
export type PackPart = (typeof PACK_PARTS)[number];

const own = object({
  /** Parts that nobody has said, so that they are as they mostly are. */
  assumed: list(oneOf(...PACK_PARTS), { max: PACK_PARTS.length, unique: true }),
  /** What its author has to say of it. */
  note: optional(text),
});

export const PACK_VERSION = 1;

export const packRule = object({
  format: oneOf("klinko-pack"),
  version: oneOf(PACK_VERSION),
  id,
  make: line,
  title: line,
  revision: line,
  source: text,
  systems: list(system, { max: 12, unique: "id" }),
  dialects: list(dialectCheck, { max: 12, unique: "id" }),
  connectors: list(connector, { max: 20, unique: "id" }),
  ways: list(wayRule, { max: 20, unique: "id" }),
  variants: list(variant, { max: 60, unique: "id" }),
  tables: list(table, { max: 40, unique: "id" }),
  clears: list(clearWay, { max: 20, unique: "id" }),
  proving,
  /** What circuits share, and how their parts are measured; without, what is mostly so stands in. */
  circuits: optional(list(circuitRule, { max: 400 })),
  /** Of a pack that somebody has made in the app. */
  own: optional(own),
});
/** One make's knowledge, as an open file. Everything that differs between makes is data here, never code. */
export type Pack = Of<typeof packRule>;
