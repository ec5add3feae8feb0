import { memoriesOf, type Dialect, type Faults, type Memory } from "./dialect";
import { isFault } from "./digits";
import { readings, type Showing } from "./reading";
import { ordered } from "./show";

/** A hypothesis: what is stored, and of which engine. */
export interface Hypothesis {
  faults: Faults;
  cylinders: number | null;
}

export function keyOf(h: Hypothesis): string {
  return `${Object.entries(h.faults)
    .map(([m, list]) => `${m}:${list.join(" ")}`)
    .join("|")}/${h.cylinders ?? ""}`;
}

/** Codes that stand in the first readings, with how often. */
export function poolOf(dialect: Dialect, firsts: readonly (readonly Showing[])[]): Map<string, number> {
  const pool = new Map<string, number>();
  for (const showings of firsts)
    for (const s of showings) {
      const codes = readings(dialect, s);
      for (const c of codes) if (isFault(dialect, c)) pool.set(c, (pool.get(c) ?? 0) + 1 / codes.length);
    }
  return pool;
}

/** Lists to begin with, from one first reading: what came often, and every stretch between two restarts. */
export function firstLists(dialect: Dialect, showings: readonly Showing[]): string[][] {
  const rows: string[][] = [[]];
  const cut = () => {
    if (rows.at(-1)!.length) rows.push([]);
  };
  for (const s of showings) {
    if (s.fixed || (s.code === null && dialect.digits.style === "counted" && s.runs.length === 1)) {
      cut();
      continue;
    }
    const [code] = readings(dialect, s);
    if (!code) continue;
    const row = rows.at(-1)!;
    if (row.at(-1) === code) continue;
    if (row.includes(code) || (dialect.order === "ascending" && row.length && Number(code) < Number(row.at(-1)))) cut();
    rows.at(-1)!.push(code);
  }
  const counts = poolOf(dialect, [showings]);
  const most = Math.max(0, ...counts.values());
  const often = (share: number) => [...counts].filter(([, n]) => n >= most * share).map(([c]) => c);
  const lists = [[], ...rows, often(0.5), often(0.3), often(0)];
  const unique = new Map(lists.map((l) => [...new Set(ordered(dialect, l))]).map((l) => [l.join(" "), l]));
  return [...unique.values()].filter((l) => l.length <= 24);
}

/** A pair of lists for dialects with two memories: the row of showings cut into two that each repeat. */
export function firstPairs(dialect: Dialect, showings: readonly Showing[]): Faults[] {
  const [a, b] = memoriesOf(dialect);
  const parts: string[][] = [[]];
  for (const s of showings) {
    const lone = s.code === null && s.runs.length === 1;
    if (lone) parts.push([]);
    else {
      const [code] = readings(dialect, s);
      if (code) parts.at(-1)!.push(code);
    }
  }
  const halves = (row: string[]): string[][] => {
    const unique = [...new Set(row)];
    const half = row.slice(0, Math.ceil(row.length / 2));
    return [unique, [...new Set(half)], [...new Set(row.slice(Math.floor(row.length / 2)))]];
  };
  const out: Faults[] = [];
  const add = (x: string[], y: string[]) => out.push({ [a]: ordered(dialect, x), [b]: ordered(dialect, y) });
  for (let cut = 0; cut <= parts.length; cut++) {
    const before = parts.slice(0, cut).flat();
    const after = parts.slice(cut).flat();
    for (const x of halves(before)) for (const y of halves(after)) add(x, y);
  }
  const all = parts.flat();
  for (let cut = 0; cut <= all.length; cut++)
    for (const x of halves(all.slice(0, cut)).slice(0, 2))
      for (const y of halves(all.slice(cut)).slice(0, 2)) add(x, y);
  const unique = new Map(out.map((f) => [JSON.stringify(f), f]));
  return [...unique.values()];
}

/** Codes one flash away, as far as the dialect can show them. */
export function nearBy(dialect: Dialect, code: string): string[] {
  const out: string[] = [];
  if (dialect.digits.style === "total") {
    for (const d of [-2, -1, 1, 2]) out.push(String(Number(code) + d));
  } else {
    const zero = dialect.digits.zero;
    const value = (c: string) => (c === "0" ? (zero ?? 0) : Number(c));
    for (let i = 0; i < code.length; i++)
      for (const d of [-1, 1]) {
        const v = value(code[i]) + d;
        const digit = v === zero ? "0" : v >= 0 && v <= 9 ? String(v) : null;
        if (digit !== null && digit !== code[i]) out.push(code.slice(0, i) + digit + code.slice(i + 1));
      }
    if (dialect.digits.style === "long-short") {
      // A long flash missed, or taken for a short one.
      const padded = code.padStart(2, "0");
      const [t, u] = [Number(padded[0]), Number(padded[1])];
      for (const [a, b] of [
        [t - 1, u + 1],
        [t + 1, u - 1],
        [t + 1, u],
        [t - 1, u],
      ])
        if (a >= 0 && b >= 0 && a <= 9 && b <= 9) out.push(String(a * 10 + b));
    }
  }
  return [...new Set(out)].filter((c) => c !== code && isFault(dialect, c));
}

/** Only so many codes of the pool, the most often read ones, stand in for any other code or are put in anywhere. */
const COMMON = 10;

/** Could one have been misread for the other: as long, and most digits the same, or next to it? */
function akin(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  let differ = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) differ++;
  return differ <= 1;
}

/** Hypotheses one change away, the likeliest kinds of change first. `pool` holds the codes read, most often read first. */
export function neighbours(
  dialect: Dialect,
  h: Hypothesis,
  pool: readonly string[],
  cylinders: readonly number[],
): Hypothesis[] {
  const out: Hypothesis[] = [];
  const put = (memory: Memory, list: string[]) => {
    if (new Set(list).size === list.length)
      out.push({ ...h, faults: { ...h.faults, [memory]: ordered(dialect, list) } });
  };
  for (const memory of memoriesOf(dialect)) {
    const list = [...(h.faults[memory] ?? [])];
    for (let i = 0; i < list.length; i++) put(memory, list.toSpliced(i, 1));
    for (const c of pool.slice(0, COMMON)) {
      if (list.includes(c)) continue;
      if (dialect.order === "ascending") put(memory, [...list, c]);
      else for (let i = 0; i <= list.length; i++) put(memory, list.toSpliced(i, 0, c));
    }
    for (let i = 0; i < list.length; i++) {
      const others = pool.filter((c, k) => k < COMMON || akin(c, list[i]));
      for (const c of new Set([...nearBy(dialect, list[i]), ...others]))
        if (!list.includes(c)) put(memory, list.with(i, c));
      if (dialect.order === "stored" && i > 0) {
        const swapped = [...list];
        [swapped[i - 1], swapped[i]] = [swapped[i], swapped[i - 1]];
        put(memory, swapped);
      }
    }
    if (dialect.order === "ascending")
      for (const c of pool.slice(COMMON)) if (!list.includes(c)) put(memory, [...list, c]);
  }
  for (const n of cylinders) if (n !== h.cylinders) out.push({ ...h, cylinders: n });
  const unique = new Map(out.map((x) => [keyOf(x), x]));
  return [...unique.values()];
}
