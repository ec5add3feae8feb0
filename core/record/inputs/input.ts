import type { Dialect } from "../../flash/dialect/dialect";
import type { Called, Evidence, Filmed, Pressed } from "../../flash/seen/evidence";
import type { Mark } from "../mark";

/** What was put in, as far as the decoder is told of it. */
export interface Seen {
  marks: readonly Mark[];
  counts?: string;
  levels?: { t: number[]; y: number[] };
  corrected?: boolean;
  pauses: readonly (readonly [from: number, to: number])[];
  keyOn?: boolean;
}

export type Spoken = Pick<Dialect, "rest" | "digits">;

/** A key of the pad: `code` as the browser names it, `kind` of the marks that it makes. */
export interface PadKey {
  code: string;
  kind?: Mark["kind"];
  label: string;
  keyName: string;
}

/** One way in which the answer of a vehicle is put in: what it needs, what it gives, how it is kept, and its words. */
export interface InputKind {
  /** How what was put in is known: `seen` flash by flash, `called` out as numbers, `copied` off a display, `sent` with a sum that proves it. */
  known: "seen" | "called" | "copied" | "sent";
  /** How it stands in a sentence of evidence, and in short beside its time. */
  said: string;
  short: string;
  /** Inputs in which a lamp is watched; the others have pages of their own. */
  lamp?: LampWatch;
}

export interface LampWatch {
  label: string;
  /** What to do, before anything was put in. */
  start: string;
  /** Who watches: a machine picture by picture, a hand that marks each flash, or nobody, since it was written down before. */
  by: "picture" | "hand" | "file" | "numbers";
  /** Can a lamp of this dialect be watched so? */
  reads: (dialect: Pick<Dialect, "advance" | "digits">) => boolean;
  /** Also where no dialect is known. */
  anyLamp: boolean;
  /** Only marks that have an end are kept. */
  lengths: boolean;
  /** Keys of the pad, for a hand. */
  pad: (dialect: Pick<Dialect, "digits">) => readonly PadKey[];
  /** What the decoder is given. @param until end of watching, ms from its start */
  evidence: (seen: Seen, until: number, dialect: Spoken) => Evidence | Filmed | Pressed | Called;
}

/** The end of watching, and never before what was marked last, ms. */
export const untilLast = (marks: readonly Mark[], until: number): number =>
  marks.reduce((last, m) => Math.max(last, m.up ?? m.t), until);

/**
 * What of a lamp is known for sure when watching ends in the middle of a flash: all before it. How long that flash lasts, and
 * so what it is, nobody has seen; that the lamp stayed at rest from there on would not be true.
 * @returns the marks that have an end, and when watching ended for them, ms
 */
export function seenWhole(marks: readonly Mark[], until: number): { marks: Mark[]; until: number } {
  const ended = marks.filter((m) => m.up !== undefined);
  const begun = marks.filter((m) => m.up === undefined).map((m) => m.t);
  const open = Math.max(...begun);
  const last = ended.reduce((t, m) => Math.max(t, m.t), -Infinity);
  return { marks: ended, until: open > last ? Math.min(until, open) : until };
}

/** Marks with an end, as the lamp's edges. */
export function edgesOf(seen: Seen, until: number, { rest }: Spoken): Evidence {
  const away = rest === "lit" ? 0 : 1;
  const edges: [number, 0 | 1][] = [[0, (1 - away) as 0 | 1]];
  const { marks, until: end } = seenWhole(seen.marks, until);
  for (const m of marks.sort((a, b) => a.t - b.t)) {
    if (m.t === 0) edges.length = 0;
    edges.push([m.t, away], [m.up!, (1 - away) as 0 | 1]);
  }
  if (edges[0]?.[0] !== 0) edges.unshift([0, (1 - away) as 0 | 1]);
  return { mode: "edges", edges, until: untilLast(marks, end), pauses: seen.pauses };
}
