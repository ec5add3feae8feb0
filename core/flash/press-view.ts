import { logAdd, score } from "./align";
import type { Dialect } from "./dialect";
import { trackOf, type Press, type Track } from "./evidence";
import { flatten, type Flat } from "./flat";
import { OBSERVERS, RUN_OBSERVERS, type Observer } from "./observer";
import { showing } from "./reading";
import { heard } from "./runs-view";
import type { Section, Unit } from "./show";
import { TEMPO_MAX, TEMPO_MIN } from "./tempo";
import { noiseLog } from "./timed-view";
import type { View } from "./view";

/** What each press shows, in order, round and round: one unit a press. */
interface Presses {
  units: Unit[];
  counts: number[];
}

const TEMPI = Array.from({ length: 9 }, (_, i) => TEMPO_MIN * (TEMPO_MAX / TEMPO_MIN) ** (i / 8));
/** After the last flash it must have rested this long (in flash periods) before the press counts as seen whole. */
const QUIET_PERIODS = 1.7;

/** Dialects that show one code a press: the view in which press k shows code k of the list, round and round. */
export function pressView(dialect: Dialect, presses: readonly Press[]): View<null, Presses> {
  const tracks = presses.map((p, k) => trackOfPress(dialect, p, presses[k + 1]?.press ?? p.until));
  const mode = tracks[0]?.mode ?? "edges";
  const longest = tracks.reduce((n, t) => Math.max(n, t.onset.length), 1);
  const before = dialect.empty?.kind === "group" ? dialect.empty.beforeMs : 0;
  const flats = new Map<number, Flat>();
  const flatOf = (count: number): Flat => {
    let flat = flats.get(count);
    if (!flat) {
      flat = flatten({ lead: runOf(dialect, count), loop: null, ends: "rest" }, mode);
      flats.set(count, (flat = { ...flat, first: before }));
    }
    return flat;
  };
  const logs = (tempo: number, o: Observer) => {
    const memo = new Map<string, number>();
    return (k: number, count: number): number => {
      const key = `${k} ${count}`;
      let log = memo.get(key);
      if (log === undefined) memo.set(key, (log = score(tracks[k], flatOf(count), tempo, o).logLik));
      return log;
    };
  };
  // Tempi and observers under which the best count of each press explains most; all of those are weighed.
  const ways = OBSERVERS[mode]
    .flatMap((o) => TEMPI.map((tempo) => ({ tempo, log: logs(tempo, o) })))
    .map((w) => ({
      ...w,
      sum: tracks.reduce((s, t, k) => s + Math.max(...around(t.onset.length, longest).map((c) => w.log(k, c))), 0),
    }))
    .sort((a, b) => b.sum - a.sum);
  const best = ways[0];
  const likely = ways.filter((w) => w.sum > best.sum - 8).map((w) => w.log);
  const period = (dialect.marks.short + dialect.gaps.flash) * best.tempo;
  const whole = tracks.map((t) => !t.onset.length || t.until - t.onset[t.onset.length - 1] > QUIET_PERIODS * period);
  return viewOf(
    dialect,
    tracks.map((t) => t.onset.length),
    likely,
    whole,
    best.tempo,
    tracks.reduce((s, t) => s + noiseLog(t), 0),
  );
}

/** One number a press, as somebody called it out. */
export function calledPressView(dialect: Dialect, counts: readonly number[]): View<null, Presses> {
  return viewOf(
    dialect,
    counts,
    RUN_OBSERVERS.map((o) => (k: number, count: number) => Math.log(heard(count, counts[k], o))),
    counts.map(() => true),
    1,
    counts.length * Math.log(1 / 60) - 3,
  );
}

function viewOf(
  dialect: Dialect,
  seen: readonly number[],
  /** Log probability of what a press showed, given its count, for each way in which it may have been watched. */
  ways: readonly ((press: number, count: number) => number)[],
  whole: readonly boolean[],
  tempo: number,
  noise: number,
): View<null, Presses> {
  const showings = seen.filter((n) => n > 0).map((n) => showing(dialect, [{ long: 0, short: n }]));
  return {
    settings: [null],
    readings: () => [showings],
    prepare: (show) => {
      const units = [...new Set([...show.lead.flashes, ...(show.loop?.flashes ?? [])].map((f) => f.unit))];
      const all = [...show.lead.flashes, ...(show.loop?.flashes ?? [])];
      return { units, counts: units.map((u) => all.filter((f) => f.unit === u).length) };
    },
    score: ({ counts }) => {
      const sums = ways.map(() => 0);
      const prefix = new Float64Array(seen.length);
      for (let k = 0; k < seen.length; k++) {
        for (const [i, log] of ways.entries()) sums[i] += counts.length ? log(k, counts[k % counts.length]) : -50;
        prefix[k] = sums.reduce(logAdd, -Infinity) - Math.log(ways.length);
      }
      return { logLik: prefix[seen.length - 1], prefix, cost: seen.length };
    },
    weigh: ({ counts }) => {
      const sums = ways.map((log) => seen.reduce((s, _, k) => s + (counts.length ? log(k, counts[k % counts.length]) : -50), 0)); // prettier-ignore
      return sums.reduce(logAdd, -Infinity) - Math.log(ways.length);
    },
    refit: () => null,
    spans: ({ units }) =>
      units.length
        ? seen.map((_, k) => ({
            unit: units[k % units.length],
            pass: Math.floor(k / units.length),
            full: Number(whole[k]),
            marked: true,
          }))
        : [],
    place: () => ({ onsets: [], assignment: [], missed: [] }),
    noise,
    foreign: noise,
    even: -Infinity,
    litAtEnd: null,
    settingOf: () => null,
    anyList: () => -Infinity,
    tempoOf: () => tempo,
    count: seen.length,
    breadth: 1,
  };
}

function trackOfPress(dialect: Dialect, { press, edges, taps }: Press, until: number): Track {
  return trackOf(
    edges
      ? { mode: "edges", edges: edges.map(([t, lit]) => [t - press, lit] as const), until: until - press }
      : { mode: "taps", taps: (taps ?? []).map((t) => t - press), until: until - press },
    dialect.rest,
  );
}

/** A single run of so many flashes, as a section. */
function runOf(dialect: Dialect, count: number): Section {
  const period = dialect.marks.short + dialect.gaps.flash;
  const unit: Unit = { kind: "code", code: String(count), phase: 0, repeat: 0 };
  const before = dialect.empty?.kind === "group" ? dialect.empty.beforeMs : 0;
  const flashes = Array.from({ length: count }, (_, i) => ({
    at: before + i * period,
    ms: dialect.marks.short,
    unit,
    digit: 0,
    long: false,
  }));
  return { flashes, ms: before + count * period };
}

function around(n: number, longest: number): number[] {
  return [n - 2, n - 1, n, n + 1, n + 2].filter((c) => c >= 1 && c <= longest + 2);
}
