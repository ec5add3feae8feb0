/** How one family of control units talks through its lamp. Times are milliseconds at the nominal tempo. */
export interface Dialect {
  id: string;
  title: string;
  /** What the lamp does between flashes: with `lit`, a flash is a dark mark in a lit lamp. */
  rest: "dark" | "lit";
  marks: { short: number; long?: number };
  gaps: { flash: number; digit: number; repeat: number; code: number; pass: number };
  digits: { style: "counted" | "long-short" | "total"; count: number[]; zero?: number | null };
  /** The highest code value that the style can show. */
  max: number;
  order: "ascending" | "stored";
  phases: Phase[];
  /** Index of the phase to which the show returns after the last one; null: the lamp returns to rest. */
  loopFrom: number | null;
  advance: "self" | "button";
  /** What stands in place of each `stored` phase whose memory holds no fault; null: nothing. */
  empty: Phase | null;
}

export type Memory = "stored" | "live";

export type Phase =
  | { kind: "code"; code: string; times: number; means: "mode" | "end" | "pass" }
  | { kind: "stored"; times: number; memory: Memory }
  | { kind: "group"; flashes: number | "cylinders/2"; means: GroupMeaning; beforeMs: number; afterMs: number }
  | { kind: "steady"; lamp: "lit" | "dark"; ms: number }
  | { kind: "even"; onMs: number; offMs: number };

export type GroupMeaning = "cylinders" | "act" | "separator" | "clear";

/** The faults in each memory, in the order stored. A memory that is missing is empty. */
export type Faults = Partial<Record<Memory, readonly string[]>>;

/** The memories that a dialect shows, in the order in which their phases first come. */
export function memoriesOf(dialect: Dialect): Memory[] {
  const seen = dialect.phases.flatMap((p) => (p.kind === "stored" ? [p.memory] : []));
  return [...new Set(seen)];
}

/** Codes that belong to the dialect itself (lead-in, end mark, pass code) and are never a fault. */
export function fixedCodes(dialect: Dialect): string[] {
  const phases = dialect.empty ? [...dialect.phases, dialect.empty] : dialect.phases;
  const fixed = phases.flatMap((p) => (p.kind === "code" ? [p.code] : []));
  if (dialect.digits.style === "total")
    for (const p of phases) if (p.kind === "group" && p.means === "clear") fixed.push(String(p.flashes));
  return [...new Set(fixed)];
}

/** Does the show depend on the number of cylinders? */
export function countsCylinders(dialect: Dialect): boolean {
  return dialect.phases.some((p) => p.kind === "group" && p.flashes === "cylinders/2");
}
