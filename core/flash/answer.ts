import type { Memory } from "./dialect/dialect";
import type { Unit } from "./dialect/show";

export type State = "codes" | "none" | "dark" | "steady" | "unclear";

/** What a reading says, and how surely. Certainties are posterior probabilities, 0 to 1. */
export interface Decoded {
  state: State;
  /** Faults shown in full, in the order shown; the union where there are two memories. */
  codes: string[];
  memories: Partial<Record<Memory, string[]>>;
  cylinders: number | null;
  /** Every fault of the list was shown in full: nothing more to come. */
  complete: boolean;
  completeness: number;
  /** A show that does not go round was seen to its end: watching on tells nothing. */
  over: boolean;
  confidence: number;
  codeConfidence: Record<string, number>;
  /** The same for each memory on its own, where there are two. */
  memoryConfidence: Partial<Record<Memory, Record<string, number>>>;
  /** The best rival that says something else. */
  runnerUp: { codes: string[]; state: State; probability: number } | null;
  /** Factor of this unit on the dialect's nominal times. */
  tempo: number;
  /** Onsets of the marks that were used, ms, and for each what it belongs to; null for a spurious one. */
  onsets: number[];
  assignment: (Assigned | null)[];
  /** Flashes that should have been seen and were not, with the time at which they should have come. */
  missed: (Assigned & { at: number; ms: number })[];
  /** How often each code was shown in full and something of it marked. */
  timesShown: Record<string, number>;
  /** In how many rounds of the list each code was shown in full; of two memories that hold it, in the one that showed it less. */
  roundsShown: Record<string, number>;
  /** How often each code was shown in full and marked without a slip, by memory: what was heard so was not filled in by anyone. */
  exactShown: Partial<Record<Memory, Record<string, number>>>;
  /** A round of the list (or the whole show, where it is shown once) was marked without a slip, and its end was seen. */
  wholeRound: boolean;
  /** Numbers that somebody counted in the head: the same slip is soon made two times alike. One a digit, or a run for a whole code. */
  called?: "digits" | "runs";
  /** Why nothing is read from the marks, or null where something is: they only blink in even time, or have no rhythm of the dialect's. */
  misfit: "even" | "foreign" | null;
}

/** A mark's place in the show. */
export interface Assigned {
  unit: Unit;
  digit: number;
  /** Each digit is a run of its own (else one run is the whole code). */
  counted: boolean;
  /** Flash of that digit, from 0. */
  flash: number;
  /** Round of the list, from 0 for the first one seen. */
  pass: number;
  /** Which showing since watching began, from 0; marks of one showing share it. */
  showing: number;
}

/** An answer that claims nothing. */
export function blankAnswer(onsets: readonly number[], tempo: number): Decoded {
  return {
    state: "unclear",
    codes: [],
    memories: {},
    cylinders: null,
    complete: false,
    completeness: 0,
    over: false,
    confidence: 0,
    codeConfidence: {},
    memoryConfidence: {},
    runnerUp: null,
    tempo,
    onsets: [...onsets],
    assignment: onsets.map(() => null),
    missed: [],
    timesShown: {},
    roundsShown: {},
    exactShown: {},
    wholeRound: false,
    misfit: null,
  };
}
