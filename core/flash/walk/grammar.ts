import { type Dialect, type Phase } from "../dialect/dialect";
import { runsOf } from "../dialect/digits";
import { INTERVAL_JITTER } from "../seen/observer";
import { onceFor } from "../dialect/once";
import { fromStart } from "../dialect/show";

/**
 * The grammar of a dialect as a graph of flashes: what may follow what, after which rest, whatever the list is. A show is
 * one walk through it. Codes are free here: nothing holds two showings of one list together, which is what the search does.
 */
export interface Grammar {
  nodes: GrammarNode[];
  /** For each node, the flashes that may come next. */
  next: Way[][];
  /** Where the show begins: nodes, with the time from the start of the show to their onset, ms nominal. */
  starts: { node: number; at: number; p: number }[];
  /** Probability that watching began with the show. */
  fromStart: number;
}

export interface GrammarNode {
  kind: "code" | "fixed" | "group" | "steady" | "even";
  phase: number;
  digit: number;
  /** Flash of its run, from 1. */
  k: number;
  long: boolean;
  ms: number;
  /** Of fixed units. */
  code?: string;
}

export interface Way {
  to: number;
  /** From this flash's onset to the next one's, ms nominal, and the variance of that, ms². */
  step: number;
  variance: number;
  p: number;
  /** The next flash begins a new unit. */
  fresh: boolean;
  /** The list (or the show) begins anew with it. */
  again: boolean;
}

/** Prior chances where the grammar leaves a choice: a memory holds faults; another code follows in the list. */
const HOLDS_FAULTS = 0.8;
const ONE_MORE = 0.5;
const MOST_HALF_CYLINDERS = 6;

/** A stretch of the graph that stands for a phase. */
interface Part {
  entries: { node: number; p: number }[];
  exits: { node: number; p: number }[];
  around?: { before: number; after: number };
  steady: boolean;
  slot: boolean;
  phase: number;
}

/** The grammar of a dialect. */
export const grammarOf = onceFor(grammarFor);

// eslint-disable-next-line max-lines-per-function -- one automaton: each phase joins states that the others made
function grammarFor(dialect: Dialect): Grammar {
  const { gaps, marks } = dialect;
  const nodes: GrammarNode[] = [];
  const next: Way[][] = [];
  const add = (node: GrammarNode): number => {
    next.push([]);
    return nodes.push(node) - 1;
  };
  const square = (ms: number) => (ms * INTERVAL_JITTER) ** 2;
  const link = (from: number, to: number, rest: number, p: number, fresh: boolean, again = false) => {
    if (p <= 0 || !Number.isFinite(rest)) return;
    const { ms } = nodes[from];
    next[from].push({ to, step: ms + rest, variance: square(ms) + square(rest), p, fresh, again });
  };

  /** Any code that the style can show. */
  const anyCode = (phase: number): Pick<Part, "entries" | "exits"> => {
    const { style, count, zero } = dialect.digits;
    const flash = (digit: number, k: number, long = false) =>
      add({ kind: "code", phase, digit, k, long, ms: long ? (marks.long ?? marks.short) : marks.short });
    if (style === "total") {
      const run = Array.from({ length: dialect.max }, (_, i) => flash(0, i + 1));
      for (let i = 0; i + 1 < run.length; i++) link(run[i], run[i + 1], gaps.flash, 1 - 1 / (dialect.max - i), false);
      return { entries: [{ node: run[0], p: 1 }], exits: run.map((node, i) => ({ node, p: 1 / (dialect.max - i) })) };
    }
    if (style === "long-short") {
      const tens = Math.min(9, Math.floor(dialect.max / 10));
      const long = Array.from({ length: tens }, (_, i) => flash(0, i + 1, true));
      const short = Array.from({ length: 9 }, (_, i) => flash(0, i + 1));
      // Of the codes with some tens, nine in ten have units.
      for (const [i, node] of long.entries()) {
        const last = 1 / (tens - i);
        if (i + 1 < tens) link(node, long[i + 1], gaps.flash, 1 - last, false);
        link(node, short[0], gaps.digit, last * 0.9, false);
      }
      for (let i = 0; i + 1 < 9; i++) link(short[i], short[i + 1], gaps.flash, 1 - 1 / (9 - i), false);
      const both = tens > 0 && count.includes(2);
      const entries = both
        ? [
            { node: long[0], p: 0.9 },
            { node: short[0], p: 0.1 },
          ]
        : [{ node: short[0], p: 1 }];
      const exits = [
        ...long.map((node, i) => ({ node, p: 0.1 / (tens - i) })),
        ...short.map((node, i) => ({ node, p: 1 / (9 - i) })),
      ];
      return { entries, exits };
    }
    const most = Math.max(9, zero ?? 0);
    const digits = Math.max(...count);
    const runs = Array.from({ length: digits }, (_, d) => Array.from({ length: most }, (_, i) => flash(d, i + 1)));
    const exits: Part["exits"] = [];
    for (const [d, run] of runs.entries())
      for (const [i, node] of run.entries()) {
        // 1 to 9 alike, and the sign for zero where there is one (never first).
        const values = [...Array.from({ length: 9 }, (_, v) => v + 1), ...(zero && d > 0 ? [zero] : [])];
        const left = values.filter((v) => v >= i + 1).length;
        if (!left) continue;
        const ends = values.includes(i + 1) ? 1 / left : 0;
        if (i + 1 < most) link(node, run[i + 1], gaps.flash, 1 - ends, false);
        const leave = !count.includes(d + 1) ? 0 : d + 1 === digits ? 1 : 0.5;
        if (d + 1 < digits) link(node, runs[d + 1][0], gaps.digit, ends * (1 - leave), false);
        if (ends * leave > 0) exits.push({ node, p: ends * leave });
      }
    return { entries: [{ node: runs[0][0], p: 1 }], exits };
  };

  const part = (phase: Phase, index: number, slot: boolean): Part | null => {
    const base = { steady: false, slot, phase: index };
    if (phase.kind === "stored") {
      const any = anyCode(index);
      const self = { ...base, ...any };
      // The same code again, or the next one of the list.
      const more = phase.times > 1 ? (phase.times - 1) / phase.times : 0;
      const another = (1 - more) * ONE_MORE;
      for (const exit of any.exits)
        for (const entry of any.entries) {
          link(exit.node, entry.node, gaps.repeat, exit.p * entry.p * more, true);
          link(exit.node, entry.node, gaps.code, exit.p * entry.p * another, true);
        }
      return { ...self, exits: any.exits.map((e) => ({ ...e, p: e.p * (1 - more) * (1 - ONE_MORE) })) };
    }
    if (phase.kind === "code") {
      const runs = runsOf(dialect, phase.code) ?? [];
      let first = -1;
      let last = -1;
      for (let t = 0; t < phase.times; t++)
        for (const [digit, run] of runs.entries())
          for (let i = 0; i < run.long + run.short; i++) {
            const long = i < run.long;
            const node = add({
              kind: "fixed",
              phase: index,
              digit,
              k: i + 1,
              long,
              ms: long ? (marks.long ?? marks.short) : marks.short,
              code: phase.code,
            });
            const parts = i > 0 ? i === run.long : digit > 0;
            const rest = parts ? gaps.digit : i > 0 ? gaps.flash : gaps.repeat;
            if (last >= 0) link(last, node, rest, 1, i === 0 && digit === 0);
            else first = node;
            last = node;
          }
      return first < 0 ? null : { ...base, entries: [{ node: first, p: 1 }], exits: [{ node: last, p: 1 }] };
    }
    if (phase.kind === "group") {
      const free = phase.flashes === "cylinders/2";
      const n = phase.flashes === "cylinders/2" ? MOST_HALF_CYLINDERS : phase.flashes;
      const run = Array.from({ length: n }, (_, i) =>
        add({ kind: "group", phase: index, digit: 0, k: i + 1, long: false, ms: marks.short }),
      );
      const ends = (i: number) => (free ? (i === 0 ? 0.02 : 1 / (n - i)) : i === n - 1 ? 1 : 0);
      for (let i = 0; i + 1 < n; i++) link(run[i], run[i + 1], gaps.flash, 1 - ends(i), false);
      return {
        ...base,
        entries: [{ node: run[0], p: 1 }],
        exits: run.map((node, i) => ({ node, p: ends(i) })).filter((e) => e.p > 0),
        around: { before: phase.beforeMs, after: phase.afterMs },
      };
    }
    if (phase.kind === "even") {
      const node = add({ kind: "even", phase: index, digit: 0, k: 1, long: false, ms: phase.onMs });
      link(node, node, phase.offMs, 1, false);
      return { ...base, entries: [{ node, p: 1 }], exits: [] };
    }
    if ((phase.lamp === "lit") === (dialect.rest === "lit") || phase.ms === 0) return null;
    const node = add({ kind: "steady", phase: index, digit: 0, k: 1, long: false, ms: phase.ms });
    return { ...base, entries: [{ node, p: 1 }], exits: [{ node, p: 1 }], steady: true };
  };

  // What each phase may be: itself, or what stands for an empty memory; `null` is nothing at all.
  const choices = dialect.phases.map(
    (phase, index): { part: Part | null; p: number; hold: number; ends: boolean }[] => {
      const hold = phase.kind === "steady" && (phase.lamp === "lit") === (dialect.rest === "lit") ? phase.ms : 0;
      if (phase.kind !== "stored") return [{ part: part(phase, index, false), p: 1, hold, ends: false }];
      const { empty } = dialect;
      return [
        { part: part(phase, index, true), p: HOLDS_FAULTS, hold: 0, ends: false },
        {
          part: empty && part(empty, index, true),
          p: 1 - HOLDS_FAULTS,
          hold: 0,
          ends: empty?.kind === "even" || (empty?.kind === "steady" && empty.ms === 0),
        },
      ];
    },
  );

  const restBetween = (a: Part, b: Part, wrap: boolean): number => {
    if (a.around || b.around) return Math.max(a.around?.after ?? 0, b.around?.before ?? 0);
    if (a.steady || b.steady) return gaps.code;
    if (wrap) return gaps.pass;
    return a.slot && b.slot ? gaps.pass : gaps.code;
  };

  /** Goes on from after phase `index`, past what shows nothing, to every part that may come next. */
  const onward = (
    index: number,
    p: number,
    hold: number,
    wrap: boolean,
    found: (b: Part, p: number, hold: number, wrap: boolean) => void,
    depth = 0,
  ): void => {
    if (p < 1e-4 || depth > dialect.phases.length) return;
    let at = index + 1;
    let wrapped = wrap;
    if (at >= dialect.phases.length) {
      if (dialect.loopFrom === null) return;
      at = dialect.loopFrom;
      wrapped = true;
    }
    for (const c of choices[at]) {
      if (c.part) found(c.part, p * c.p, hold + c.hold, wrapped);
      else if (!c.ends) onward(at, p * c.p, hold + c.hold, wrapped, found, depth + 1);
    }
  };

  const starts: Grammar["starts"] = [];
  onward(-1, 1, 0, false, (b, p, hold) => {
    const at = hold + (b.around?.before ?? 0);
    for (const e of b.entries) starts.push({ node: e.node, at, p: p * e.p });
  });
  for (const [index, list] of choices.entries())
    for (const { part: a } of list)
      if (a)
        onward(index, 1, 0, false, (b, p, hold, wrap) => {
          for (const exit of a.exits)
            for (const entry of b.entries)
              link(
                exit.node,
                entry.node,
                hold || restBetween(a, b, wrap),
                exit.p * entry.p * p,
                true,
                wrap || a.phase !== b.phase,
              );
        });
  return { nodes, next, starts, fromStart: fromStart(dialect.loopFrom !== null) };
}
