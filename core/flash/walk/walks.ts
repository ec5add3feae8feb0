import { FIRST, newClock, peakEnd, peakOnset, tick, type Clock, type Lengths } from "../seen/density";
import { choose } from "./draw";
import type { Track } from "../seen/evidence";
import type { Grammar, GrammarNode } from "./grammar";
import type { Observer } from "../seen/observer";
import { logExtras, MAX_EXTRA } from "../seen/spurious";
import { arrive, column, positions, settle, type Column, type Positions } from "../trellis/column";
import { firstFrom } from "../trellis/first";

/** One flash of a walk through the grammar: seen as a mark, or missed. */
export interface Pace {
  node: GrammarNode;
  /** Index of its mark, or -1 where it was missed. */
  mark: number;
  /** A new unit begins with it; the list begins anew with it. */
  fresh: boolean;
  again: boolean;
  /** From the onset of the flash before, ms nominal; NaN where the walk begins or jumps. */
  step: number;
}

/** How the row of marks may have come about, whatever the list: draws of walks, and how well the grammar fits at all. */
export interface Walks {
  /** -Infinity where it was given up on the way. */
  logLik: number;
  /** How well each mark and all before it are explained, log: what other grammars are held against. */
  prefix: Float64Array;
  /** Draws a walk in proportion to its probability. */
  draw: (random: () => number) => Pace[];
}

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
/** A grammar that has fallen so far behind another is given up, nats. */
const LEFT_BEHIND = 15;
/** What adds less than this share of the best one's weight to a hidden position is left out. */
const NEGLIGIBLE = BEAM / 10;

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
  way: { to: number; fresh: boolean; again: boolean; step: number };
  before: Via | null;
}

/**
 * The forward algorithm over the grammar, keeping every step so that walks can be drawn backwards
 * (forward filtering, backward sampling). Only the first `most` marks are looked at.
 * @param keep false where nothing will be drawn and only the likelihood is wanted
 * @param against how well another grammar explains the same marks: what falls far behind is given up
 */
export function walksOf(
  grammar: Grammar,
  track: Track,
  tempo: number,
  o: Observer,
  most: number,
  keep = true,
  against?: Float64Array,
): Walks {
  const marks = Math.min(track.onset.length, most);
  const { nodes } = grammar;
  const seen = nodes.map((node) => track.mode !== "taps" || node.kind !== "steady");
  const run: Run = {
    grammar,
    track,
    o,
    seen,
    chains: chainsFor(grammar, seen, o, track.mode),
    lengths: {
      alone: Float64Array.from(nodes, (node) => node.ms * tempo),
      merged: new Float64Array(nodes.length).fill(NaN),
    },
    tempo,
    column: column(nodes.length),
    clock: newClock(),
    steps: keep ? [] : null,
  };
  const logExtra = logExtras(track, o);
  const visible = seen.reduce((k, s) => k + Number(s), 0);
  const alpha: Positions[] = [];
  const prefix = new Float64Array(marks);
  const steps: Step[][] = [];
  let beginnings = 0;
  for (let m = 0; m < marks; m++) {
    const last = Math.min(m, MAX_EXTRA + 1);
    let reference = -Infinity;
    for (let back = 1; back <= last && reference === -Infinity; back++) reference = alpha[m - back].scale;
    if (reference === -Infinity) reference = beginnings;
    const pause = track.pause[m] !== null;
    for (let back = 1, extra = 0; back <= last && !pause; back++) {
      const relative = alpha[m - back].scale - reference + extra;
      extra += logExtra[m - back];
      if (relative >= -40) goOn(run, alpha[m - back], m, back, Math.exp(relative));
    }
    if (m <= MAX_EXTRA) beginAt(run, m, FIRST * Math.exp(beginnings - reference), visible);
    if (m > 0 && (pause || run.column.max < LOST)) {
      const weight = ((pause ? 1 : ANYWHERE) * FIRST * Math.exp(alpha[m - 1].scale - reference)) / visible;
      if (weight > 0) for (let j = 0; j < nodes.length; j++) if (seen[j]) putAnywhen(run, m, 1, j, weight, null);
    }
    const { max } = run.column;
    const here = keep ? positions(run.column.size) : (alpha[m - MAX_EXTRA - 2] ?? positions(nodes.length));
    settle(run.column, here, BEAM, reference);
    alpha.push(here);
    prefix[m] = Math.max(here.scale, (m ? prefix[m - 1] : 0) + logExtra[m]);
    if (against && prefix[m] < against[m] - LEFT_BEHIND) return { logLik: -Infinity, prefix, draw: () => [] };
    if (run.steps) {
      const alive = new Set(here.index.subarray(0, here.size));
      steps.push(run.steps.filter((s) => s.weight > max * BEAM && alive.has(s.to)));
      run.steps = [];
    }
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
  return {
    logLik,
    prefix,
    draw: (random) => (best === -Infinity ? [] : drawn(nodes, alpha, steps, ends, best, random)),
  };
}

/** What walks are sought through, and what is known so far. */
interface Run {
  grammar: Grammar;
  track: Track;
  o: Observer;
  /** Which nodes are seen in this way of watching, and what comes after each. */
  seen: readonly boolean[];
  chains: readonly Chains[];
  lengths: Lengths;
  tempo: number;
  column: Column;
  clock: Clock;
  /** Steps to the mark at hand; null where nothing will be drawn. */
  steps: Step[] | null;
}

/** Mark `m` is node `to`, by a step of that weight, where the clock stands as `clock` tells. */
function put(run: Run, m: number, back: number, from: number, to: number, weight: number, via: Via | null): void {
  const { grammar, track, o, lengths, column, clock, steps } = run;
  clock.least = (column.max * NEGLIGIBLE) / weight;
  tick(clock, o, track.length, m, lengths, to);
  const said = track.said[m];
  if (said) clock.p *= (said === 2) === grammar.nodes[to].long ? 1 - o.misnamed : o.misnamed;
  clock.p *= weight;
  if (clock.p <= 0) return;
  if (steps) steps.push({ back, from, to, weight: clock.p, via });
  arrive(column, to, clock);
}

/** The same where nothing was expected. */
function putAnywhen(run: Run, m: number, back: number, to: number, weight: number, via: Via | null): void {
  run.clock.variance = Infinity;
  put(run, m, back, -1, to, weight, via);
}

/** Mark `m` is a later flash than mark `m - back` was. */
function goOn(run: Run, before: Positions, m: number, back: number, factor: number): void {
  const { track, o, chains, tempo, column, clock } = run;
  const noise = o.onsetSd ** 2;
  const dt = track.onset[m] - track.onset[m - back];
  const peak = peakOnset(o) * peakEnd(o, track.length[m]);
  for (let s = 0; s < before.size; s++) {
    const weight = before.weight[s] * factor;
    // What would be dropped with the beam anyway is not gone into.
    if (weight < 1e-6 || weight * peak < column.max * NEGLIGIBLE) continue;
    const from = before.index[s];
    const behind = before.late[s] - dt;
    const known = before.variance[s];
    const spread = known + noise;
    // Chains come shortest first: only those between the two bounds can fit.
    const { to, step, variance: added, p, via } = chains[from];
    const least = (-behind - REACH * Math.sqrt(spread + (JITTER_REACH * dt) ** 2)) / tempo;
    for (let i = firstFrom(step, least); i < step.length; i++) {
      const late = behind + step[i] * tempo;
      const variance = known + added[i] * tempo * tempo;
      const square = late * late;
      if (square > REACH * REACH * (variance + noise)) {
        if (late > 0 && square > REACH * REACH * (spread + (JITTER_REACH * step[i] * tempo) ** 2)) break;
        continue;
      }
      const w = weight * p[i];
      if (w * peak < column.max * NEGLIGIBLE) continue;
      clock.late = late;
      clock.variance = variance;
      put(run, m, back, from, to[i], w, via[i]);
    }
  }
}

/** The walk begins at mark `m`: with the show, or anywhere in it. */
function beginAt(run: Run, m: number, factor: number, visible: number): void {
  if (factor <= 0) return;
  const { grammar, seen } = run;
  const { fromStart } = grammar;
  for (const s of grammar.starts) {
    const via = { way: { to: s.node, fresh: true, again: true, step: NaN }, before: null };
    if (seen[s.node]) putAnywhen(run, m, 0, s.node, fromStart * s.p * factor, via);
    else
      for (const way of grammar.next[s.node])
        putAnywhen(run, m, 0, way.to, fromStart * s.p * way.p * factor, { way: { ...way, again: true, step: NaN }, before: null }); // prettier-ignore
  }
  for (let j = 0; j < seen.length; j++)
    if (seen[j]) putAnywhen(run, m, 0, j, ((1 - fromStart) / visible) * factor, null);
}

/** A walk in proportion to its probability, drawn backwards from the end. */
function drawn(
  nodes: readonly GrammarNode[],
  alpha: readonly Positions[],
  steps: readonly (readonly Step[])[],
  ends: readonly { m: number; log: number }[],
  best: number,
  random: () => number,
): Pace[] {
  const any = ({ index, weight, size }: Positions): number => {
    const all = Array.from(weight.subarray(0, size));
    return index[choose(all, (w) => w, random)];
  };
  let m = ends[choose(ends, (e) => Math.exp(e.log - best), random)].m;
  let j = any(alpha[m]);
  const paces: Pace[] = [];
  for (;;) {
    const options = steps[m].filter((s) => s.to === j);
    const s = options[choose(options, (o) => o.weight, random)];
    let mark = m;
    let via = s?.via ?? null;
    if (!via) paces.push({ node: nodes[j], mark, fresh: s?.from === -1, again: s?.from === -1, step: NaN });
    for (; via; via = via.before) {
      const node = nodes[via.way.to];
      paces.push({ node, mark, fresh: via.way.fresh, again: via.way.again, step: via.way.step });
      mark = -1;
    }
    if (!s || s.back === 0) break;
    m -= s.back;
    j = s.from === -1 ? any(alpha[m]) : s.from;
  }
  return paces.reverse();
}

/** Ways from one flash to the later ones that are seen, by flashes that are missed; shortest first. */
interface Chains {
  to: Int32Array;
  /** Onset to onset, ms nominal, and its variance. */
  step: Float64Array;
  variance: Float64Array;
  p: Float64Array;
  via: Via[];
}

/** The chains from each node. They depend on the observer only by how much is missed. */
function chainsOf(grammar: Grammar, seen: readonly boolean[], miss: number): Chains[] {
  // Grown once and used for each node: making these is most of what a look at a grammar costs.
  const to: number[] = [];
  const step: number[] = [];
  const variance: number[] = [];
  const p: number[] = [];
  const via: Via[] = [];
  let n = 0;
  /** Puts a chain behind those that are as short. */
  const put = (node: number, ms: number, square: number, chance: number, ways: Via): void => {
    let i = n++;
    for (; i > 0 && step[i - 1] > ms; i--) {
      to[i] = to[i - 1];
      step[i] = step[i - 1];
      variance[i] = variance[i - 1];
      p[i] = p[i - 1];
      via[i] = via[i - 1];
    }
    to[i] = node;
    step[i] = ms;
    variance[i] = square;
    p[i] = chance;
    via[i] = ways;
  };
  const go = (at: number, ms: number, square: number, chance: number, before: Via | null, depth: number): void => {
    for (const way of grammar.next[at]) {
      const q = chance * way.p;
      if (q < LEAST) continue;
      const ways: Via = { way, before };
      const sees = seen[way.to];
      if (sees) put(way.to, ms + way.step, square + way.variance, q * (1 - miss), ways);
      if (depth < DEEPEST) go(way.to, ms + way.step, square + way.variance, sees ? q * miss : q, ways, depth + 1);
    }
  };
  return grammar.nodes.map((_, from) => {
    n = 0;
    go(from, 0, 0, 1, null, 0);
    const row = <T extends Int32Array | Float64Array>(into: T, of: readonly number[]): T => {
      for (let i = 0; i < n; i++) into[i] = of[i];
      return into;
    };
    return {
      to: row(new Int32Array(n), to),
      step: row(new Float64Array(n), step),
      variance: row(new Float64Array(n), variance),
      p: row(new Float64Array(n), p),
      via: via.slice(0, n),
    };
  });
}

/** Chains are made once for each grammar and observer. */
const known = new WeakMap<Grammar, Map<string, Chains[]>>();

function chainsFor(grammar: Grammar, seen: readonly boolean[], o: Observer, mode: Track["mode"]): Chains[] {
  const of = known.get(grammar) ?? known.set(grammar, new Map()).get(grammar)!;
  const key = `${mode === "taps"} ${o.miss}`;
  return of.get(key) ?? of.set(key, chainsOf(grammar, seen, o.miss)).get(key)!;
}
