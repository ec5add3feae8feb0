import type { Decoded } from "../answer";
import type { Showing } from "../walk/reading";
import type { Show, Unit } from "../dialect/show";

/** Log probability of what was seen, and where in it that was lost. */
export interface Score {
  logLik: number;
  /** After each mark or run; a rival that has fallen far behind this can be given up. */
  prefix: Float64Array;
  /** How many marks or runs were gone over until it was known or given up. */
  cost: number;
}

/** One showing that fell into the time of watching. */
export interface Span {
  unit: Unit;
  /** Round of the list. */
  pass: number;
  /** Probability that it lay in the watch from its first flash to its last, with rest enough around it to know. */
  full: number;
  /** Something of it was marked; else it is only known to have come by, in a pause or while nobody marked. */
  marked: boolean;
  /** All of it was marked as it is shown: nothing missed, nothing put in, nothing called by the wrong length. */
  exact: boolean;
}

export type Placed = Pick<Decoded, "onsets" | "assignment" | "missed">;

/**
 * One way of looking at a lamp, holding what was seen: how well a show explains it, and how. The search and the judgement
 * know nothing else of the evidence. All functions are pure.
 *
 * `S` is what the view has to assume (a tempo, a kind of observer); `P` a show prepared under such a setting.
 */
export interface View<S, P> {
  /** Settings to begin with, the likeliest first. */
  settings: readonly S[];
  /** Readings to propose lists from, under a setting. */
  readings: (setting: S) => readonly (readonly Showing[])[];
  prepare: (show: Show, setting: S) => P;
  score: (prepared: P, against?: Score) => Score;
  /** Log probability with every kind of observer weighed in, as far as the view knows kinds. */
  weigh: (prepared: P) => number;
  /** A setting that fits a show better, or null where there is none. */
  refit: (prepared: P) => S | null;
  spans: (prepared: P) => Span[];
  place: (prepared: P) => Placed;
  settingOf: (prepared: P) => S;
  tempoOf: (prepared: P) => number;
  /**
   * Log probability of what was seen under the dialect's grammar whatever the list, brought to the scale of `prepared`'s own
   * score. A list that explains less was the wrong one, even if it is the best that was tried. -Infinity where not known.
   */
  anyList: (prepared: P, score: Score) => number;
  /** Log probability of the same without any dialect. It takes from every list's certainty. */
  noise: number;
  /** What explains less than this does not follow the dialect at all. */
  foreign: number;
  /** Log probability of the same if it only blinks in even time, as many things do that are no trouble lamp. */
  even: number;
  /** State at rest as far as the evidence tells. */
  litAtEnd: boolean | null;
  /** How many marks or runs there are. */
  count: number;
  /** How many times more rivals than usual are gone into: where a list is cheap to hold against what was seen, more can be. */
  breadth: number;
}
