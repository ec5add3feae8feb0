import type { Levels } from "../../lamp/levels";
import type { Dialect } from "../dialect/dialect";

/** What was seen of a lamp, in one of the ways in which it can be watched. Times in ms; watching starts at 0. */
export type Evidence = (
  | { mode: "edges"; edges: readonly (readonly [t: number, lit: 0 | 1])[] }
  | { mode: "holds"; holds: readonly (readonly [down: number, up: number])[] }
  | { mode: "taps"; taps: readonly Tap[] }
) & {
  until: number;
  /** Stretches in which nobody watched; the show went on. */
  pauses?: readonly (readonly [from: number, to: number])[];
};

/** The brightness of a small patch of picture at each frame of a film. */
export interface Filmed {
  mode: "levels";
  levels: Levels;
  until: number;
}

/**
 * Runs as somebody called them out: one number a digit or group; in dialects with long flashes the pair of long and short
 * ones; where a button shows one code a press, one number a press. There are no times.
 */
export interface Called {
  mode: "counts";
  counts: readonly (number | readonly [long: number, short: number])[];
  /** Counting began as the key went on, not somewhere in the list. */
  withKey?: boolean;
}

/** Dialects that show one code a press: what followed each press, times on one axis. */
export interface Pressed {
  mode: "button";
  presses: readonly Press[];
}

export interface Press {
  press: number;
  edges?: readonly (readonly [t: number, lit: 0 | 1])[];
  taps?: readonly Tap[];
  /** When watching ended, for the last press. */
  until: number;
}

/** One press a flash; with two keys, whether the flash was short or long. */
export type Tap = number | readonly [t: number, kind: "s" | "l"];

/** Evidence brought to one shape: a row of marks with onsets in order. */
export interface Track {
  mode: Evidence["mode"];
  /** Onsets, ascending. */
  onset: Float64Array;
  /** Lengths; NaN where not known (taps). */
  length: Float64Array;
  /** What the person said of it: 0 nothing, 1 short, 2 long. */
  said: Uint8Array;
  until: number;
  /** For each mark: the pause that ended between the mark before and it, or null. */
  pause: (readonly [from: number, to: number] | null)[];
  /** Is the lamp lit at the end? null where the evidence does not tell. */
  litAtEnd: boolean | null;
}

/** Marks and rests shorter than this are glitches, ms, where those of the dialect are long enough for that. */
const GLITCH_MS = 140;
/** The shortest mark or rest of a dialect, seen through the quickest tempo and an edge that is late, keeps at least this share. */
const QUICKEST = 0.55;

/** What no mark and no rest of the dialect can be as short as, ms. */
const glitchOf = ({ marks, gaps }: Spoken): number => Math.min(GLITCH_MS, QUICKEST * Math.min(marks.short, gaps.flash));

/** What of a dialect tells its marks from glitches. */
export type Spoken = Pick<Dialect, "rest" | "marks" | "gaps">;
/** A held key that is let go for less than this slipped; a late release can make a true pause nearly as short. */
const SLIP_MS = 25;

/**
 * Brings evidence to a row of marks: what is not finite is dropped, times are put in order, glitches go, and
 * a mark that was already on at the start or still on at the end is left out, since its length is not known.
 */
export function trackOf(evidence: Evidence, dialect: Spoken): Track {
  if (evidence.mode === "taps") {
    const taps = evidence.taps
      .map((tap) => (typeof tap === "number" ? { t: tap, said: 0 } : { t: tap[0], said: tap[1] === "l" ? 2 : 1 }))
      .filter((tap) => Number.isFinite(tap.t))
      .sort((a, b) => a.t - b.t);
    return pack(
      "taps",
      taps.map((tap) => ({ start: tap.t, length: NaN, said: tap.said })),
      evidence,
      evidence.until,
      null,
    );
  }
  if (evidence.mode === "holds") {
    const holds = evidence.holds
      .map(([down, up]) => ({ start: down, end: up }))
      .filter((h) => Number.isFinite(h.start) && Number.isFinite(h.end) && h.end > h.start)
      .sort((a, b) => a.start - b.start);
    const marks = joinGlitches(holds, SLIP_MS).map((h) => ({
      start: h.start,
      length: h.end - h.start,
      said: 0,
    }));
    return pack("holds", marks, evidence, evidence.until, null);
  }
  return fromEdges(evidence, evidence.edges, dialect);
}

function fromEdges(evidence: Evidence, edges: readonly (readonly [number, 0 | 1])[], dialect: Spoken): Track {
  const away = dialect.rest === "lit" ? 0 : 1;
  const glitch = glitchOf(dialect);
  const sorted = edges
    .map(([t, lit]) => ({ t, lit }))
    .filter((e) => Number.isFinite(e.t))
    .sort((a, b) => a.t - b.t);
  const spans: { start: number; end: number }[] = [];
  let open: { start: number } | null = null;
  for (const e of sorted) {
    if (e.lit === away) open ??= { start: e.t };
    else if (open) {
      spans.push({ ...open, end: e.t });
      open = null;
    }
  }
  // A short pause within a mark is a glitch of the watching: join; then what is too short to be a mark goes.
  const joined = joinGlitches(spans, glitch);
  const begin = sorted[0]?.t ?? 0;
  let end = evidence.until;
  if (open) {
    const last = joined.at(-1);
    // Still on at the end: its length is unknown, so watching ends for us where it began.
    end = last && open.start - last.end < glitch ? joined.pop()!.start : open.start;
  }
  const marks = joined
    .filter((s) => s.end - s.start >= glitch && s.start > begin)
    .map((s) => ({ start: s.start, length: s.end - s.start, said: 0 }));
  const lastState = sorted.at(-1)?.lit;
  return pack("edges", marks, evidence, end, lastState === undefined ? null : lastState === 1);
}

function joinGlitches<S extends { start: number; end: number }>(spans: readonly S[], shorter: number): S[] {
  const joined: S[] = [];
  for (const s of spans) {
    const last = joined.at(-1);
    if (last && s.start - last.end < shorter) last.end = s.end;
    else joined.push({ ...s });
  }
  return joined;
}

function pack(
  mode: Track["mode"],
  marks: { start: number; length: number; said: number }[],
  evidence: Evidence,
  until: number,
  litAtEnd: boolean | null,
): Track {
  const last = marks.at(-1)?.start ?? 0;
  return {
    mode,
    onset: Float64Array.from(marks, (m) => m.start),
    length: Float64Array.from(marks, (m) => m.length),
    said: Uint8Array.from(marks, (m) => m.said),
    pause: marks.map(
      (m, i) =>
        evidence.pauses?.findLast(([from, to]) => to <= m.start && from >= (marks[i - 1]?.start ?? 0) && to > from) ??
        null,
    ),
    until: Number.isFinite(until) ? Math.max(until, last) : last,
    litAtEnd,
  };
}

/** The first marks of a row, watched until the next one came. */
export function firstOf(track: Track, most: number): Track {
  if (track.onset.length <= most) return track;
  return {
    ...track,
    onset: track.onset.slice(0, most),
    length: track.length.slice(0, most),
    said: track.said.slice(0, most),
    pause: track.pause.slice(0, most),
    until: track.onset[most],
    litAtEnd: null,
  };
}
