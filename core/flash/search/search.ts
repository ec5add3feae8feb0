import { countsCylinders, memoriesOf, type Dialect, type Faults, type Memory } from "../dialect/dialect";
import { longerThan, possibleFaults } from "../dialect/digits";
import type { Prior } from "./prior";
import { keyOf, neighbours, type Hypothesis } from "./propose";
import { proposalsOf } from "../walk/reading";
import { ordered, showOf, type Show } from "../dialect/show";
import type { Score, View } from "../explain/view";

/** A list that was tried. */
export interface Candidate<P> {
  h: Hypothesis;
  show: Show;
  prepared: P;
  logPrior: number;
  score: Score;
  /** Log of prior times likelihood, and of how many lists would have served as well as the one that was tried. */
  log: number;
}

const CYLINDERS = [4, 6, 8, 3, 5, 10, 12];
/** Lists that are tried from one set of readings; where there are two memories, so many of each. */
const MOST_LISTS = 14;
const MOST_OF_EACH = 6;
const BEAM_WIDTH = 3;
const MAX_ROUNDS = 14;
const POOL = 30;
const BEGINNINGS = 8;
/** Candidates further behind the best (nats) say nothing; and no more than so many are judged. */
const IN_QUESTION = 14;
const MOST = 40;
/** So many lists are also tried with a code that has not come yet. */
const CONTINUED = 12;
/** Of so many lists it is asked whether the last showing went on. */
const CUT_SHORT = 3;
const MAX_REFITS = 3;
/** A setting whose best list is so far behind the best of all is not gone into. */
const OUT_OF_QUESTION = 30;
/** The whole search may go over the evidence as often as this: its cost stays in proportion to the number of marks. */
const BUDGET = 180;

/**
 * Tries lists: from readings, then their neighbours, hill climbing with a small beam. Empty when none explains anything.
 * @param effort share of the usual effort
 * @param seeds lists to begin with, beside those that are read
 */
export function search<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  prior: Prior,
  effort = 1,
  seeds: readonly Faults[] = [],
): Candidate<P>[] {
  const found = new Map<string, Candidate<P>>();
  let best: Candidate<P> | null = null;
  for (const [i, setting] of view.settings.entries())
    for (const c of explore(
      dialect,
      view,
      prior,
      setting,
      best,
      (i ? BUDGET / 2 : BUDGET) * effort,
      seeds,
      MAX_REFITS,
    )) {
      const known = found.get(keyOf(c.h));
      if (!known || known.log < c.log) found.set(keyOf(c.h), c);
      if (!best || c.log > best.log) best = c;
    }
  if (!best) return [];
  // To each list that may be the one, its continuations: else the best alone would gain by them.
  const likely = [...found.values()].sort((a, b) => b.log - a.log).slice(0, CONTINUED * view.breadth);
  for (const from of likely)
    if (from.log > best.log - IN_QUESTION)
      for (const [i, c] of notYetShown(dialect, view, prior, from).entries()) found.set(`${keyOf(c.h)}+${i}`, c);
  // The last showing may have gone on after the watch ended: then it was of another code.
  for (const from of likely.slice(0, CUT_SHORT))
    if (from.log > best.log - IN_QUESTION)
      for (const h of goingOn(dialect, view, from)) {
        const c = assess(dialect, view, prior, view.settingOf(from.prepared), h, best.score);
        if (typeof c !== "number" && !found.has(keyOf(h))) found.set(keyOf(h), c);
      }
  // Among those still in question, weigh all kinds of observer, not only the one that fits best.
  const ranked = [...found.values()].sort((a, b) => b.log - a.log);
  return ranked
    .filter((c) => c.log > ranked[0].log - IN_QUESTION)
    .slice(0, MOST * view.breadth)
    .map((c) => ({ ...c, log: c.log - c.score.logLik + view.weigh(c.prepared) }))
    .sort((a, b) => b.log - a.log);
}

/**
 * How well the best list of a short search explains what was seen, with its prior: what dialects are ranked by before they are searched.
 * @param effort share of the usual effort
 * @param seeds lists to begin with
 */
export function sketch<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  prior: Prior,
  effort: number,
  seeds: readonly Faults[],
): number {
  const tried = explore(dialect, view, prior, view.settings[0], null, BUDGET * effort, seeds, 0);
  return tried.reduce((best, c) => Math.max(best, c.log), -Infinity);
}

function assess<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  prior: Prior,
  setting: S,
  h: Hypothesis,
  against?: Score,
): Candidate<P> | number {
  const show = showOf(dialect, h.faults, h.cylinders ?? undefined);
  const prepared = view.prepare(show, setting);
  const score = view.score(prepared, against);
  if (score.logLik === -Infinity) return score.cost;
  const logPrior = prior.of(h);
  return { h, show, prepared, logPrior, score, log: score.logLik + logPrior };
}

/** All that was tried from one setting on, and the settings that it led to. */
function explore<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  prior: Prior,
  first: S,
  rival: Candidate<P> | null,
  budget: number,
  seeds: readonly Faults[],
  refits: number,
): Candidate<P>[] {
  const engines = countsCylinders(dialect) ? CYLINDERS : [];
  const memories = memoriesOf(dialect);
  let setting = first;
  let spent = 0;
  let tried = new Map<string, Candidate<P>>();
  let best: Candidate<P> | null = null;
  // What was read is judged whole: a list that begins badly may be the best one in the end. Neighbours are given up early.
  const attempt = (h: Hypothesis, against?: Score): Candidate<P> | null => {
    const key = keyOf(h);
    const known = tried.get(key);
    if (known) return known;
    const c = assess(dialect, view, prior, setting, h, against);
    spent += (typeof c === "number" ? c : c.score.cost) / view.count;
    if (typeof c === "number") return null;
    tried.set(key, c);
    if (!best || c.log > best.log) best = c;
    return c;
  };
  const read = new Map<string, number>();
  const begin = (allowed: number): void => {
    const { lists, pool } = proposalsOf(dialect, view.readings(setting));
    for (const [code, n] of pool) read.set(code, Math.max(n, read.get(code) ?? 0));
    for (const faults of [...seeds, ...together(memories, lists)])
      for (const cylinders of engines.length ? engines.slice(0, 3) : [null])
        if (spent < allowed) attempt({ faults, cylinders });
  };
  const climb = (allowed: number): void => {
    const pool = [...read]
      .sort((a, b) => b[1] - a[1])
      .slice(0, POOL)
      .map(([c]) => c);
    const expanded = new Set<string>();
    let beam = [...tried.values()].sort((a, b) => b.log - a.log).slice(0, BEAM_WIDTH);
    for (let round = 0; round < MAX_ROUNDS; round++) {
      const next = beam.filter((c) => !expanded.has(keyOf(c.h)));
      if (!next.length) break;
      for (const c of next) {
        expanded.add(keyOf(c.h));
        for (const h of neighbours(dialect, c.h, pool, engines)) if (spent < allowed) attempt(h, best?.score);
      }
      const least = best!.log - 12;
      beam = [...tried.values()]
        .sort((a, b) => b.log - a.log)
        .slice(0, BEAM_WIDTH)
        .filter((c) => c.log > least);
    }
  };
  begin(budget / 3);
  const outOfQuestion = () => !best || (rival !== null && best.log < rival.log - OUT_OF_QUESTION);
  if (outOfQuestion()) return [...tried.values()];
  climb(budget);
  // The setting again from the best list; a better fit may lead to a better list.
  for (let again = 0; again < refits; again++) {
    const better = view.refit(best!.prepared);
    if (!better) break;
    setting = better;
    const before: Candidate<P>[] = [...tried.values()].sort((a, b) => b.log - a.log).slice(0, BEGINNINGS);
    tried = new Map();
    best = null;
    for (const c of before) attempt(c.h);
    if (!best) break;
    const allowed = spent + budget / 4;
    begin(spent + budget / 12);
    if (outOfQuestion()) break;
    climb(allowed);
  }
  return [...tried.values()];
}

/** Lists with more codes that have not come yet explain what was seen as well, unless the list came round. One stands for all. */
function notYetShown<S, P>(dialect: Dialect, view: View<S, P>, prior: Prior, best: Candidate<P>): Candidate<P>[] {
  const possible = possibleFaults(dialect);
  const setting = view.settingOf(best.prepared);
  return memoriesOf(dialect).flatMap((memory) => {
    const list = best.h.faults[memory] ?? [];
    // After what was seen, and before it: who came upon the list in its middle has not seen how it begins.
    const after =
      dialect.order === "ascending"
        ? possible.filter((c) => Number(c) > Number(list.at(-1) ?? 0))
        : possible.filter((c) => !list.includes(c));
    const before = dialect.order === "ascending" ? possible.filter((c) => Number(c) < Number(list[0])) : after;
    const more = [after.map((c) => [...list, c]), ...(list.length ? [before.map((c) => [c, ...list])] : [])];
    return more.flatMap((open) => {
      if (!open.length) return [];
      // Two that have little in common: the lesser of them did not gain by being taken for something that was seen.
      const tried = [open[0], open[open.length - 1]].map((codes) => {
        const h: Hypothesis = { ...best.h, faults: { ...best.h.faults, [memory]: codes } };
        return assess(dialect, view, prior, setting, h, best.score);
      });
      const [a, b] = tried;
      if (typeof a === "number" || typeof b === "number") return [];
      const lesser = a.log < b.log ? a : b;
      return [{ ...lesser, log: lesser.log + Math.log(open.length) + prior.more }];
    });
  });
}

/** Lists in which the last showing that was seen is the beginning of a code with more flashes. */
function goingOn<S, P>(dialect: Dialect, view: View<S, P>, from: Candidate<P>): Hypothesis[] {
  const last = view.spans(from.prepared).findLast((s) => s.marked && s.unit.code);
  if (!last?.unit.code) return [];
  const memory = last.unit.memory ?? memoriesOf(dialect)[0];
  const list = from.h.faults[memory] ?? [];
  return longerThan(dialect, last.unit.code)
    .filter((c) => !list.includes(c))
    .map((c) => ({ ...from.h, faults: { ...from.h.faults, [memory]: ordered(dialect, [...list, c]) } }));
}

/** Lists of one memory, or the likeliest pairs of two. */
function together(memories: readonly Memory[], lists: Map<Memory, string[][]>): Faults[] {
  if (memories.length === 1)
    return (lists.get(memories[0]) ?? []).slice(0, MOST_LISTS).map((l) => ({ [memories[0]]: l }));
  let pairs: Faults[] = [{}];
  for (const memory of memories)
    pairs = pairs.flatMap((f) => (lists.get(memory) ?? []).slice(0, MOST_OF_EACH).map((l) => ({ ...f, [memory]: l })));
  return pairs;
}
