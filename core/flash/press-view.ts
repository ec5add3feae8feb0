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
  const shown = tracks.flatMap((t, k) => (t.onset.length ? [k] : []));
  const longest = tracks.reduce((n, t) => Math.max(n, t.onset.length), 1);
  const before = dialect.empty?.kind === "group" ? dialect.empty.beforeMs : 0;
  // A press is answered after the same time as the others; a first flash that comes a flash later was not the first.
  const usual = shown.length > 1 ? usualDelay(tracks) : undefined;
  const flats = new Map<number, Flat>();
  const flatOf = (count: number): Flat => {
    let flat = flats.get(count);
    if (!flat) {
      flat = flatten({ lead: runOf(dialect, count), loop: null, ends: "rest" }, mode);
      flats.set(count, (flat = { ...flat, first: before, usual }));
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
      sum: shown.reduce((s, k) => s + Math.max(...around(tracks[k].onset.length, longest).map((c) => w.log(k, c))), 0),
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
    lateIn(tracks, period),
    best.tempo,
    shown.reduce((s, k) => s + noiseLog(tracks[k]), 0),
  );
}

/** From a press to its first flash as it was seen mostly, ms. */
function usualDelay(tracks: readonly Track[]): number {
  const delays = tracks.flatMap((t) => (t.onset.length ? [t.onset[0]] : [])).sort((a, b) => a - b);
  return delays[(delays.length - 1) >> 1];
}

/** Presses whose first flash came a flash later than with the others: one was missed. */
function lateIn(tracks: readonly Track[], period: number): boolean[] {
  const usual = usualDelay(tracks);
  return tracks.map((t) => t.onset.length > 0 && t.onset[0] > usual + period / 2);
}

/** One number a press, as somebody called it out. */
export function calledPressView(dialect: Dialect, counts: readonly number[]): View<null, Presses> {
  return viewOf(
    dialect,
    counts,
    RUN_OBSERVERS.map((o) => (k: number, count: number) => Math.log(heard(count, counts[k], o))),
    counts.map(() => true),
    counts.map(() => false),
    1,
    counts.filter((n) => n > 0).length * Math.log(1 / 60) - 3,
  );
}

/** A press shows the code after the last one. Now and then it shows the same one or skips one: a press that nobody told. */
const STEP = { again: 0.002, next: 0.996, skip: 0.002 };
/** A press without a flash was too short to ask, mostly; or nobody tapped. */
const NO_FLASH = { again: 0.9, next: 0.1 };
/** The first press that is watched shows the first code so often; else it is any of them. */
const FROM_FIRST = 0.4;

/** Where in the list each press may stand, and the best row of places. */
interface Walked {
  logLik: number;
  prefix: Float64Array;
  /** Place in the list, unrolled: `n * round + index`; -1 for a press that showed nothing. */
  places: number[];
}

function walk(
  seen: readonly number[],
  counts: readonly number[],
  log: (press: number, count: number) => number,
): Walked {
  const n = counts.length;
  const prefix = new Float64Array(seen.length);
  const ways: [by: number, log: number][] = n > 1 ? [[0, Math.log(STEP.again)], [1, Math.log(STEP.next)], [2, Math.log(STEP.skip)]] : [[1, 0]]; // prettier-ignore
  /** For each press that showed something: by how many codes the best way to each place went on; 0 places before the first. */
  const steps: { press: number; by: number[] }[] = [];
  // Before the first flash the place is open; then it is that of the code shown last.
  let forward = null as number[] | null;
  let best: number[] = [];
  for (let k = 0; k < seen.length; k++) {
    const old = forward;
    if (seen[k] === 0) {
      if (old && n > 1)
        forward = old.map((f, j) =>
          logAdd(f + Math.log(NO_FLASH.again), old[(j + n - 1) % n] + Math.log(NO_FLASH.next)),
        );
    } else if (!old) {
      forward = counts.map((c, j) => Math.log((j ? 0 : FROM_FIRST) + (1 - FROM_FIRST) / n) + log(k, c));
      best = forward;
      steps.push({ press: k, by: counts.map(() => 0) });
    } else {
      const was = best;
      const from = (j: number, by: number) => (j - by + 2 * n) % n;
      const by = counts.map((_, j) => ways.reduce((x, y) => (was[from(j, y[0])] + y[1] > was[from(j, x[0])] + x[1] ? y : x))); // prettier-ignore
      forward = counts.map((c, j) => ways.map(([w, p]) => old[from(j, w)] + p).reduce(logAdd, -Infinity) + log(k, c));
      best = counts.map((c, j) => was[from(j, by[j][0])] + by[j][1] + log(k, c));
      steps.push({ press: k, by: by.map(([w]) => w) });
    }
    prefix[k] = forward ? forward.reduce(logAdd, -Infinity) : 0;
  }
  // Back from the best last place, then unrolled from the first one on.
  const places = seen.map(() => -1);
  let at = best.indexOf(Math.max(...best));
  const went: number[] = [];
  for (let i = steps.length - 1; i >= 0; i--) {
    went[i] = steps[i].by[at];
    at = (at - went[i] + 2 * n) % n;
  }
  for (const [i, { press }] of steps.entries()) places[press] = at += went[i];
  return { logLik: prefix[seen.length - 1], prefix, places };
}

function viewOf(
  dialect: Dialect,
  seen: readonly number[],
  /** Log probability of what a press showed, given its count, for each way in which it may have been watched. */
  ways: readonly ((press: number, count: number) => number)[],
  whole: readonly boolean[],
  late: readonly boolean[],
  tempo: number,
  noise: number,
): View<null, Presses> {
  const showings = seen.filter((n) => n > 0).map((n) => showing(dialect, [{ long: 0, short: n }]));
  const score = ({ counts }: Presses) => {
    if (!counts.length) return { logLik: -50 * seen.length, prefix: new Float64Array(seen.length), cost: seen.length };
    const walks = ways.map((log) => walk(seen, counts, log));
    const prefix = walks[0].prefix.map((_, k) => walks.map((w) => w.prefix[k]).reduce(logAdd, -Infinity) - Math.log(ways.length)); // prettier-ignore
    return { logLik: prefix[seen.length - 1], prefix, cost: seen.length };
  };
  return {
    settings: [null],
    readings: () => [showings],
    prepare: (show) => {
      const units = [...new Set([...show.lead.flashes, ...(show.loop?.flashes ?? [])].map((f) => f.unit))];
      const all = [...show.lead.flashes, ...(show.loop?.flashes ?? [])];
      return { units, counts: units.map((u) => all.filter((f) => f.unit === u).length) };
    },
    score,
    weigh: (p) => score(p).logLik,
    refit: () => null,
    spans: ({ units, counts }) => {
      if (!units.length) return [];
      const { places } = ways.map((log) => walk(seen, counts, log)).reduce((a, b) => (b.logLik > a.logLik ? b : a));
      return places.flatMap((at, k) =>
        at < 0
          ? []
          : {
              unit: units[at % units.length],
              pass: Math.floor(at / units.length),
              full: Number(whole[k]),
              marked: true,
              exact: seen[k] === counts[at % units.length] && !late[k],
            },
      );
    },
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
    dialect,
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
