import type { Evidence } from "./evidence";
import fitted from "./observers.json";

/**
 * How whoever watches errs. One way of watching has several observers, from careful to hurried; which one it was
 * is not known and is weighed by the decoder like everything else.
 */
export interface Observer {
  /** Standard deviation of one onset, ms (reaction time, frame raster). */
  onsetSd: number;
  /** Reaction time: constant for one person, so it only moves all marks alike; its typical value and spread, ms. */
  reaction: number;
  reactionSd: number;
  /** Standard deviation of the end of a mark, ms; 0 where ends are not seen. */
  endSd: number;
  /** Probability that a flash is missed. */
  miss: number;
  /** Probability that the pause between two flashes is missed, so that they are seen as one. */
  merge: number;
  /** Spurious marks per ms. */
  extra: number;
  /** Probability that a flash is marked twice (a key that bounced, a finger that doubted). */
  double: number;
  /** Probability that long is called short or the other way. */
  misnamed: number;
  /** How late an onset may still come in, ms, at the end of watching. */
  lag: number;
}

/** Each single interval of a control unit varies by about this share (format: "about 3 %"). */
export const INTERVAL_JITTER = 0.03;

/**
 * The observers of each way of watching, careful first. Their constants come from `klinko fit`, which takes them from
 * made-up cases; see `docs/decoder.md`.
 */
export const OBSERVERS: Record<Evidence["mode"], readonly Observer[]> = fitted;

const film = { misnamed: 0.01, reaction: 0, reactionSd: 0 };

/** Marks taken out of a film: from a clear one to one in bright daylight. They only serve to propose lists. */
export const FILM_OBSERVERS: readonly Observer[] = [
  { ...film, onsetSd: 14, endSd: 20, miss: 1e-3, extra: 1e-6, double: 1e-4, lag: 60, merge: 0.003 },
  { ...film, onsetSd: 28, endSd: 45, miss: 0.03, extra: 2e-5, double: 0.01, lag: 80, merge: 0.02 },
  { ...film, onsetSd: 40, endSd: 80, miss: 0.1, extra: 1.2e-4, double: 0.05, lag: 100, merge: 0.06 },
];

/** How somebody errs who calls runs out as numbers. */
export interface RunObserver {
  /** Probability that a number is wrong (mostly by one). */
  wrong: number;
  /** Probability that a run is not called, and rate of numbers that were never shown. */
  skip: number;
  extra: number;
  /** How common this kind of person is. */
  share: number;
}

export const RUN_OBSERVERS: readonly RunObserver[] = [
  { wrong: 2e-3, skip: 5e-4, extra: 5e-4, share: 0.3 },
  { wrong: 0.026, skip: 1e-3, extra: 1e-3, share: 0.3 },
  { wrong: 0.11, skip: 4e-3, extra: 4e-3, share: 0.4 },
];
