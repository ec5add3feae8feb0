import {
  byKind,
  either,
  list,
  nullable,
  number,
  object,
  oneOf,
  optional,
  pattern,
  whole,
  word,
  type Of,
} from "../../schema/rule";
import { onceFor } from "./once";

/** The shortest flash, and the shortest rest between two, that a dialect may have, ms: the decoder tells nothing shorter from a slip. */
export const SHORTEST_MS = 120;

const ms = number(0, 600_000);
const mark = number(SHORTEST_MS, 600_000);
const times = whole(1, 20);

const meaning = oneOf("cylinders", "act", "separator", "clear");
export type GroupMeaning = Of<typeof meaning>;

const memory = oneOf("stored", "live");
export type Memory = Of<typeof memory>;

const phase = byKind({
  code: object({ code: pattern(/^\d{1,4}$/), times, means: oneOf("mode", "end", "pass") }),
  stored: object({ times, memory }),
  group: object({ flashes: either(whole(1, 40), oneOf("cylinders/2")), means: meaning, beforeMs: ms, afterMs: ms }),
  steady: object({ lamp: oneOf("lit", "dark"), ms }),
  even: object({ onMs: mark, offMs: mark }),
});
export type Phase = Of<typeof phase>;

/** What a dialect looks like; sizes are bounded, so that a hostile one cannot make an endless show. */
export const dialectRule = object({
  id: word(60),
  title: word(200),
  /** What the lamp does between flashes: with `lit`, a flash is a dark mark in a lit lamp. */
  rest: oneOf("dark", "lit"),
  marks: object({ short: mark, long: optional(mark) }),
  gaps: object({ flash: mark, digit: ms, repeat: ms, code: ms, pass: ms }),
  digits: object({
    style: oneOf("counted", "long-short", "total"),
    count: list(whole(1, 4), { min: 1, max: 4 }),
    zero: optional(nullable(whole(10, 20))),
  }),
  /** The highest code value that the style can show. */
  max: whole(1, 9999),
  order: oneOf("ascending", "stored"),
  phases: list(phase, { min: 1, max: 20 }),
  /** Index of the phase to which the show returns after the last one; null: the lamp returns to rest. */
  loopFrom: nullable(whole(0)),
  advance: oneOf("self", "button"),
  /** What stands in place of each `stored` phase whose memory holds no fault; null: nothing. */
  empty: nullable(phase),
});
/** How one family of control units talks through its lamp. Times are milliseconds at the nominal tempo. */
export type Dialect = Of<typeof dialectRule>;

/** The faults in each memory, in the order stored. A memory that is missing is empty. */
export type Faults = Partial<Record<Memory, readonly string[]>>;

/** The memories that a dialect shows, in the order in which their phases first come. */
export function memoriesOf(dialect: Dialect): Memory[] {
  const seen = dialect.phases.flatMap((p) => (p.kind === "stored" ? [p.memory] : []));
  return [...new Set(seen)];
}

/** Codes that belong to the dialect itself (lead-in, end mark, pass code) and are never a fault. */
export const fixedCodes = onceFor((dialect: Dialect): readonly string[] => {
  const phases = dialect.empty ? [...dialect.phases, dialect.empty] : dialect.phases;
  const fixed = phases.flatMap((p) => (p.kind === "code" ? [p.code] : []));
  if (dialect.digits.style === "total")
    for (const p of phases) if (p.kind === "group" && p.means === "clear") fixed.push(String(p.flashes));
  return [...new Set(fixed)];
});

/** Does the show depend on the number of cylinders? */
export function countsCylinders(dialect: Dialect): boolean {
  return dialect.phases.some((p) => p.kind === "group" && p.flashes === "cylinders/2");
}
