import type { Decoded } from "./answer";
import type { Showing } from "./reading";
import type { Show, Unit } from "./show";

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
  /** It lay in the watch from its first flash to its last, with rest enough around it to know. */
  full: boolean;
}

export type Placed = Pick<Decoded, "onsets" | "assignment" | "missed">;

/**
 * One way of looking at a lamp, holding what was seen: how well a show explains it, and how. The search and the judgement
 * know nothing else of the evidence.
 */
export interface View<P> {
  /** Readings to propose from, each set with what it assumes (a tempo, an observer); `assume` makes it so. */
  firsts: readonly { readings: readonly (readonly Showing[])[]; assume: () => void }[];
  prepare: (show: Show) => P;
  score: (prepared: P, against?: Score) => Score;
  /** Log probability with every kind of observer weighed in, as far as the view knows kinds. */
  weigh: (prepared: P) => number;
  /** Fits what the view assumes (tempo, observer) to a show; false when nothing changed. */
  refit: (prepared: P) => boolean;
  spans: (prepared: P) => Span[];
  place: (prepared: P) => Placed;
  /** Log probability of the same without any dialect. */
  noise: number;
  /** State at rest as far as the evidence tells. */
  litAtEnd: boolean | null;
  readonly tempo: number;
  /** How many marks or runs there are. */
  count: number;
}
