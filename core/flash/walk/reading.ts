import { fixedCodes, memoriesOf, type Dialect, type Memory } from "../dialect/dialect";
import { codeOf, isFault, type Run } from "../dialect/digits";
import { ordered } from "../dialect/show";
import type { Pace } from "./walks";

/** A code as it was read once. */
export interface Showing {
  runs: Run[];
  /** null where the runs make no code. */
  code: string | null;
  /** Lead-in, end mark or pass code, not a fault. */
  fixed: boolean;
  /** Index of the phase, where the reading tells; -1 where not. */
  phase: number;
  /** The list (or the show) began anew with it. */
  again: boolean;
}

export function showing(dialect: Dialect, runs: Run[], phase = -1, again = false): Showing {
  const code = codeOf(dialect, runs);
  return { runs, code, fixed: code !== null && fixedCodes(dialect).includes(code), phase, again };
}

/** The showings of a walk, in order; one that began before the watch is left out, since its first flashes are unknown. */
export function readingOf(dialect: Dialect, paces: readonly Pace[]): Showing[] {
  const out: Showing[] = [];
  for (let i = 0; i < paces.length;) {
    const head = paces[i];
    let end = i + 1;
    while (end < paces.length && !paces[end].fresh) end++;
    const partial = head.node.k > 1 || head.node.digit > 0;
    if (!partial && (head.node.kind === "code" || head.node.kind === "fixed")) {
      const runs: Run[] = [];
      for (const { node } of paces.slice(i, end)) {
        const run = (runs[node.digit] ??= { long: 0, short: 0 });
        if (node.long) run.long++;
        else run.short++;
      }
      out.push({ ...showing(dialect, runs, head.node.phase, head.again), fixed: head.node.kind === "fixed" });
    }
    i = end;
  }
  return out;
}

/** What a set of readings proposes. */
export interface Proposals {
  /** For each memory: lists, most often read first. */
  lists: Map<Memory, string[][]>;
  /** Codes read, with how often (mean over the readings). */
  pool: Map<string, number>;
}

/** Lists longer than this are not proposed. */
const LONGEST = 24;

/** Lists to try, from readings of the same evidence: rows between two beginnings of the list, and what came often. */
// eslint-disable-next-line max-lines-per-function -- one walk along the showings: its parts share rows that are written in place
export function proposalsOf(dialect: Dialect, readings: readonly (readonly Showing[])[]): Proposals {
  const pool = new Map<string, number>();
  const rows = new Map<Memory, Map<string, number>>();
  const byMemory = new Map<Memory, Map<string, number>>();
  const memories = memoriesOf(dialect);
  const shownTwice = new Set(
    dialect.phases.flatMap((p, i) =>
      p.kind === "stored" && dialect.phases.some((q, k) => k > i && q.kind === "stored" && q.memory === p.memory)
        ? [p.memory]
        : [],
    ),
  );
  const bump = <K>(map: Map<K, number>, key: K, by: number) => map.set(key, (map.get(key) ?? 0) + by);
  const inner = <K>(map: Map<Memory, Map<K, number>>, memory: Memory) =>
    map.get(memory) ?? map.set(memory, new Map()).get(memory)!;
  for (const reading of readings) {
    const share = 1 / readings.length;
    let row: string[] = [];
    let of: Memory = memories[0];
    let phase = -1;
    /** All that was read of a memory in one go, however often its list went by. */
    let stretch: string[] = [];
    /** The same since the last fixed code, whatever falls or comes again in it: a misread showing cuts no row there. */
    let since: string[] = [];
    /** The same since a code came again: where a round begins as a code does, only that tells where it began. */
    let turn: string[] = [];
    const goRound = () => {
      if (turn.length) bump(inner(rows, of), turn.join(" "), share);
      turn = [];
    };
    const chunk = () => {
      const [, chunks] = tidied(dialect, since, phase);
      if (chunks?.length) bump(inner(rows, of), chunks.join(" "), share);
      since = [];
    };
    const halve = () => {
      const [low, high] = [Math.floor(stretch.length / 2), Math.ceil(stretch.length / 2)];
      if (low > 0 && shownTwice.has(of))
        for (const half of [stretch.slice(0, high), stretch.slice(low), stretch.slice(0, low), stretch.slice(high)])
          bump(inner(rows, of), [...new Set(half)].join(" "), share / 2);
      stretch = [];
    };
    const cut = () => {
      if (row.length) for (const list of tidied(dialect, row, phase)) bump(inner(rows, of), list.join(" "), share);
      row = [];
    };
    for (const s of reading) {
      const stored = dialect.phases[s.phase];
      const memory = stored?.kind === "stored" ? stored.memory : memories[0];
      const falls = dialect.order === "ascending" && row.length > 0 && Number(s.code) < Number(row.at(-1));
      const round = row.includes(s.code ?? "") && row.at(-1) !== s.code;
      // In an ascending list a new beginning shows by itself; the rest before it is often the same as between codes.
      if (s.fixed || (s.again && dialect.order === "stored") || s.phase !== phase || falls || round) cut();
      if (s.fixed || s.phase !== phase) {
        chunk();
        turn = [];
      }
      if (memory !== of) halve();
      phase = s.phase;
      of = memory;
      if (s.fixed || s.code === null || !isFault(dialect, s.code)) continue;
      bump(pool, s.code, share);
      bump(inner(byMemory, memory), s.code, share);
      if (turn.at(-1) !== s.code) {
        if (turn.includes(s.code)) goRound();
        turn.push(s.code);
      }
      row.push(s.code);
      stretch.push(s.code);
      since.push(s.code);
    }
    cut();
    chunk();
    halve();
  }
  const lists = new Map<Memory, string[][]>();
  for (const memory of memories) {
    const often = [...(rows.get(memory) ?? [])].sort((a, b) => b[1] - a[1]).map(([key]) => key.split(" "));
    const counts = [...(byMemory.get(memory) ?? [])];
    const most = Math.max(0, ...counts.map(([, n]) => n));
    const above = (part: number) =>
      ordered(
        dialect,
        counts.filter(([, n]) => n >= most * part).map(([c]) => c),
      );
    const all = [above(0.5), above(0.75), above(0.3), [], ...often];
    const unique = new Map(all.map((l) => [...new Set(ordered(dialect, l))]).map((l) => [l.join(" "), l]));
    lists.set(
      memory,
      [...unique.values()].filter((l) => l.length <= LONGEST),
    );
  }
  return { lists, pool };
}

/** A row as a list, and, where each code is shown several times, with the commonest of each so many. */
function tidied(dialect: Dialect, row: readonly string[], phase: number): string[][] {
  const stored = dialect.phases[phase] ?? dialect.phases.find((p) => p.kind === "stored");
  const times = stored?.kind === "stored" ? stored.times : 1;
  const out = [[...new Set(row)]];
  if (times > 1) {
    const chunks: string[] = [];
    for (let i = 0; i < row.length; i += times) {
      const chunk = row.slice(i, i + times);
      const count = (c: string) => chunk.filter((x) => x === c).length;
      chunks.push(chunk.reduce((a, b) => (count(b) > count(a) ? b : a)));
    }
    out.push([...new Set(chunks)]);
  }
  return out;
}
