import type { Log } from "../logs/log";
import type { RideRule } from "../pack/ride";

/** A stretch in which the vehicle was driven; seconds of the log. */
export interface Ride {
  /** When the log of it begins, and when it set off, stood still for good, and the log of it ends. */
  from: number;
  away: number;
  home: number;
  to: number;
}

/** A part of what a ride must hold: seconds that are known, that may have been, where nothing was recorded, and that are needed. */
export interface Part {
  have: number;
  /** What the log itself cannot tell apart, either way: nothing where speeds were recorded. */
  margin?: number;
  unknown: number;
  need: number;
}

/** @param have null where nothing tells it */
export interface Warm {
  have: number | null;
  need: number;
}

export type Counts = "yes" | "no" | "unknown";

/** A ride held against the rule. */
export interface RideJudged {
  ride: Ride;
  counts: Counts;
  idle: Part | null;
  length: Part;
  above: Part | null;
  /** The warmest that the coolant was on the way, °C, and what is needed; null where the rule does not ask. */
  warm: Warm | null;
  /** Since the ride before; null where the rule does not ask. */
  off: Part | null;
  /** Stretches above the limit, seconds of the log. */
  fast: [from: number, to: number][];
}

/** Below this it stands, km/h. */
const STANDS = 4;
/** A standstill or a pause of the log longer than this parts two rides, s. */
const PARTS = 180;
/** Rows further apart than this leave a gap of which nothing is known, s: so many times the usual distance, within these bounds. */
const GAP_TIMES = 5;
const GAP_LEAST = 4;
const GAP_MOST = 15;

/** Stretches of the log between two rows that follow one another; where they lie too far apart, nothing is known. */
interface Known {
  t: number[];
  v: number[];
  /** From which on a stretch is longer than rows usually lie apart, s. */
  gap: number;
}

function knownOf({ t, kmh }: Log): Known {
  const known: Known = { t: [], v: [], gap: 0 };
  for (let i = 0; i < t.length; i++)
    if (!Number.isNaN(kmh[i])) {
      known.t.push(t[i]);
      known.v.push(kmh[i]);
    }
  const some = known.t
    .slice(1, 2000)
    .map((x, i) => x - known.t[i])
    .sort((a, b) => a - b);
  const usual = some[some.length >> 1] ?? 1;
  known.gap = Math.min(GAP_MOST, Math.max(GAP_LEAST, GAP_TIMES * usual));
  return known;
}

/** The rides in a log, each held against the rule, in order of time. */
export function ridesIn(log: Log, rule: RideRule): RideJudged[] {
  const known = knownOf(log);
  // What parts rides is the standstill that the rule asks for, where it asks for a shorter one.
  const parts = Math.min(PARTS, Math.max(30, rule.offSeconds ?? PARTS));
  // Positions move a little also where it stands.
  const rides = found(known, parts, STANDS + 3 * log.noise);
  return rides.map((ride, i) => judged(known, log, ride, rides[i - 1] ?? null, rule));
}

/** Shorter than that is a step out of the garage, s. */
const NO_RIDE = 10;

/** Where it moved, and what parts that. */
function found({ t, v, gap }: Known, parts: number, stands: number): Ride[] {
  const rides: Ride[] = [];
  let began = t[0];
  for (let i = 1; i < t.length; i++) {
    const last = rides.at(-1);
    if (t[i] - t[i - 1] > Math.max(gap, parts)) {
      if (last && last.to > last.home) last.to = t[i - 1];
      began = t[i];
    } else if (v[i] >= stands) {
      if (last && last.home >= began && t[i] - last.home <= parts) {
        last.home = t[i];
        last.to = t[i];
      } else {
        // What stood between belongs to the ride that begins.
        const from = last && last.home >= began ? last.home : began;
        rides.push({ from, away: t[i - 1], home: t[i], to: t[i] });
      }
    } else if (last && last.home >= began && t[i] - last.home <= parts) last.to = t[i];
  }
  return rides.filter((r) => r.home - r.away > NO_RIDE);
}

function judged(known: Known, log: Log, ride: Ride, before: Ride | null, rule: RideRule): RideJudged {
  const { noise } = log;
  const within: Within = (from, to, holds) => {
    let [have, unknown] = [0, 0];
    const { t, v, gap } = known;
    for (let i = firstAfter(t, from); i < t.length && t[i - 1] < to; i++) {
      const dt = t[i] - t[i - 1];
      if (dt > gap) unknown += dt;
      else have += holds(v[i - 1], v[i], t[i - 1], t[i]);
    }
    return { have, unknown };
  };
  const fast: [number, number][] = [];
  const above = rule.above && aboveIn(within, ride, rule.above, noise, fast);
  const length = { ...within(ride.away, ride.home, (_, __, t0, t1) => t1 - t0), need: rule.seconds };
  const idle =
    rule.idleSeconds === undefined
      ? null
      : // A log that begins on the move does not hold what was before.
        { ...within(ride.from, ride.away, (_, __, t0, t1) => t1 - t0), need: rule.idleSeconds };
  // That it stood is no proof that the engine was off: a log says at most that it can have been.
  const off =
    rule.offSeconds === undefined
      ? null
      : { have: 0, unknown: before ? ride.away - before.home : Infinity, need: rule.offSeconds };
  const parts = { idle: near(idle, noise), length: near(length, noise), above: near(above ?? null, noise), off };
  const warm = rule.celsius === undefined ? null : { have: warmest(log, ride), need: rule.celsius };
  const all = Object.values(parts).flatMap((p) => (p ? countsOf(p) : []));
  return { ride, ...parts, warm, fast, counts: [...all, ...(warm ? [isWarm(warm)] : [])].reduce(worse, "yes") };
}

/** The warmest that the coolant was on the way, °C. */
function warmest({ t, celsius }: Log, { away, home }: Ride): number | null {
  if (!celsius) return null;
  let most = -Infinity;
  for (let i = firstAfter(t, away) - 1; i < t.length && t[i] <= home; i++) if (celsius[i] > most) most = celsius[i];
  return most > -Infinity ? most : null;
}

/** Speeds that follow from positions come a little late and are smoothed: so many seconds, and this share, they cannot tell. */
const NEAR_S = 3;
const NEAR_SHARE = 0.02;
function near<P extends Part | null>(part: P, noise: number): P {
  return part && noise > 0 ? { ...part, margin: NEAR_S + NEAR_SHARE * part.need } : part;
}

/** Seconds for which something holds from one moment to another, and of which nothing is known. */
type Within = (
  from: number,
  to: number,
  holds: (v0: number, v1: number, t0: number, t1: number) => number,
) => { have: number; unknown: number };

/**
 * Time above a speed, with hysteresis of the size of the noise: who drives at the limit itself is not above it a hundred times.
 * Between two rows the speed changes evenly.
 */
function aboveIn(
  within: Within,
  ride: Ride,
  { kmh, seconds }: NonNullable<RideRule["above"]>,
  noise: number,
  fast: [number, number][],
): Part {
  const [up, down] = [kmh + noise / 2, kmh - noise / 2];
  let on = false;
  const sums = within(ride.away, ride.home, (a, b, t0, t1) => {
    const cross = (limit: number) => (a === b ? 0 : Math.min(1, Math.max(0, (limit - a) / (b - a))));
    // A gap may lie before.
    if (on ? a < down : a >= up) on = !on;
    const [from, to] = on ? [0, b >= down ? 1 : cross(down)] : [b >= up ? cross(up) : 1, 1];
    on = on ? b >= down : b >= up;
    if (to > from) mark(fast, t0 + from * (t1 - t0), t0 + to * (t1 - t0));
    return (to - from) * (t1 - t0);
  });
  return { ...sums, need: seconds };
}

/** First row after a moment, with a row before it. */
function firstAfter(t: ArrayLike<number>, at: number): number {
  let [low, high] = [1, t.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (t[mid] > at) high = mid;
    else low = mid + 1;
  }
  return low;
}

function mark(list: [number, number][], from: number, to: number): void {
  const last = list.at(-1);
  if (last && from - last[1] < 1e-6) last[1] = to;
  else list.push([from, to]);
}

export const countsOf = ({ have, unknown, need, margin = 0 }: Part): Counts =>
  have >= need + margin ? "yes" : have + unknown + margin >= need ? "unknown" : "no";
export const isWarm = ({ have, need }: Warm): Counts => (have === null ? "unknown" : have >= need ? "yes" : "no");
const worse = (a: Counts, b: Counts): Counts =>
  a === "no" || b === "no" ? "no" : a === "unknown" || b === "unknown" ? "unknown" : "yes";
