import type { Dialect } from "../dialect/dialect";
import type { Run } from "../dialect/digits";
import { choose } from "./draw";
import type { Grammar, Way } from "./grammar";
import { onceFor } from "../dialect/once";
import { showing, type Showing } from "./reading";

/** A run that the grammar can show: so many long and short flashes up to the node at which it ends. */
interface Shown {
  start: number;
  end: number;
  run: Run;
  /** Probability of this length, given that the run starts. */
  p: number;
}

/** Where nothing fits (a run that was not called, a number that was made up) the show goes on from anywhere, with this chance. */
const ANYWHERE = 1e-4;

/** The counterpart of `Walks` where there are no times. */
export interface RunWalks {
  logLik: number;
  /** Draws a reading in proportion to its probability. */
  draw: (random: () => number) => Showing[];
}

/**
 * How a row of called numbers may have come about, whatever the list: the forward algorithm over the runs of the grammar, and
 * draws from it. The counterpart of `walks` where there are no times.
 * @param heard probability that a run is called as `called`
 * @param fromStart probability that counting began with the show
 */
export function runWalksOf(
  dialect: Dialect,
  grammar: Grammar,
  called: readonly Run[],
  heard: (shown: Run, called: Run, even: boolean) => number,
  fromStart = grammar.fromStart,
): RunWalks {
  const { runs, from, ways, into, entries } = courseOf(grammar);
  const { nodes } = grammar;
  const weights: Float64Array[] = [];
  let logLik = 0;
  for (const [m, c] of called.entries()) {
    const weight = new Float64Array(runs.length);
    const before = weights[m - 1];
    const arrive = (node: number, w: number) => {
      for (const i of from.get(node) ?? []) weight[i] += w * runs[i].p;
    };
    if (!before) {
      for (const e of entries) arrive(e.node, fromStart * e.p);
      for (const i of runs.keys()) weight[i] += (1 - fromStart) / runs.length;
    } else {
      for (const i of runs.keys()) if (before[i] > 1e-7) for (const way of ways[i]) arrive(way.to, before[i] * way.p);
      for (const i of runs.keys()) weight[i] += ANYWHERE / runs.length;
    }
    let sum = 0;
    for (const [i, r] of runs.entries()) sum += weight[i] *= heard(r.run, c, nodes[r.start].kind === "even");
    for (const i of runs.keys()) weight[i] /= sum || 1;
    logLik += Math.log(sum || 1e-300);
    weights.push(weight);
  }
  const indices = [...runs.keys()];
  const draw = (random: () => number): Showing[] => {
    const path: { i: number; way: Way | null }[] = [];
    let i = indices[choose(indices, (k) => weights[called.length - 1][k], random)];
    for (let m = called.length - 1; m >= 0; m--) {
      const options: { k: number; way: Way; w: number }[] = [];
      if (m > 0)
        for (const { k, way } of into.get(runs[i].start) ?? [])
          if (weights[m - 1][k] > 1e-7) options.push({ k, way, w: weights[m - 1][k] * way.p });
      const jump = ANYWHERE / runs.length / Math.max(runs[i].p, 1e-6);
      const total = options.reduce((s, o) => s + o.w, 0);
      if (m > 0 && total > 0 && random() > jump / (jump + total)) {
        const o = options[choose(options, (x) => x.w, random)];
        path.push({ i, way: o.way });
        i = o.k;
      } else {
        path.push({ i, way: null });
        if (m > 0) i = indices[choose(indices, (k) => weights[m - 1][k], random)];
      }
    }
    return gathered(dialect, grammar, runs, path.reverse());
  };
  return { logLik, draw };
}

/** A grammar as runs: which there are, which start at a node, how each goes on, and by which ways a node is come to. */
interface Course {
  runs: Shown[];
  from: Map<number, number[]>;
  ways: Way[][];
  into: Map<number, { k: number; way: Way }[]>;
  entries: { node: number; p: number }[];
}

const courseOf = onceFor((grammar: Grammar): Course => {
  const runs = runsIn(grammar);
  const ways = runs.map((r) => onward(grammar, r));
  const from = new Map<number, number[]>();
  for (const [i, r] of runs.entries()) from.set(r.start, [...(from.get(r.start) ?? []), i]);
  const into: Course["into"] = new Map();
  for (const [k, list] of ways.entries())
    for (const way of list) into.set(way.to, [...(into.get(way.to) ?? []), { k, way }]);
  return { runs, from, ways, into, entries: startsOf(grammar) };
});

/** Runs in a row of one unit are a showing; one that was begun in its middle is left out. */
function gathered(
  dialect: Dialect,
  grammar: Grammar,
  runs: readonly Shown[],
  path: readonly { i: number; way: Way | null }[],
): Showing[] {
  const out: Showing[] = [];
  for (let k = 0; k < path.length;) {
    const head = grammar.nodes[runs[path[k].i].start];
    let end = k + 1;
    while (end < path.length && path[end].way && !path[end].way!.fresh) end++;
    if (head.digit === 0 && (head.kind === "code" || head.kind === "fixed")) {
      const s = showing(
        dialect,
        path.slice(k, end).map((x) => runs[x.i].run),
        head.phase,
        path[k].way?.again ?? false,
      );
      out.push({ ...s, fixed: head.kind === "fixed" });
    }
    k = end;
  }
  return out;
}

const sameRun = (grammar: Grammar, a: number, way: Way): boolean => {
  const [x, y] = [grammar.nodes[a], grammar.nodes[way.to]];
  return !way.fresh && x.phase === y.phase && x.kind === y.kind && x.digit === y.digit;
};

/** Ways by which a run ends; a lamp test on the way is passed over, since nobody counts it. */
function onward(grammar: Grammar, r: Shown): Way[] {
  const out = grammar.next[r.end].filter((way) => !sameRun(grammar, r.end, way));
  // The length of the run has been paid for; what is left is which way it goes on.
  const sum = out.reduce((s, w) => s + w.p, 0);
  return out.flatMap((way) => {
    const p = way.p / sum;
    if (grammar.nodes[way.to].kind !== "steady") return [{ ...way, p }];
    return grammar.next[way.to].map((w) => ({ ...w, p: w.p * p }));
  });
}

function startsOf(grammar: Grammar): { node: number; p: number }[] {
  return grammar.starts.flatMap((s) =>
    grammar.nodes[s.node].kind === "steady"
      ? grammar.next[s.node].map((w) => ({ node: w.to, p: s.p * w.p }))
      : [{ node: s.node, p: s.p }],
  );
}

/** Every run that may be shown, from each node at which one may start. */
function runsIn(grammar: Grammar): Shown[] {
  const starts = new Set<number>(startsOf(grammar).map((s) => s.node));
  for (const [a, ways] of grammar.next.entries())
    for (const way of ways) if (!sameRun(grammar, a, way)) starts.add(way.to);
  const out: Shown[] = [];
  for (const start of starts) {
    if (grammar.nodes[start].kind === "steady") continue;
    const go = (at: number, run: Run, p: number): void => {
      const { long, kind } = grammar.nodes[at];
      const here = long ? { ...run, long: run.long + 1 } : { ...run, short: run.short + 1 };
      const goesOn = kind === "even" ? [] : grammar.next[at].filter((w) => sameRun(grammar, at, w));
      const ends = 1 - goesOn.reduce((s, w) => s + w.p, 0);
      if (ends > 1e-9) out.push({ start, end: at, run: here, p: p * ends });
      for (const w of goesOn) go(w.to, here, p * w.p);
    };
    go(start, { long: 0, short: 0 }, 1);
  }
  return out;
}
