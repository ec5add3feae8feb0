import type { Dialect } from "../dialect/dialect";
import { firstOf, trackOf, type Evidence, type Track } from "../seen/evidence";
import { kindsOf, manyOf, type Kinds, type Scatter } from "./kinds";

/** Marks of a lamp of which nothing is known: one way of taking what was seen. */
export interface Marks {
  rest: Dialect["rest"];
  track: Track;
  /** For each mark: is it a long one. */
  long: boolean[];
  short: number;
  /** Length of the long ones, or null where all are alike. */
  longMs: number | null;
  /** The lamp was held for so long before the first flash: a lamp test, or a wait; `track` begins after it. */
  steadyMs: number | null;
  /** For each mark but the last: how long the lamp rested after it, ms. */
  rests: number[];
  scatter: Scatter;
}

/** More marks than that tell nothing new of how a lamp talks. */
const MOST = 1000;
/** Shortest flash that the format knows, ms: what is far shorter is a glitch. */
const SHORTEST = { marks: { short: 120 }, gaps: { flash: 120, digit: 0, repeat: 0, code: 0, pass: 0 } };
/** A long flash is at least so many times as long as a short one, and a lamp test as the longest flash. */
const LONGER = 1.6;
const STEADY = 1.35;
/** So few long ones, as a share, may each be two flashes between which the rest was missed. */
const FEW = 0.08;
/** Kinds of rest that lamps have at most. */
const MOST_KINDS = 6;
/** A rest below this share of the shortest kind is none: the flash was marked twice. */
const TWICE = 0.45;
/** A kind of rest is the usual one where so large a share is of it. */
const MANY = 0.15;
/** So many deviations from the time of a missed flash it may be one, and so large a share of all flashes is missed at most. */
const REACH = 2.5;
const MISSED = 0.05;
/** What is so near a rest that comes often, in deviations, is that rest. */
const OTHERS = 2;
/** A flash that is longer by so many deviations was lengthened by something else. */
const LENGTHENED = 4;
/** A hand scatters so much that short and long may only seem apart, ms. */
const BLURRED = 50;
/** How far times scatter that are the same: edges of a camera, keys of a hand, and its taps. */
const SCATTER: Record<Evidence["mode"], readonly Scatter[]> = {
  edges: [{ ms: 22, share: 0.04 }],
  holds: [
    { ms: 35, share: 0.04 },
    { ms: 100, share: 0.04 },
  ],
  taps: [
    { ms: 30, share: 0.04 },
    { ms: 100, share: 0.04 },
  ],
};
/** Where one state lasts longer by this factor it is plain which is the rest; the first changes may be a lamp test. */
const PLAIN = 1.8;
const FIRST = 3;

/** The ways in which evidence may be taken as marks: which state is the rest, and whether there are long flashes. */
export function marksOf(evidence: Evidence): Marks[] {
  return restsOf(evidence).flatMap((rest) =>
    SCATTER[evidence.mode].flatMap((scatter) => taken(evidence, rest, scatter)),
  );
}

/** Which state is the rest: the one that lasts longest, but for what was there at first; both where that is not plain. */
function restsOf(evidence: Evidence): Dialect["rest"][] {
  if (evidence.mode !== "edges") return ["dark"];
  const lengths: [number[], number[]] = [[], []];
  const edges = evidence.edges.filter(([t]) => Number.isFinite(t));
  for (let i = FIRST; i + 1 < edges.length; i++) lengths[edges[i][1]].push(Math.max(1, edges[i + 1][0] - edges[i][0]));
  const [dark, lit] = lengths.map((list) => Math.max(1, ...list));
  if (dark > PLAIN * lit) return ["dark"];
  if (lit > PLAIN * dark) return ["lit"];
  return dark > lit ? ["dark", "lit"] : ["lit", "dark"];
}

function taken(evidence: Evidence, rest: Dialect["rest"], scatter: Scatter): Marks[] {
  const rough = trackOf(evidence, { rest, ...SHORTEST });
  const usual = median(Array.from(rough.length).filter((ms) => ms === ms));
  const track = firstOf(
    usual ? trackOf(evidence, { rest, marks: { short: usual }, gaps: { ...SHORTEST.gaps, flash: usual } }) : rough,
    MOST,
  );
  if (track.onset.length < 2) return [];
  if (track.mode === "taps") return slipsOf(tapped(joined(track, scatter), rest, scatter));
  return lampTests(joined(track, scatter)).flatMap(([steadyMs, flashes]) => {
    const lengths = Array.from(flashes.length);
    const base = { rest, track: flashes, steadyMs, scatter };
    const alike = { ...base, long: lengths.map(() => false), short: median(lengths), longMs: null };
    const parted = kindsOf(lengths, scatter, 2).find((k) => k.ms.length === 2);
    const two = parted !== undefined && parted.ms[1] > LONGER * parted.ms[0];
    // Where long and short lie plainly apart, they are not alike.
    const few = parted !== undefined && parted.of.reduce((sum, k) => sum + k, 0) < FEW * lengths.length;
    const ways: Omit<Marks, "rests">[] = two && scatter.ms < BLURRED && !few ? [] : [alike];
    if (two)
      ways.unshift({ ...base, long: Array.from(parted.of, (k) => k === 1), short: parted.ms[0], longMs: parted.ms[1] });
    return ways.flatMap((way) => slipsOf({ ...way, rests: restsAfter(way) }));
  });
}

/**
 * Marks as they are, and without the slips of who watched, as long as these are few: each would else be a kind of rest of its own. First
 * flashes that were missed in a run are put back, then those beside longer rests too; a rare rest may be the hole of one, or no slip.
 */
function slipsOf(marks: Marks): Marks[] {
  const [kinds] = kindsOf(marks.rests, marks.scatter, MOST_KINDS);
  const usual = usualOf(kinds);
  if (usual === undefined) return [marks];
  const many = manyOf(kinds);
  const often = kinds.ms.filter((_, kind) => many[kind] > MISSED * marks.rests.length);
  const inRuns = withMissed(marks, often, usual, [usual]);
  const all = withMissed(marks, often, usual, [...new Set([usual, ...often])]);
  return [marks, ...(inRuns ? [inRuns] : []), ...(all && all.rests.length !== inRuns?.rests.length ? [all] : [])];
}

/** With flashes put back between the usual rest and one of those before; null where that is none, or too many. */
function withMissed(marks: Marks, often: readonly number[], usual: number, before: readonly number[]): Marks | null {
  const { scatter, short, longMs, rests } = marks;
  const lengths = longMs === null ? [short] : [short, longMs];
  const holes = before.flatMap((rest) => lengths.map((length) => ({ rest, length, ms: rest + length + usual })));
  const off = (ms: number, from: number) => Math.abs(ms - from) / Math.hypot(scatter.ms, scatter.share * from);
  const missed = rests.map((ms) => {
    const hole = holes.reduce((a, b) => (off(ms, b.ms) < off(ms, a.ms) ? b : a));
    const own = Math.min(...often.map((rest) => off(ms, rest)));
    return off(ms, hole.ms) < REACH && own > OTHERS && own > off(ms, hole.ms) + 1 ? hole : null;
  });
  const n = missed.filter(Boolean).length;
  if (!n || n > MISSED * rests.length) return null;
  return {
    ...marks,
    long: marks.long.flatMap((l, i) => {
      const hole = i ? missed[i - 1] : null;
      return hole ? [hole.length === longMs, l] : [l];
    }),
    rests: rests.flatMap((ms, i) => {
      const hole = missed[i];
      return hole ? [hole.rest, Math.max(1, ms - hole.rest - hole.length)] : [ms];
    }),
  };
}

/** Two marks for one flash are one: between them lies far less than the usual rest, or, of taps, the usual time. */
function joined(track: Track, scatter: Scatter): Track {
  const end = (i: number) => track.onset[i] + (track.mode === "taps" ? 0 : track.length[i]);
  const between = Array.from(track.onset.subarray(1), (t, i) => Math.max(1, t - end(i)));
  const usual = usualOf(kindsOf(between, scatter, MOST_KINDS)[0]);
  if (usual === undefined || !between.some((ms) => ms < TWICE * usual)) return track;
  const kept: number[] = [];
  const length: number[] = [];
  for (let i = 0; i < track.onset.length; i++)
    if (i && between[i - 1] < TWICE * usual) length[length.length - 1] = end(i) - track.onset[kept[kept.length - 1]];
    else {
      kept.push(i);
      length.push(track.length[i]);
    }
  return {
    ...track,
    onset: Float64Array.from(kept, (i) => track.onset[i]),
    length: track.mode === "taps" ? new Float64Array(kept.length).fill(NaN) : Float64Array.from(length),
    said: Uint8Array.from(kept, (i) => track.said[i]),
    pause: kept.map((i) => track.pause[i]),
  };
}

/** The shortest kind of time of which there are many. */
function usualOf(kinds: Kinds | undefined): number | undefined {
  if (!kinds) return undefined;
  const many = manyOf(kinds);
  return kinds.ms.find((_, kind) => many[kind] >= MANY * kinds.of.length);
}

/** A first mark that is longer than all that follow was no flash; one that is as long as the longest, and stands alone, may have been one. */
function lampTests(track: Track): [number | null, Track][] {
  const longest = track.length.subarray(1).reduce((a, b) => Math.max(a, b), 0);
  const whole: [null, Track] = [null, track];
  if (track.onset.length < 4 || track.length[0] < longest / STEADY) return [whole];
  const from = <T extends Float64Array | Uint8Array>(row: T) => row.slice(1) as T;
  const without: [number, Track] = [
    track.length[0],
    {
      ...track,
      onset: from(track.onset),
      length: from(track.length),
      said: from(track.said),
      pause: track.pause.slice(1),
    },
  ];
  return track.length[0] > STEADY * longest ? [without] : [whole, without];
}

/** Of taps the lengths are not known: half of the shortest usual period stands for them, and what long ones add to it. */
function tapped(track: Track, rest: Dialect["rest"], scatter: Scatter): Marks {
  const long = Array.from(track.said, (s) => s === 2);
  const periods = Array.from(track.onset.subarray(1), (t, i) => t - track.onset[i]);
  const shortest = (of: boolean) => {
    const own = periods.filter((_, i) => long[i] === of);
    return usualOf(kindsOf(own, scatter, MOST_KINDS)[0]) ?? null;
  };
  const [afterShort, afterLong] = [shortest(false), shortest(true)];
  const short = afterShort ? afterShort / 2 : (afterLong ?? 0) / 4;
  const longMs = long.includes(true)
    ? Math.max(LONGER * short, afterShort && afterLong ? afterLong - short : 3 * short)
    : null;
  const way = {
    rest,
    track,
    long,
    short,
    longMs,
    steadyMs: null,
    scatter: { ...scatter, ms: scatter.ms * Math.SQRT2 },
  };
  return { ...way, rests: restsAfter(way) };
}

/**
 * Where lengths were seen they are taken as they were: a long flash varies more than a rest does. One that is far too long was lengthened
 * by what is no flash, on the side on which the rest is too short.
 */
function restsAfter({ track, long, short, longMs, scatter }: Omit<Marks, "rests">): number[] {
  const lengthOf = (i: number) => (long[i] ? (longMs ?? short) : short);
  const rests = Array.from(track.onset.subarray(1), (t, i) => {
    const seen = track.length[i];
    return Math.max(1, t - track.onset[i] - (seen === seen ? seen : lengthOf(i)));
  });
  if (track.mode !== "edges") return rests;
  const usual = median(rests);
  for (let i = 0; i < rests.length; i++) {
    const over = track.length[i] - lengthOf(i);
    if (over < LENGTHENED * Math.hypot(scatter.ms, scatter.share * lengthOf(i))) continue;
    const side = i && rests[i - 1] < usual && rests[i - 1] < rests[i] ? i - 1 : i;
    if (rests[side] < usual) rests[side] = Math.min(usual, rests[side] + over);
  }
  return rests;
}

function median(of: readonly number[]): number {
  const sorted = [...of].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}
