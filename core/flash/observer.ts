import type { Evidence } from "./evidence";

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

const base = { merge: 0.003, misnamed: 0.01, reaction: 0, reactionSd: 0 };
const person = { ...base, reaction: 250, reactionSd: 80 };

/** The observers of each way of watching, careful first. */
export const OBSERVERS: Record<Evidence["mode"], readonly Observer[]> = {
  edges: [
    { ...base, onsetSd: 11, endSd: 11, miss: 2e-4, extra: 1e-7, double: 1e-5, lag: 40 },
    { ...base, onsetSd: 20, endSd: 20, miss: 0.018, extra: 6e-7, double: 1e-4, lag: 60 },
  ],
  holds: [
    { ...person, onsetSd: 14, endSd: 14, miss: 2e-4, extra: 1e-7, double: 1e-4, lag: 350 },
    { ...person, onsetSd: 62, endSd: 62, miss: 0.01, extra: 3e-7, double: 0.002, lag: 500 },
    { ...person, onsetSd: 108, endSd: 108, miss: 0.034, extra: 2e-6, double: 0.006, lag: 650 },
  ],
  taps: [
    { ...person, onsetSd: 14, endSd: 0, miss: 2e-4, extra: 3e-8, double: 1e-4, lag: 350, misnamed: 3e-4 },
    { ...person, onsetSd: 62, endSd: 0, miss: 0.011, extra: 1e-7, double: 0.0035, lag: 500 },
    {
      ...base,
      onsetSd: 108,
      endSd: 0,
      miss: 0.033,

      extra: 4e-7,
      double: 0.02,
      lag: 650,
      misnamed: 0.03,
    },
  ],
};

/** Marks taken out of a film: from a clear one to one in bright daylight. They only serve to propose lists. */
export const FILM_OBSERVERS: readonly Observer[] = [
  { ...base, onsetSd: 14, endSd: 20, miss: 1e-3, extra: 1e-6, double: 1e-4, lag: 60 },
  { ...base, onsetSd: 28, endSd: 45, miss: 0.03, extra: 2e-5, double: 0.01, lag: 80, merge: 0.02 },
  { ...base, onsetSd: 40, endSd: 80, miss: 0.1, extra: 1.2e-4, double: 0.05, lag: 100, merge: 0.06 },
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
