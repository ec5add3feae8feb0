import { score } from "./score";
import { logAdd } from "../trellis/log";
import type { Dialect } from "../dialect/dialect";
import { codeOf, runsOf, type Run } from "../dialect/digits";
import { trackOf, type Press, type Tap, type Track } from "../seen/evidence";
import { flatten, type Flat } from "./flat";
import { OBSERVERS, RUN_OBSERVERS, type Observer } from "../seen/observer";
import { nearBy } from "../dialect/near-by";
import { showing } from "../walk/reading";
import { heard } from "./runs-view";
import { runSection, type Unit } from "../dialect/show";
import { TEMPO_MAX, TEMPO_MIN } from "../dialect/tempo";
import { noiseLog } from "./timed-view";
import type { View } from "./view";

/** What each press shows, in order, round and round: one unit a press, and by which sign it is known. */
interface Presses {
  units: Unit[];
  signs: Sign[];
}

/** Runs as text ("2 1", with long flashes "2/1"): two units with one sign look alike. */
type Sign = string;

const signOf = (runs: readonly Run[]): Sign =>
  runs.map(({ long, short }) => (long ? `${long}/${short}` : short)).join(" ");
const runsOfSign = (sign: Sign): Run[] =>
  sign.split(" ").map((part) => {
    const [long, short] = part.includes("/") ? part.split("/") : ["0", part];
    return { long: Number(long), short: Number(short) };
  });

const TEMPI = Array.from({ length: 9 }, (_, i) => TEMPO_MIN * (TEMPO_MAX / TEMPO_MIN) ** (i / 8));
/** Around the best of these tempi finer ones are tried: digits lie far from one another. */
const FINER = [0.965, 0.982, 1.018, 1.035];
/** So many of the coarse ways are gone into. */
const GONE_INTO = 3;
/** After the last flash it must have rested this long (in flash periods, and in rests between digits) before the press counts as seen whole. */
const QUIET_PERIODS = 1.7;
const QUIET_RESTS = 1.15;
/** Ways that explain this much less than the best, in nats, are not weighed. */
const IN_QUESTION = 8;

/** Dialects that show one code a press: the view in which press k shows code k of the list, round and round. */
export function pressView(dialect: Dialect, presses: readonly Press[]): View<null, Presses> {
  const tracks = presses.map((p, k) => trackOfPress(dialect, p, presses[k + 1]?.press ?? p.until));
  const mode = tracks[0]?.mode ?? "edges";
  const shown = tracks.flatMap((t, k) => (t.onset.length ? [k] : []));
  const before = dialect.empty?.kind === "group" ? dialect.empty.beforeMs : 0;
  // A press is answered after the same time as the others; a first flash that comes a flash later was not the first.
  const usual = shown.length > 1 ? usualDelay(tracks) : undefined;
  const flats = new Map<Sign, Flat>();
  const flatOf = (sign: Sign): Flat => {
    let flat = flats.get(sign);
    if (!flat) {
      const lead = runSection(dialect, runsOfSign(sign), before);
      flats.set(sign, (flat = { ...flatten({ lead, loop: null, ends: "rest" }, mode), first: before, usual }));
    }
    return flat;
  };
  const logs = (tempo: number, o: Observer) => {
    const memo = new Map<string, number>();
    return (k: number, sign: Sign): number => {
      const key = `${k} ${sign}`;
      let log = memo.get(key);
      if (log === undefined) memo.set(key, (log = score(tracks[k], flatOf(sign), tempo, o).logLik));
      return log;
    };
  };
  const candidates = tracks.map((t) => (t.onset.length ? signsNear(dialect, t) : []));
  // Tempi and observers under which the best sign of each press explains most; all of those are weighed.
  const wayOf = (tempo: number, o: Observer) => {
    const log = logs(tempo, o);
    const sum = shown.reduce((s, k) => s + candidates[k].reduce((m, c) => Math.max(m, log(k, c)), -1e4), 0);
    return { tempo, o, log, sum };
  };
  const bySum = (x: { sum: number }, y: { sum: number }) => y.sum - x.sum;
  const coarse = OBSERVERS[mode].flatMap((o) => TEMPI.map((tempo) => wayOf(tempo, o))).sort(bySum);
  const fine = coarse.slice(0, GONE_INTO).flatMap((w) => FINER.map((by) => wayOf(w.tempo * by, w.o)));
  const ways = [...coarse, ...fine].sort(bySum);
  const best = ways[0];
  const likely = ways.filter((w) => w.sum > best.sum - IN_QUESTION).map((w) => w.log);
  const period = (dialect.marks.short + dialect.gaps.flash) * best.tempo;
  // A code of as many digits as there can be is over with its last one; after fewer, another one may follow.
  const most = dialect.digits.style === "counted" ? Math.max(...dialect.digits.count) : 1;
  const whole = tracks.map((t) => {
    if (!t.onset.length) return true;
    const more = runsIn(dialect, t, best.tempo).length < most ? QUIET_RESTS * dialect.gaps.digit * best.tempo : 0;
    return t.until - t.onset[t.onset.length - 1] > Math.max(QUIET_PERIODS * period, more);
  });
  const read = tracks.map((t) => (t.onset.length ? signOf(runsIn(dialect, t, best.tempo)) : null));
  const bestOf = (k: number) =>
    candidates[k].reduce((x, y) => (best.log(k, y) > best.log(k, x) ? y : x), candidates[k][0]);
  return viewOf(
    dialect,
    read,
    tracks.map((t, k) => (t.onset.length ? (bestOf(k) ?? null) : null)),
    tracks.map((t) => t.onset.length > 0),
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
  const read = counts.map((n) => (n ? String(n) : null));
  return viewOf(
    dialect,
    read,
    read,
    counts.map((n) => n > 0),
    RUN_OBSERVERS.map((o) => (k: number, sign: Sign) => Math.log(heard(Number(sign), counts[k], o))),
    counts.map(() => true),
    counts.map(() => false),
    1,
    counts.filter((n) => n > 0).length * Math.log(1 / 60) - 3,
  );
}

/** Signs that a press may have shown: as it reads at any tempo, those one flash away, and an empty memory's. */
function signsNear(dialect: Dialect, track: Track): Sign[] {
  const signs = new Set<Sign>();
  for (const tempo of dialect.digits.style === "total" ? [1] : TEMPI) {
    const runs = runsIn(dialect, track, tempo);
    const code = codeOf(dialect, runs);
    const put = (c: string) => signs.add(signOf(runsOf(dialect, c)!));
    if (code !== null) for (const near of [code, ...nearBy(dialect, code)]) put(near);
    else
      for (const near of changed(runs, dialect.digits)) {
        const other = codeOf(dialect, near);
        if (other !== null) put(other);
      }
  }
  if (dialect.empty?.kind === "group") signs.add(String(dialect.empty.flashes));
  return [...signs];
}

/** Runs one change away from those that make no code: a flash more or less, a rest too many or too few. */
function changed(runs: readonly Run[], { count }: Dialect["digits"]): Run[][] {
  const out: Run[][] = [];
  for (let i = 0; i < runs.length; i++) {
    for (const by of [-1, 1]) out.push(runs.with(i, { ...runs[i], short: runs[i].short + by }));
    if (i > 0 && runs.length > Math.min(...count)) {
      const joined = { long: runs[i - 1].long + runs[i].long, short: runs[i - 1].short + runs[i].short };
      out.push(runs.toSpliced(i - 1, 2, joined));
    }
    for (let cut = 1; cut < runs[i].short; cut++)
      out.push(runs.toSpliced(i, 1, { long: 0, short: cut }, { ...runs[i], short: runs[i].short - cut }));
  }
  return out;
}

/** The runs in which a press was answered, by the rests and lengths of the dialect at a tempo. */
function runsIn({ digits, marks, gaps }: Dialect, track: Track, tempo: number): Run[] {
  const { onset, length, said } = track;
  const long = (i: number) =>
    digits.style === "long-short" &&
    (said[i] ? said[i] === 2 : length[i] > Math.sqrt(marks.short * (marks.long ?? marks.short)) * tempo);
  const runs: Run[] = [];
  for (let i = 0; i < onset.length; i++) {
    const before = i ? (long(i - 1) ? marks.long! : marks.short) : 0;
    // Between the digits it rests longer than within one; where both rest alike there is one run.
    const step = (before + Math.sqrt(gaps.flash * gaps.digit)) * tempo;
    const parts = digits.style === "counted" && i > 0 && onset[i] - onset[i - 1] > step;
    if (!i || parts) runs.push({ long: 0, short: 0 });
    if (long(i)) runs[runs.length - 1].long++;
    else runs[runs.length - 1].short++;
  }
  return runs;
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
  /** Did a press show anything? */
  seen: readonly boolean[],
  counts: readonly Sign[],
  log: (press: number, sign: Sign) => number,
): Walked {
  const n = counts.length;
  const prefix = new Float64Array(seen.length);
  const ways: [by: number, log: number][] =
    n > 1
      ? [
          [0, Math.log(STEP.again)],
          [1, Math.log(STEP.next)],
          [2, Math.log(STEP.skip)],
        ]
      : [[1, 0]];
  /** For each press that showed something: by how many codes the best way to each place went on; 0 places before the first. */
  const steps: { press: number; by: number[] }[] = [];
  // Before the first flash the place is open; then it is that of the code shown last.
  let forward = null as number[] | null;
  let best: number[] = [];
  for (let k = 0; k < seen.length; k++) {
    const old = forward;
    if (!seen[k]) {
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
      const by = counts.map((_, j) =>
        ways.reduce((x, y) => (was[from(j, y[0])] + y[1] > was[from(j, x[0])] + x[1] ? y : x)),
      );
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
  /** How each press reads by itself, and the sign that explains it best. */
  read: readonly (Sign | null)[],
  best: readonly (Sign | null)[],
  seen: readonly boolean[],
  /** Log probability of what a press showed, given its sign, for each way in which it may have been watched. */
  ways: readonly ((press: number, sign: Sign) => number)[],
  whole: readonly boolean[],
  late: readonly boolean[],
  tempo: number,
  noise: number,
): View<null, Presses> {
  const showings = (signs: readonly (Sign | null)[]) =>
    signs.flatMap((sign) => (sign === null ? [] : [showing(dialect, runsOfSign(sign))]));
  const score = ({ signs }: Presses) => {
    if (!signs.length) return { logLik: -50 * seen.length, prefix: new Float64Array(seen.length), cost: seen.length };
    const walks = ways.map((log) => walk(seen, signs, log));
    const prefix = walks[0].prefix.map(
      (_, k) => walks.map((w) => w.prefix[k]).reduce(logAdd, -Infinity) - Math.log(ways.length),
    );
    return { logLik: prefix[seen.length - 1], prefix, cost: seen.length };
  };
  return {
    settings: [null],
    readings: () => [showings(read), showings(best)],
    prepare: (show) => {
      const all = [...show.lead.flashes, ...(show.loop?.flashes ?? [])];
      const units = [...new Set(all.map((f) => f.unit))];
      const runsOfUnit = (u: Unit) =>
        (u.code !== undefined && runsOf(dialect, u.code)) || [
          { long: 0, short: all.filter((f) => f.unit === u).length },
        ];
      return { units, signs: units.map((u) => signOf(runsOfUnit(u))) };
    },
    score,
    weigh: (p) => score(p).logLik,
    refit: () => null,
    spans: ({ units, signs }) => {
      if (!units.length) return [];
      const { places } = ways.map((log) => walk(seen, signs, log)).reduce((a, b) => (b.logLik > a.logLik ? b : a));
      return places.flatMap((at, k) =>
        at < 0
          ? []
          : {
              unit: units[at % units.length],
              pass: Math.floor(at / units.length),
              full: whole[k] ? 1 : 0.2,
              marked: true,
              exact: read[k] === signs[at % units.length] && !late[k],
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
  const since = (t: Tap): Tap => (typeof t === "number" ? t - press : [t[0] - press, t[1]]);
  return trackOf(
    edges
      ? { mode: "edges", edges: edges.map(([t, lit]) => [t - press, lit] as const), until: until - press }
      : { mode: "taps", taps: (taps ?? []).map(since), until: until - press },
    dialect,
  );
}
