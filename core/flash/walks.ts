import { extraDensity, FIRST, tick, type Clock } from "./density";
import { choose } from "./draw";
import type { Track } from "./evidence";
import type { Grammar, GrammarNode } from "./grammar";
import type { Observer } from "./observer";

/** One flash of a walk through the grammar: seen as a mark, or missed. */
export interface Pace {
  node: GrammarNode;
  /** Index of its mark, or -1 where it was missed. */
  mark: number;
  /** A new unit begins with it; the list begins anew with it. */
  fresh: boolean;
  again: boolean;
}

/** How the row of marks may have come about, whatever the list: draws of walks, and how well the grammar fits at all. */
export interface Walks {
  logLik: number;
  /** Draws a walk in proportion to its probability. */
  draw: (random: () => number) => Pace[];
}

/** At most so many marks in a row are taken for spurious. */
const MAX_EXTRA = 3;
/** Ways with a chance below this are not followed. */
const LEAST = 3e-5;
const DEEPEST = 5;
/** Flashes more standard deviations away than this are never taken for a mark. */
const REACH = 5.5;
/** Jitter of an interval as a share of it, at most. */
const JITTER_REACH = 0.035;
/** Chance that the show goes on from anywhere: nobody watched, or marks that nothing explains. */
const ANYWHERE = 1e-7;
/** Density below which marks count as explained by nothing. */
const LOST = 1e-12;
/** A hidden position this far behind the best one is dropped. */
const BEAM = 1e-4;

/** A step from one mark to a later one, by flashes that were missed; `from` is -1 where the walk begins or jumps. */
interface Step {
  back: number;
  from: number;
  to: number;
  weight: number;
  via: Via | null;
}

/** Ways taken, newest first. */
interface Via {
  way: { to: number; fresh: boolean; again: boolean };
  before: Via | null;
}

/**
 * The forward algorithm over the grammar, keeping every step so that walks can be drawn backwards
 * (forward filtering, backward sampling). Only the first `most` marks are looked at.
 * @param keep false where nothing will be drawn and only the likelihood is wanted
 */
// eslint-disable-next-line max-lines-per-function -- one loop over the pictures: its parts share rows that are written in place
export function walksOf(grammar: Grammar, track: Track, tempo: number, o: Observer, most: number, keep = true): Walks {
  const marks = Math.min(track.onset.length, most);
  const n = grammar.nodes.length;
  const seen = grammar.nodes.map((node) => track.mode !== "taps" || node.kind !== "steady");
  const steps: Step[][] = [];
  const alpha: { index: number[]; weight: Float64Array; late: Float64Array; variance: Float64Array; scale: number }[] =
    [];
  const logExtra = Array.from({ length: marks }, (_, m) => Math.log(extraDensity(track, m, o)));
  const visible = seen.reduce((k, s) => k + Number(s), 0);
  const chains = chainsFor(grammar, seen, o, track.mode);
  const noise = o.onsetSd ** 2;
  const { fromStart } = grammar;
  const dense = new Float64Array(n);
  const lateSum = new Float64Array(n);
  const squareSum = new Float64Array(n);

  const clock: Clock = { p: 0, late: 0, variance: 0 };
  /** Takes mark `m` in as node `j`; leaves the probability of that in `clock.p`. */
  const take = (m: number, j: number, late: number, variance: number): void => {
    const node = grammar.nodes[j];
    tick(clock, late, variance, o, track.length[m], node.ms * tempo, NaN);
    const said = track.said[m];
    if (said) clock.p *= (said === 2) === node.long ? 1 - o.misnamed : o.misnamed;
  };

  let beginnings = 0;
  for (let m = 0; m < marks; m++) {
    const here: Step[] = [];
    let max = 0;
    const put = (
      back: number,
      from: number,
      to: number,
      weight: number,
      via: Via | null,
      late: number,
      variance: number,
    ): void => {
      take(m, to, late, variance);
      const w = weight * clock.p;
      if (w <= 0) return;
      if (keep) here.push({ back, from, to, weight: w, via });
      dense[to] += w;
      lateSum[to] += w * clock.late;
      squareSum[to] += w * (clock.variance + clock.late ** 2);
      max = Math.max(max, dense[to]);
    };
    let reference = -Infinity;
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m && reference === -Infinity; back++)
      reference = alpha[m - back].scale;
    if (reference === -Infinity) reference = beginnings;
    const pause = track.pause[m] !== null;
    let extras = 0;
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m && !pause; back++) {
      const before = alpha[m - back];
      const relative = before.scale - reference + extras;
      extras += logExtra[m - back];
      if (relative < -40) continue;
      const factor = Math.exp(relative);
      const dt = track.onset[m] - track.onset[m - back];
      for (const from of before.index) {
        const weight = before.weight[from] * factor;
        if (weight < 1e-6) continue;
        const behind = before.late[from] - dt;
        const spread = before.variance[from] + noise;
        // Chains come shortest first: only those between the two bounds can fit.
        const list = chains[from];
        const least = (-behind - REACH * Math.sqrt(spread + (JITTER_REACH * dt) ** 2)) / tempo;
        for (let i = firstFrom(list, least); i < list.length; i++) {
          const c = list[i];
          const late = behind + c.step * tempo;
          const variance = before.variance[from] + c.variance * tempo * tempo;
          const square = late * late;
          if (square > REACH * REACH * (variance + noise)) {
            if (late > 0 && square > REACH * REACH * (spread + (JITTER_REACH * c.step * tempo) ** 2)) break;
            continue;
          }
          put(back, from, c.to, weight * c.p, c.via, late, variance);
        }
      }
    }
    // The walk begins here, or goes on from anywhere.
    const begin = m <= MAX_EXTRA ? FIRST * Math.exp(beginnings - reference) : 0;
    if (begin > 0) {
      for (const s of grammar.starts) {
        const via = { way: { to: s.node, fresh: true, again: true }, before: null };
        if (seen[s.node]) put(0, -1, s.node, fromStart * s.p * begin, via, 0, Infinity);
        else
          for (const way of grammar.next[s.node])
            put(
              0,
              -1,
              way.to,
              fromStart * s.p * way.p * begin,
              { way: { ...way, again: true }, before: null },
              0,
              Infinity,
            );
      }
      for (let j = 0; j < n; j++) if (seen[j]) put(0, -1, j, ((1 - fromStart) / visible) * begin, null, 0, Infinity);
    }
    if (m > 0 && (pause || max < LOST)) {
      const jump = pause ? 1 : ANYWHERE;
      const weight = (jump * FIRST * Math.exp(alpha[m - 1].scale - reference)) / visible;
      if (weight > 0) for (let j = 0; j < n; j++) if (seen[j]) put(1, -1, j, weight, null, 0, Infinity);
    }
    const weight = new Float64Array(n);
    const late = new Float64Array(n);
    const variance = new Float64Array(n);
    const index: number[] = [];
    let sum = 0;
    for (let j = 0; j < n; j++) {
      if (dense[j] > max * BEAM) {
        weight[j] = dense[j];
        late[j] = lateSum[j] / dense[j];
        variance[j] = squareSum[j] / dense[j] - late[j] ** 2;
        sum += dense[j];
        index.push(j);
      }
      dense[j] = 0;
      lateSum[j] = 0;
      squareSum[j] = 0;
    }
    if (sum > 0) for (const j of index) weight[j] /= sum;
    alpha.push({ index, weight, late, variance, scale: sum > 0 ? reference + Math.log(sum) : -Infinity });
    if (keep) steps.push(here.filter((s) => weight[s.to] > 0 && s.weight > max * BEAM));
    beginnings += logExtra[m];
  }

  const ends: { m: number; log: number }[] = [];
  for (let back = 1, e = 0; back <= MAX_EXTRA + 1 && back <= marks; back++) {
    ends.push({ m: marks - back, log: alpha[marks - back].scale + e });
    e += logExtra[marks - back];
  }
  const best = Math.max(-Infinity, ...ends.map((e) => e.log));
  const logLik =
    best === -Infinity ? beginnings : best + Math.log(ends.reduce((s, e) => s + Math.exp(e.log - best), 0));

  const draw = (random: () => number): Pace[] => {
    if (best === -Infinity) return [];
    let m = ends[choose(ends, (e) => Math.exp(e.log - best), random)].m;
    let j = alpha[m].index[choose(alpha[m].index, (i) => alpha[m].weight[i], random)];
    const paces: Pace[] = [];
    for (;;) {
      const options = steps[m].filter((s) => s.to === j);
      const s = options[choose(options, (o) => o.weight, random)];
      let mark = m;
      let via = s?.via ?? null;
      if (!via) paces.push({ node: grammar.nodes[j], mark, fresh: s?.from === -1, again: s?.from === -1 });
      for (; via; via = via.before) {
        const node = grammar.nodes[via.way.to];
        paces.push({ node, mark, fresh: via.way.fresh, again: via.way.again });
        mark = -1;
      }
      if (!s || s.back === 0) break;
      m -= s.back;
      if (s.from === -1) j = alpha[m].index[choose(alpha[m].index, (i) => alpha[m].weight[i], random)];
      else j = s.from;
    }
    return paces.reverse();
  };
  return { logLik, draw };
}

/** A way from one flash to a later one that is seen, by flashes that are missed. */
interface Chain {
  to: number;
  step: number;
  variance: number;
  p: number;
  via: Via;
}

/** The chains from each node, shortest first. They depend on the observer only by how much is missed. */
function chainsOf(grammar: Grammar, seen: readonly boolean[], miss: number): Chain[][] {
  return grammar.nodes.map((_, from) => {
    const chains: Chain[] = [];
    const go = (at: number, step: number, variance: number, p: number, via: Via | null, depth: number): void => {
      for (const way of grammar.next[at]) {
        const q = p * way.p;
        if (q < LEAST) continue;
        const here = {
          to: way.to,
          step: step + way.step,
          variance: variance + way.variance,
          via: { way, before: via },
        };
        if (seen[way.to]) chains.push({ ...here, p: q * (1 - miss) });
        if (depth < DEEPEST) go(way.to, here.step, here.variance, seen[way.to] ? q * miss : q, here.via, depth + 1);
      }
    };
    go(from, 0, 0, 1, null, 0);
    return chains.sort((a, b) => a.step - b.step);
  });
}

/** Chains are made once for each grammar and observer. */
const known = new WeakMap<Grammar, Map<string, Chain[][]>>();

function chainsFor(grammar: Grammar, seen: readonly boolean[], o: Observer, mode: Track["mode"]): Chain[][] {
  const of = known.get(grammar) ?? known.set(grammar, new Map()).get(grammar)!;
  const key = `${mode === "taps"} ${o.miss}`;
  return of.get(key) ?? of.set(key, chainsOf(grammar, seen, o.miss)).get(key)!;
}

/** Index of the first chain that is at least so long. */
function firstFrom(list: readonly Chain[], step: number): number {
  let lo = 0;
  let hi = list.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (list[mid].step < step) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}
