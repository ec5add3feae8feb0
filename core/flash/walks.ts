import { extraDensity, tick, type Clock } from "./density";
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
const LEAST = 3e-6;
const DEEPEST = 6;
/** Chance that the show goes on from anywhere: nobody watched, or marks that nothing explains. */
const ANYWHERE = 1e-7;
/** A hidden position this far behind the best one is dropped. */
const BEAM = 1e-6;

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
 */
export function walksOf(grammar: Grammar, track: Track, tempo: number, o: Observer, most: number): Walks {
  const marks = Math.min(track.onset.length, most);
  const n = grammar.nodes.length;
  const seen = grammar.nodes.map((node) => track.mode !== "taps" || node.kind !== "steady");
  const steps: Step[][] = [];
  const alpha: { index: number[]; weight: Float64Array; late: Float64Array; variance: Float64Array; scale: number }[] =
    [];
  const logExtra = Array.from({ length: marks }, (_, m) => Math.log(extraDensity(track, m, o)));
  const visible = seen.reduce((k, s) => k + Number(s), 0);
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
    const put = (step: Step, late: number, variance: number): void => {
      take(m, step.to, late, variance);
      step.weight *= clock.p;
      if (step.weight <= 0) return;
      here.push(step);
      dense[step.to] += step.weight;
      lateSum[step.to] += step.weight * clock.late;
      squareSum[step.to] += step.weight * (clock.variance + clock.late ** 2);
      max = Math.max(max, dense[step.to]);
    };
    const putNew = (step: Step): void => put(step, 0, Infinity);
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
        if (weight < 1e-9) continue;
        walk(
          grammar,
          seen,
          from,
          before.late[from] - dt,
          before.variance[from],
          tempo,
          o,
          (to, p, late, variance, via) => {
            put({ back, from, to, weight: weight * p, via }, late, variance);
          },
        );
      }
    }
    // The walk begins here, or goes on from anywhere.
    const begin = m <= MAX_EXTRA ? Math.exp(beginnings - reference) : 0;
    if (begin > 0) {
      for (const s of grammar.starts) {
        const via = { way: { to: s.node, fresh: true, again: true }, before: null };
        if (seen[s.node]) putNew({ back: 0, from: -1, to: s.node, weight: 0.5 * s.p * begin, via });
        else
          for (const way of grammar.next[s.node])
            here.push({ back: 0, from: -1, to: way.to, weight: 0.5 * s.p * way.p * begin, via: { way: { ...way, again: true }, before: null } }); // prettier-ignore
      }
      for (let j = 0; j < n; j++)
        if (seen[j]) putNew({ back: 0, from: -1, to: j, weight: (0.5 / visible) * begin, via: null });
    }
    if (m > 0) {
      const jump = pause ? 1 : ANYWHERE;
      const weight = (jump * Math.exp(alpha[m - 1].scale - reference)) / visible / 5000;
      if (weight > 0) for (let j = 0; j < n; j++) if (seen[j]) putNew({ back: 1, from: -1, to: j, weight, via: null });
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
    steps.push(here.filter((s) => weight[s.to] > 0 && s.weight > max * BEAM));
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

/** Every flash that may be `dt` after flash `from`, with those between missed. */
function walk(
  grammar: Grammar,
  seen: readonly boolean[],
  from: number,
  late: number,
  variance: number,
  tempo: number,
  o: Observer,
  found: (to: number, p: number, late: number, variance: number, via: Via) => void,
): void {
  const go = (at: number, late: number, variance: number, p: number, via: Via | null, depth: number): void => {
    for (const way of grammar.next[at]) {
      const q = p * way.p;
      if (q < LEAST) continue;
      const then = late + way.step * tempo;
      const v = variance + way.variance * tempo * tempo;
      const square = then * then;
      const sum = v + o.onsetSd ** 2;
      if (then > 0 && square > 36 * sum) continue;
      const here: Via = { way, before: via };
      if (seen[way.to] && square <= 60 * sum) found(way.to, q * (1 - o.miss), then, v, here);
      if (depth < DEEPEST) go(way.to, then, v, seen[way.to] ? q * o.miss : q, here, depth + 1);
    }
  };
  go(from, late, variance, 1, null, 0);
}

function choose<T>(list: readonly T[], weight: (item: T) => number, random: () => number): number {
  let sum = 0;
  for (const item of list) sum += weight(item);
  let u = random() * sum;
  for (let i = 0; i < list.length; i++) {
    u -= weight(list[i]);
    if (u <= 0) return i;
  }
  return list.length - 1;
}
