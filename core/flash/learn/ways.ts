import { SHORTEST_MS, type Dialect } from "../dialect/dialect";
import type { Evidence } from "../seen/evidence";
import { cleaned } from "./cleaned";
import { climbed, type Climbed } from "./climb";
import { GLANCED, looksOf } from "./glance";
import { kindsOf } from "./kinds";
import type { Marks } from "./marks";
import { nothing } from "./nothing";
import { propose, type Known, type Proposed } from "./propose";

/** Ways that are weighed whole, of all that were proposed; what a quick look at them leaves so far behind is not. */
const WEIGHED = 10;
/** And so many that were climbed to. */
const FOUND = 6;
/** So many more ways in which a code belongs to the show. */
const FIXED = 4;
/** A way this far behind the best at the first look, or behind no list at all, is not gone into, nats. */
const BEHIND = 60;
/** Of a hand anything follows some grammar more or less; of a camera's edges the first look is poorer. */
const HOPELESS = { edges: 400, holds: 14, taps: 14 } as const;
/** Ways of different make-up from which others are climbed to. */
const CLIMBED = 3;
/** What such a climb finds is gone into where it is not so far behind the best, nats. */
const CLOSE = 25;
/** Rests that are tried for others: from so many partings into kinds, and so far apart, as a factor. */
const PARTINGS = 4;
const KINDS = 6;
const APART = 1.1;
const WIDE = 1.5;
/** Climbing goes on from what was found by climbing, so many times in all; from a way that is so much better than before, nats. */
const TIMES = 2;
const BETTER = 2;

/** A way, and what it explains at a look. */
interface Quick {
  p: Proposed;
  log: number;
}

/** Order of what explains more before what explains less. */
export const likelier = (a: { log: number }, b: { log: number }) => b.log - a.log;

/**
 * The ways of talking that are worth a search: those that the marks suggest as they are, and those that are climbed to from there, where
 * slips of who watched hide the rests.
 * @param taken for each watch, the ways in which it may be taken as marks
 */
export function waysOf(taken: readonly (readonly Marks[])[], watches: readonly Evidence[], known: Known): Proposed[] {
  const proposed = looked(distinct(taken.flat().flatMap((m) => propose(m, known))), watches);
  const rests = restsIn(taken.flat());
  const reached = new Map<string, Climbed>();
  const more: Quick[] = [];
  for (let time = 0; time < TIMES; time++) {
    const found = distinct(
      climbs([...proposed, ...more].sort(likelier), rests, watches, known, reached)
        .flatMap(cleaned)
        .flatMap((m) => propose(m, known)),
    );
    more.push(...looked(found, watches));
  }
  const quick = [...proposed, ...more].sort(likelier);
  const mode = watches.find((w) => w.mode !== "edges")?.mode ?? "edges";
  // What no walk through a way's grammar explains, no list of it does.
  const least = Math.max((quick[0]?.log ?? 0) - BEHIND, nothing(taken, GLANCED) - HOPELESS[mode]);
  const able = quick.filter((q) => q.log > least);
  // That a code belongs to the show is always tried too: else it would be surely told as a fault.
  const chosen = [
    ...able.filter((q) => !more.includes(q)).slice(0, WEIGHED),
    ...able.filter((q) => more.includes(q)).slice(0, FOUND),
  ];
  const fixed = able.filter((q) => !chosen.includes(q) && hasFixed(q)).slice(0, FIXED);
  return [...chosen, ...fixed].map(({ p }) => p);
}

const hasFixed = ({ p }: { p: Proposed }) => p.dialect.phases.some((phase) => phase.kind === "code");

function distinct(proposed: readonly Proposed[]): Proposed[] {
  const rough = (ms: number) => Math.round(Math.log(Math.max(1, ms)) / Math.log(1.08));
  const key = ({ dialect: { gaps, marks, digits, order, phases, loopFrom, rest } }: Proposed) =>
    JSON.stringify([
      Object.values(gaps).map(rough),
      rough(marks.short),
      rough(marks.long ?? 1),
      digits,
      order,
      phases.map((p) => (p.kind === "group" ? p.flashes : p.kind === "steady" ? p.kind : p)),
      loopFrom,
      rest,
    ]);
  return [...new Map(proposed.map((p) => [key(p), p])).values()];
}

/** What ways explain at a look, best first. */
function looked(proposed: readonly Proposed[], watches: readonly Evidence[]): Quick[] {
  return proposed
    .map((p) => ({ p, log: looksOf(p.dialect, watches).reduce((sum, { log }) => sum + log, p.logPrior) }))
    .sort(likelier);
}

/**
 * Ways that are climbed to from the best of each make-up.
 * @param reached what was climbed to before, by make-up; from there no one climbs again
 */
function climbs(
  ways: readonly Quick[],
  rests: readonly number[],
  watches: readonly Evidence[],
  known: Known,
  reached: Map<string, Climbed>,
): Climbed[] {
  const makeUp = ({ rest, digits }: Dialect) => `${rest} ${digits.style} ${digits.count.join()}`;
  const better = ({ p, log }: Quick) => log > (reached.get(makeUp(p.dialect))?.log ?? -Infinity) + BETTER;
  const starts = ways.filter(({ p }, i) => !ways.slice(0, i).some((q) => makeUp(q.p.dialect) === makeUp(p.dialect)));
  const found: Climbed[] = [];
  let best = Math.max(-Infinity, ...[...reached.values()].map((r) => r.log));
  for (const { p } of starts.filter(better).slice(0, CLIMBED)) {
    const reach = climbed(p.dialect, watches, rests, best);
    if (known.count && known.count.join() !== reach.dialect.digits.count.join()) continue;
    best = Math.max(best, reach.log);
    for (const d of [p.dialect, reach.dialect])
      if (reach.log > (reached.get(makeUp(d))?.log ?? -Infinity)) reached.set(makeUp(d), reach);
    found.push(reach);
  }
  return found.filter((r) => r.log > best - CLOSE);
}

/** Rests that a way may have: those that occur, and, between two that lie far apart, some that may be hidden by slips. */
function restsIn(taken: readonly Marks[]): number[] {
  const kinds = taken.flatMap(({ rests, scatter }) => kindsOf(rests, scatter, KINDS).slice(0, PARTINGS));
  const occur = [...new Set(kinds.flatMap(({ ms }) => ms.map(Math.round)))]
    .filter((ms) => ms >= SHORTEST_MS)
    .sort((a, b) => a - b)
    .filter((ms, i, all) => !i || ms > APART * all[i - 1]);
  return occur.flatMap((ms, i) => {
    const next = occur[i + 1] ?? ms;
    const between = Math.floor(Math.log(next / ms) / Math.log(WIDE));
    return Array.from({ length: Math.max(1, between) }, (_, k) =>
      Math.round(ms * (next / ms) ** (k / Math.max(1, between))),
    );
  });
}
