import { countsCylinders, memoriesOf, type Dialect, type Faults, type Memory } from "./dialect";
import { possibleFaults } from "./digits";
import { keyOf, neighbours, type Hypothesis } from "./propose";
import { proposalsOf } from "./reading";
import { showOf, type Show } from "./show";
import type { Score, View } from "./view";

/** A list that was tried. */
export interface Candidate<P> {
  h: Hypothesis;
  show: Show;
  prepared: P;
  logPrior: number;
  score: Score;
  /** Log of prior times likelihood, and of how many codes would have served as well as the one that was tried. */
  log: number;
}

const CYLINDERS = [4, 6, 8, 3, 5, 10, 12];
/** Lists that are tried from one set of readings; where there are two memories, so many of each. */
const MOST_LISTS = 24;
const MOST_OF_EACH = 7;
const BEAM_WIDTH = 3;
const MAX_ROUNDS = 14;
const POOL = 30;
const BEGINNINGS = 8;
/** Candidates further behind the best (nats) say nothing; and no more than so many are judged. */
const IN_QUESTION = 16;
const MOST = 40;
const MAX_REFITS = 3;
/** The whole search may go over the evidence as often as this: its cost stays in proportion to the number of marks. */
const BUDGET = 500;

/** Tries lists: from the first readings, then their neighbours, hill climbing with a small beam. Empty when none explains anything. */
export function search<P>(dialect: Dialect, view: View<P>, prior: (h: Hypothesis) => number): Candidate<P>[] {
  const engines = countsCylinders(dialect) ? CYLINDERS : [];
  const proposed = view.firsts.map((first) => ({ first, ...proposalsOf(dialect, first.readings) }));
  const read = new Map<string, number>();
  for (const { pool } of proposed) for (const [code, n] of pool) read.set(code, Math.max(n, read.get(code) ?? 0));
  const pool = [...read]
    .sort((a, b) => b[1] - a[1])
    .slice(0, POOL)
    .map(([c]) => c);
  const memories = memoriesOf(dialect);
  let spent = 0;
  const assess = (h: Hypothesis, against?: Score): Candidate<P> | null => {
    const show = showOf(dialect, h.faults, h.cylinders ?? undefined);
    const prepared = view.prepare(show);
    const score = view.score(prepared, against);
    spent += score.cost / view.count;
    if (score.logLik === -Infinity) return null;
    const logPrior = prior(h);
    return { h, show, prepared, logPrior, score, log: score.logLik + logPrior };
  };

  let best: Candidate<P> | null = null;
  const begun: Candidate<P>[] = [];
  let assume: () => void = () => undefined;
  for (const { first, lists } of proposed) {
    first.assume();
    for (const faults of together(memories, lists))
      for (const cylinders of engines.length ? engines.slice(0, 3) : [null]) {
        if (spent > BUDGET / 2) break;
        const c = assess({ faults, cylinders }, best?.score);
        if (c) begun.push(c);
        if (c && (!best || c.log > best.log)) {
          best = c;
          assume = first.assume;
        }
      }
  }
  if (!best) return [];
  assume();

  let tried = new Map<string, Candidate<P>>();
  let allowed = BUDGET;
  const climb = (): void => {
    tried = new Map();
    const from = assess(best!.h);
    if (!from) return;
    best = from;
    tried.set(keyOf(best.h), best);
    // The best beginnings stay in the race: what a neighbour by neighbour climb would not reach from the best of them.
    for (const { h } of begun.sort((a, b) => b.log - a.log).slice(0, BEGINNINGS)) {
      const c = tried.has(keyOf(h)) ? null : assess(h);
      if (!c) continue;
      tried.set(keyOf(h), c);
      if (c.log > best.log) best = c;
    }
    let beam = [...tried.values()].sort((a, b) => b.log - a.log).slice(0, BEAM_WIDTH);
    const expanded = new Set<string>();
    for (let round = 0; round < MAX_ROUNDS; round++) {
      const next = beam.filter((c) => !expanded.has(keyOf(c.h)));
      if (!next.length) break;
      for (const c of next) {
        expanded.add(keyOf(c.h));
        for (const h of neighbours(dialect, c.h, pool, engines)) {
          const key = keyOf(h);
          if (tried.has(key) || spent > allowed) continue;
          const candidate = assess(h, best.score);
          if (!candidate) continue;
          tried.set(key, candidate);
          if (candidate.log > best.log) best = candidate;
        }
      }
      const least = best.log - 12;
      beam = [...tried.values()]
        .sort((a, b) => b.log - a.log)
        .slice(0, BEAM_WIDTH)
        .filter((c) => c.log > least);
    }
  };
  climb();
  // Tempo and observer again from the best list; a better fit may lead to a better list.
  for (let again = 0; again < MAX_REFITS && view.refit(best.prepared); again++) {
    allowed = spent + BUDGET / 4;
    climb();
  }

  // Lists with one more code that has not come yet explain what was seen as well, unless the list came round.
  const possible = possibleFaults(dialect);
  for (const memory of memories) {
    const list = best.h.faults[memory] ?? [];
    const open =
      dialect.order === "ascending"
        ? possible.filter((c) => !list.length || Number(c) > Number(list.at(-1)))
        : possible.filter((c) => !list.includes(c));
    const code = open.at(-1);
    if (!code) continue;
    const h: Hypothesis = { ...best.h, faults: { ...best.h.faults, [memory]: [...list, code] } };
    const c = tried.has(keyOf(h)) ? null : assess(h, best.score);
    if (c) tried.set(`${keyOf(h)}+`, { ...c, log: c.log + Math.log(open.length) });
  }
  // Among those still in question, weigh all kinds of observer, not only the one that fits best.
  const ranked = [...tried.values()].sort((a, b) => b.log - a.log);
  return ranked
    .filter((c) => c.log > ranked[0].log - IN_QUESTION)
    .slice(0, MOST)
    .map((c) => ({ ...c, log: c.log - c.score.logLik + view.weigh(c.prepared) }))
    .sort((a, b) => b.log - a.log);
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
