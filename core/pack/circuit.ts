import { list, number, object, oneOf, optional, pair, pattern, type Of } from "../schema/rule";
import { id, line } from "./words";

/** How a circuit works, and so how it can fail. */
const CIRCUIT_KINDS = [
  "thermistor",
  "position",
  "pressure",
  "air-flow",
  "oxygen",
  "pickup",
  "knock",
  "switch",
  "actuator",
  "valve",
  "recirculation",
  "mixture",
  "supply",
  "reference",
  "unit",
  "other",
] as const;
export type CircuitKind = (typeof CIRCUIT_KINDS)[number];

const MEASURED = ["V", "ohm", "%", "bar"] as const;
export type Measured = (typeof MEASURED)[number];

const band = pair(number(), number());

const limit = object({
  /** What is measured: the part itself, what comes to its plug, the duty cycle by which the unit works it, or the vacuum that it holds. */
  of: oneOf("part", "reference", "ground", "feed", "duty", "vacuum"),
  unit: oneOf(...MEASURED),
  /** Between which pins, and how it stands: "across its two pins, plug off". */
  at: line,
  /** Lowest and highest good value. */
  good: optional(band),
  /** Where it goes with temperature: good values at so many °C, rising; between two of them it is interpolated. */
  curve: optional(list(object({ celsius: number(-60, 1200), good: band }), { min: 2, max: 20 })),
});
export type Limit = Of<typeof limit>;

/** What a pin of a part's plug carries. */
const carries = oneOf("signal", "ground", "5 V", "feed", "control", "shield");
export type PinCarries = Of<typeof carries>;

const pin = object({
  /** As it stands on the plug. */
  name: pattern(/^[A-Za-z0-9+-]{1,3}$/, "one to three letters or figures"),
  carries,
  /** Colour of its wire. */
  wire: optional(line),
});
export type Pin = Of<typeof pin>;

/** What a circuit shares with others, and how its part is measured: what the codes of several circuits can have in common. */
export const circuitRule = object({
  system: id,
  /** As its codes name it. */
  circuit: line,
  kind: optional(oneOf(...CIRCUIT_KINDS)),
  /** What switches on its part: a fuse or relay. Circuits that name the same one share it. */
  feed: optional(line),
  /** The ground that its part uses. */
  ground: optional(line),
  /** The reference voltage of its sensor. */
  reference: optional(line),
  /** A plug or splice on the way to the unit that it shares. */
  joint: optional(line),
  /** What its wires run past. */
  beside: optional(oneOf("exhaust", "water", "moving")),
  /** Pins of its part's plug in their order, seen looking into the loom's half; without, as such parts mostly have them. */
  pins: optional(list(pin, { min: 1, max: 8, unique: "name" })),
  limits: optional(list(limit, { max: 8 })),
});
export type Circuit = Of<typeof circuitRule>;
