import type { Dialect } from "../dialect/dialect";
import type { Run } from "../dialect/digits";
import { seeded } from "../dialect/encode";
import { grammarOf } from "../walk/grammar";
import { RUN_OBSERVERS, type RunObserver } from "../seen/observer";
import { runWalksOf } from "../walk/run-walks";
import { fromStart, type Show, type Unit } from "../dialect/show";
import type { Score, Span, View } from "./view";
import { logAdd } from "../trellis/log";

/** A show as a row of runs: what somebody calls out who counts one run after the other. */
export interface Runs {
  runs: { unit: Unit; run: Run; even: boolean }[];
  next: Int32Array;
  loopAt: number;
  /** For each run, the probability that it is the first one seen whole. */
  begins: Float64Array;
}

/** At most so many runs in a row were not called, or were called and never shown. */
const MAX_SKIP = 4;
const MAX_EXTRA = 2;
const BEAM = 1e-7;
/** Density of a number that was called and belongs to nothing. */
const ANY_NUMBER = 1 / 12;
/** Fewest flashes of an even flashing that somebody calls as one large number. */
const EVEN_FROM = 5;
/** Who says that counting began with the key has mostly done so. */
const WITH_KEY = 0.99;
/** Readings drawn to propose lists from. */
const DRAWS = 40;

/** Called-out counts: the view that aligns numbers with the runs of a show; there are no times. */
export function runsView(dialect: Dialect, called: readonly Run[], withKey = false): View<null, Runs> {
  const grammar = grammarOf(dialect);
  const hear = (run: Run, c: Run, even: boolean) => emission({ run, even }, c, RUN_OBSERVERS[1]);
  const walks = runWalksOf(dialect, grammar, called, hear, withKey ? WITH_KEY : grammar.fromStart);
  const emissions = emissionsOf(called);
  return {
    settings: [null],
    readings: () => {
      const random = seeded(1);
      return Array.from({ length: DRAWS }, () => walks.draw(random));
    },
    prepare: (show) => runsOfShow(show, withKey),
    score: (runs, against) => mixed(runs, called, emissions, against),
    weigh: (runs) => mixed(runs, called, emissions).logLik,
    refit: () => null,
    spans: (runs) => spansOf(runs, viterbi(runs, called, RUN_OBSERVERS[1]), called),
    place: () => ({ onsets: [], assignment: [], missed: [] }),
    settingOf: () => null,
    anyList: () => walks.logLik,
    tempoOf: () => 1,
    noise: called.length * Math.log(ANY_NUMBER / 6) - 3,
    foreign: called.length * Math.log(ANY_NUMBER / 6) - 3,
    even: -Infinity,
    litAtEnd: null,
    count: called.length,
    breadth: 5,
  };
}

function runsOfShow(show: Show, withKey: boolean): Runs {
  const runs: Runs["runs"] = [];
  const onsets: number[] = [];
  let loopAt = -1;
  for (const section of [show.lead, show.loop]) {
    if (section === show.loop) loopAt = runs.length;
    let last: { unit: Unit; digit: number } | null = null;
    const offset = section === show.loop ? show.lead.ms : 0;
    for (const f of section?.flashes ?? []) {
      if (f.unit.kind === "steady") continue;
      if (!last || last.unit !== f.unit || last.digit !== f.digit) {
        runs.push({ unit: f.unit, run: { long: 0, short: 0 }, even: f.unit.kind === "even" });
        onsets.push(offset + f.at);
      }
      last = { unit: f.unit, digit: f.digit };
      const { run } = runs[runs.length - 1];
      if (f.long) run.long++;
      else run.short++;
    }
  }
  const n = runs.length;
  const loops = show.loop !== null && loopAt < n;
  return {
    runs,
    next: Int32Array.from({ length: n }, (_, i) => (i < n - 1 ? i + 1 : loops ? loopAt : -1)),
    loopAt: loops ? loopAt : n,
    begins: beginsOf(onsets, loops ? loopAt : n, show, withKey),
  };
}

/**
 * Who comes upon a show sees first the run after the moment of coming: the longer the wait before a run, the likelier it is the
 * first. Those who begin with the show see its first run.
 */
function beginsOf(onsets: readonly number[], loopAt: number, show: Show, withKey: boolean): Float64Array {
  const n = onsets.length;
  const loops = loopAt < n;
  const end = show.lead.ms + (show.loop?.ms ?? 0);
  const waits = onsets.map((at, i) => {
    if (loops && i === loopAt) return at - show.lead.ms + end - onsets[n - 1];
    return i ? at - onsets[i - 1] : at;
  });
  const total = waits.reduce((a, b) => a + b, 0) || 1;
  const start = withKey ? WITH_KEY : fromStart(loops);
  return Float64Array.from(waits, (ms, i) => ((1 - start) * ms) / total + (i === 0 ? start : 0));
}

/** An observer's rate of wrong numbers is that of runs of about so many flashes, up to twice as many; in a longer one a flash is sooner lost. */
const USUAL_RUN = 3;
const SHORT_RUN = 10;

/** Probability that a number of flashes is called as another. Who loses count of a long run calls fewer. */
export function heard(shown: number, called: number, o: RunObserver): number {
  const d = called - shown;
  if (shown <= SHORT_RUN) {
    if (d === 0) return 1 - o.wrong;
    return o.wrong * (Math.abs(d) === 1 ? 0.47 : Math.abs(d) === 2 ? 0.02 : 0.02 / 16);
  }
  const wrong = 1 - (1 - o.wrong) ** (shown / USUAL_RUN);
  if (d === 0) return 1 - wrong;
  return wrong * (d === -1 ? 0.6 : d === -2 ? 0.2 : d === 1 ? 0.15 : 0.05 / 16);
}

function emission(expected: Pick<Runs["runs"][number], "run" | "even">, called: Run, o: RunObserver): number {
  if (expected.even) return called.short >= EVEN_FROM ? 1 / 30 : 1e-4;
  const { long, short } = expected.run;
  if (long === 0 && called.long === 0) return heard(short, called.short, o);
  return heard(long, called.long, o) * heard(short, called.short, o);
}

/** Emissions of each run against all that was called, by observer: lists that are tried are made of the same few runs. */
type Emissions = (run: Runs["runs"][number]) => readonly Float64Array[];

function emissionsOf(called: readonly Run[]): Emissions {
  const known = new Map<number, Float64Array[]>();
  return (run) => {
    const key = run.even ? -1 : run.run.long * 1000 + run.run.short;
    let rows = known.get(key);
    if (!rows) known.set(key, (rows = RUN_OBSERVERS.map((o) => Float64Array.from(called, (c) => emission(run, c, o)))));
    return rows;
  };
}

/**
 * Who called is not known: a careful and a hurried person are weighed together. Picking the one that fits best would be sure of
 * every list without a visible slip, and a slip in a list that is shown once is never visible.
 */
function mixed(runs: Runs, called: readonly Run[], emissions: Emissions, against?: Score): Score {
  let sum: Score | null = null;
  const all = runs.runs.map(emissions);
  for (const [i, o] of RUN_OBSERVERS.entries()) {
    const own = all.map((rows) => rows[i]);
    const one = forward(runs, called.length, own, o);
    const share = Math.log(o.share);
    if (!sum) sum = { logLik: one.logLik + share, prefix: one.prefix.map((p) => p + share), cost: one.cost };
    else {
      sum.logLik = logAdd(sum.logLik, one.logLik + share);
      for (let m = 0; m < called.length; m++) sum.prefix[m] = logAdd(sum.prefix[m], one.prefix[m] + share);
    }
  }
  if (against && called.length && sum!.prefix[called.length - 1] < against.prefix[called.length - 1] - 22)
    sum!.logLik = -Infinity;
  return sum!;
}

/** Log probability of `count` numbers, given the runs shown; `emitted` holds for each run how well it explains each number. */
function forward({ next, begins }: Runs, count: number, emitted: readonly Float64Array[], o: RunObserver): Score {
  const n = emitted.length;
  const prefix = new Float64Array(count);
  const extra = o.extra * ANY_NUMBER;
  if (!n) {
    const log = count * Math.log(extra);
    return { logLik: log, prefix: prefix.fill(log), cost: 0 };
  }
  const ring = Array.from({ length: MAX_EXTRA + 2 }, () => new Float64Array(n));
  const called = 1 - o.skip;
  for (let m = 0; m < count; m++) {
    const weight = ring[m % ring.length].fill(0);
    const reference = m ? prefix[m - 1] : 0;
    if (m <= MAX_EXTRA) {
      const first = extra ** m / Math.exp(reference);
      for (let j = 0; j < n; j++) weight[j] += (begins[j] + (j === 1 ? begins[0] * o.skip : 0)) * first * emitted[j][m];
    }
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m; back++) {
      const from = ring[(m - back) % ring.length];
      const factor = Math.exp(prefix[m - back] - reference) * extra ** (back - 1);
      for (let i = 0; i < n; i++) {
        if (from[i] === 0) continue;
        let w = from[i] * factor;
        let j = i;
        for (let skip = 0; skip <= MAX_SKIP && next[j] >= 0; skip++) {
          j = next[j];
          weight[j] += w * called * emitted[j][m];
          w *= o.skip;
        }
      }
    }
    let max = 0;
    for (let j = 0; j < n; j++) if (weight[j] > max) max = weight[j];
    let sum = 0;
    for (let j = 0; j < n; j++) {
      if (weight[j] < max * BEAM) weight[j] = 0;
      sum += weight[j];
    }
    if (sum > 0) for (let j = 0; j < n; j++) weight[j] /= sum;
    prefix[m] = sum > 0 ? reference + Math.log(sum) : -1e6;
  }
  return { logLik: count ? prefix[count - 1] : 0, prefix, cost: count };
}

/** Unrolled index of the run that each number belongs to, -1 for none. */
function viterbi({ runs, next, begins }: Runs, called: readonly Run[], o: RunObserver): number[] {
  const n = runs.length;
  if (!n) return called.map(() => -1);
  interface Node {
    j: number;
    u: number;
    m: number;
    log: number;
    from: Node | null;
  }
  const extra = Math.log(o.extra * ANY_NUMBER);
  const rows: Node[][] = [];
  for (const [m, run] of called.entries()) {
    const row = new Map<number, Node>();
    const put = (node: Node) => {
      if ((row.get(node.j)?.log ?? -Infinity) < node.log) row.set(node.j, node);
    };
    if (m <= MAX_EXTRA)
      for (let j = 0; j < n; j++) {
        const prior = begins[j] + (j === 1 ? begins[0] * o.skip : 0);
        put({ j, u: j, m, log: Math.log(prior * emission(runs[j], run, o)) + m * extra, from: null });
      }
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m; back++)
      for (const from of rows[m - back]) {
        let j = from.j;
        let log = from.log + (back - 1) * extra + Math.log(1 - o.skip);
        for (let skip = 0; skip <= MAX_SKIP && next[j] >= 0; skip++) {
          j = next[j];
          put({ j, u: from.u + skip + 1, m, log: log + Math.log(emission(runs[j], run, o)), from });
          log += Math.log(o.skip);
        }
      }
    rows.push([...row.values()].sort((a, b) => b.log - a.log).slice(0, m < 12 ? undefined : 40));
  }
  const out = called.map(() => -1);
  for (let node: Node | null = rows.at(-1)?.[0] ?? null; node; node = node.from) out[node.m] = node.u;
  return out;
}

/** A showing was seen in full when all of its runs lie between the first and the last one called. */
function spansOf({ runs, loopAt }: Runs, unrolled: readonly number[], calledRuns: readonly Run[]): Span[] {
  const used = unrolled.filter((u) => u >= 0);
  if (!used.length) return [];
  const [first, last] = [Math.min(...used), Math.max(...used)];
  const length = runs.length - loopAt;
  const fold = (u: number) =>
    u < runs.length || !length
      ? { i: u, round: 0 }
      : { i: loopAt + ((u - loopAt) % length), round: Math.floor((u - loopAt) / length) };
  const called = new Map(unrolled.map((u, m) => [u, m]));
  const asShown = (u: number): boolean => {
    const m = called.get(u);
    if (m === undefined) return false;
    const { run, even } = runs[fold(u).i];
    const beside = [unrolled[m - 1] ?? 0, unrolled[m + 1] ?? 0];
    return (
      beside.every((x) => x >= 0) && (even || (run.long === calledRuns[m].long && run.short === calledRuns[m].short))
    );
  };
  const spans: Span[] = [];
  for (let u = first; u <= last; u++) {
    const { i, round } = fold(u);
    const { unit } = runs[i];
    if (u > first && fold(u - 1).round === round && runs[fold(u - 1).i].unit === unit) continue;
    let k = i;
    while (k > 0 && runs[k - 1].unit === unit) k--;
    let end = i;
    while (end + 1 < runs.length && runs[end + 1].unit === unit) end++;
    const [from, to] = [u - (i - k), u + (end - i)];
    const all = Array.from({ length: to - from + 1 }, (_, x) => from + x);
    const marked = all.some((x) => called.has(x));
    spans.push({ unit, pass: round, full: Number(from >= first && to <= last), marked, exact: all.every(asShown) });
  }
  return spans;
}
