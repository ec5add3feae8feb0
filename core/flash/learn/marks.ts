import type { Dialect } from "../dialect";
import { firstOf, trackOf, type Evidence, type Track } from "../evidence";
import { kindsOf, type Scatter } from "./kinds";

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
const MOST = 400;
/** Shortest flash that the format knows, ms: what is far shorter is a glitch. */
const SHORTEST = { marks: { short: 120 }, gaps: { flash: 120, digit: 0, repeat: 0, code: 0, pass: 0 } };
/** A long flash is at least so many times as long as a short one, and a lamp test as the longest flash. */
const LONGER = 1.6;
const STEADY = 1.35;
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
  if (track.mode === "taps") return [tapped(track, rest, scatter)];
  return lampTests(track).flatMap(([steadyMs, flashes]) => {
    const lengths = Array.from(flashes.length);
    const base = { rest, track: flashes, steadyMs, scatter };
    const alike = { ...base, long: lengths.map(() => false), short: median(lengths), longMs: null };
    const parted = kindsOf(lengths, scatter, 2).find((k) => k.ms.length === 2);
    const two = parted !== undefined && parted.ms[1] > LONGER * parted.ms[0];
    // Where long and short lie plainly apart, they are not alike.
    const ways: Omit<Marks, "rests">[] = two && scatter.ms < BLURRED ? [] : [alike];
    if (two)
      ways.unshift({ ...base, long: Array.from(parted.of, (k) => k === 1), short: parted.ms[0], longMs: parted.ms[1] });
    return ways.map((way) => ({ ...way, rests: restsAfter(way) }));
  });
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
    return kindsOf(own, scatter, 6)[0]?.ms[0] ?? null;
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

/** Where lengths were seen they are taken as they were: a long flash varies more than a rest does. */
function restsAfter({ track, long, short, longMs }: Omit<Marks, "rests">): number[] {
  return Array.from(track.onset.subarray(1), (t, i) => {
    const seen = track.length[i];
    const length = seen === seen ? seen : long[i] ? (longMs ?? short) : short;
    return Math.max(1, t - track.onset[i] - length);
  });
}

function median(of: readonly number[]): number {
  const sorted = [...of].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}
