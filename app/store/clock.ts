import { formatISO } from "date-fns";

/**
 * Where all pages take their time from. One place, so that a test can drive hours of lamp time in seconds; what a machine's
 * own work takes (decoding a film) is measured where it is done.
 */
export interface Clock {
  /** Wall clock, ms since 1970. */
  now: () => number;
  /** Never set back, ms since some moment; fractions count. */
  ticks: () => number;
  /** When an event happened, in {@link Clock.ticks}. */
  of: (event: { timeStamp: number }) => number;
  /** Runs once after so many ms. @returns the way to call it off */
  after: (ms: number, run: () => void) => () => void;
  /** Runs every so many ms. @returns the way to call it off */
  every: (ms: number, run: () => void) => () => void;
  /** Told of what a worker works out: a clock that is driven does not run far ahead of the answer, however busy the machine is. */
  awaits?: (answer: Promise<unknown>) => void;
}

const real: Clock = {
  now: () => Date.now(),
  ticks: () => performance.now(),
  of: (event) => event.timeStamp,
  after: (ms, run) => {
    const timer = setTimeout(run, ms);
    return () => clearTimeout(timer);
  },
  every: (ms, run) => {
    const timer = setInterval(run, ms);
    return () => clearInterval(timer);
  },
};

/** The browser's own, unless whoever opens the page has put another one there before. */
export const clock: Clock = (globalThis as { klinkoClock?: Clock }).klinkoClock ?? real;

/** This moment as records hold it. */
export const nowIso = (): string => new Date(clock.now()).toISOString();

/** Today, where the person is, as a field of a date has it. */
export const today = (): string => formatISO(clock.now(), { representation: "date" });
