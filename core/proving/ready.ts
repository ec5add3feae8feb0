import type { Monitor, Pack } from "../pack/pack";

/** When the monitors are likely complete, in whole days from now. */
export interface ReadyDays {
  /** Before this day it is unlikely; after the last one it is unlikely that they still are not. */
  first: number;
  last: number;
  /** The monitor that takes longest. */
  slowest: Monitor;
}

/** One in ten is ready sooner than the first day, one in ten later than the last. */
const EARLY = 0.1;
const LATE = 0.9;
/** Beyond this nobody plans, days. */
const MOST_DAYS = 730;

/** Probability of so many drives or more, where `mean` are expected (Poisson). */
function atLeastSoMany(n: number, mean: number): number {
  let [term, below] = [Math.exp(-mean), 0];
  for (let k = 0; k < n; k++) {
    below += term;
    term *= mean / (k + 1);
  }
  return Math.max(0, 1 - below);
}

/** First whole day by which so many drives were made with probability `p`. */
function dayOf(drives: number, aDay: number, p: number): number {
  if (drives <= 0) return 0;
  for (let day = 1; day <= MOST_DAYS; day++) if (atLeastSoMany(drives, aDay * day) >= p) return day;
  return MOST_DAYS;
}

/**
 * When a vehicle is likely ready. Each drive is taken to give every monitor what it needs, and drives to come as they will, so many a week
 * on average (a Poisson process): first day, where the monitor that takes longest needs the fewest drives it can, last day, where it needs the most.
 * @param aWeek drives of that kind a week, above 0
 * @param done drives that count already
 * @returns null where the make tells no monitors
 */
export function readyDays({ proving }: Pick<Pack, "proving">, aWeek: number, done: number): ReadyDays | null {
  const { monitors } = proving;
  if (!monitors) return null;
  const most = (i: 0 | 1) => Math.max(...monitors.map((m) => m.drives[i]));
  const slowest = monitors.find((m) => m.drives[1] === most(1))!;
  const aDay = aWeek / 7;
  return { first: dayOf(most(0) - done, aDay, EARLY), last: dayOf(most(1) - done, aDay, LATE), slowest };
}

/** How an inspection lies to that: `early` fails for readiness most likely, `within` may. */
export const inspectionLies = (
  inDays: number,
  { first, last }: Pick<ReadyDays, "first" | "last">,
): "past" | "early" | "within" | "late" =>
  inDays < 0 ? "past" : inDays < first ? "early" : inDays < last ? "within" : "late";

/** Can codes of this vehicle be permanent? */
export const mayBePermanent = ({ proving }: Pick<Pack, "proving">, { year }: { year: number }): boolean =>
  proving.permanentFrom !== undefined && year >= proving.permanentFrom;
