import { codesIn, digitwise } from "./codes";
import type { Line } from "./split";

/** What a column of a table holds. */
export type Role = "code" | "title" | "sets" | "affects" | "look" | "note" | "left-out";

/** Columns that belong to one code column: tables often stand side by side on a page. */
export interface Group {
  code: number;
  /** Role of each of its columns, by the column's number. */
  roles: Map<number, Role>;
}

const WORDS: readonly [Role, RegExp][] = [
  ["code", /^(?:fault |trouble |flash |blink )?(?:codes?|no\.?|nr\.?|number|flash(?:es)?|blinks?|pulses?|#)$/i],
  ["look", /check|look|remedy|action|inspect|repair|\btest\b|what to do/i],
  ["sets", /\bsets?\b|cause|\bwhen\b|condition|reason|criteri/i],
  ["affects", /effect|affect|symptom|result|notice|driver/i],
  ["title", /fault|meaning|description|circuit|component|item|\bpart\b|trouble|malfunction|diagnosis|defect|name/i],
];

/** The role that a heading names, or null. */
function roleOf(heading: string): Role | null {
  const text = heading.trim();
  return text && text.length < 40 ? (WORDS.find(([, form]) => form.test(text))?.[0] ?? null) : null;
}

/** Is this the heading of a table: several cells, no code, and one that says which column holds them? */
export function isHeading({ cells }: Line): boolean {
  const told = cells.filter((c) => c);
  return told.length > 1 && !told.some((c) => codesIn(c)) && told.some((c) => roleOf(c) === "code");
}

/** The longest rising row within values: which of them stand in order (by the ends of the shortest rows of each length, Fredman 1975). */
export function rising(values: readonly number[]): boolean[] {
  const ends: number[] = [];
  const back: number[] = [];
  values.forEach((v, i) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (values[ends[middle]] < v) low = middle + 1;
      else high = middle;
    }
    back[i] = low > 0 ? ends[low - 1] : -1;
    ends[low] = i;
  });
  const out = values.map(() => false);
  for (let i = ends.at(-1) ?? -1; i >= 0; i = back[i]) out[i] = true;
  return out;
}

interface Seen {
  column: number;
  codes: number[];
  share: number;
  score: number;
}

/** How much a column looks like one of codes: most of its cells are codes, no two alike, going up, of the digits that the lamp shows. */
function look(lines: readonly Line[], column: number, digits: readonly number[] | null): Seen {
  const cells = lines.map((l) => l.cells[column] ?? "").filter((c) => c);
  const apart = digitwise(cells);
  const parsed = cells.flatMap((c) => codesIn(c, apart) ?? []);
  const codes = parsed.map((p) => Number(p.codes[0]));
  if (!codes.length) return { column, codes, share: 0, score: 0 };
  const share = parsed.length / cells.length;
  const distinct = new Set(codes).size / codes.length;
  const up = rising(codes).filter(Boolean).length / codes.length;
  const counter = codes.length > 2 && codes.every((c, i) => c === i + 1);
  const fits = digits ? codes.filter((c) => digits.includes(String(c).length)).length / codes.length : 1;
  const score =
    share * distinct * (0.4 + 0.6 * up) * (counter ? 0.5 : 1) * fits * Math.sqrt(codes.length / lines.length);
  return { column, codes, share, score };
}

const numeric = (cell: string): boolean => /^[\d\s.,/+-]*(?:[a-z]{1,2}|Ω|%|°C)?$/i.test(cell);

/** Which columns hold codes, and what the others hold. Found by their content; a heading only names the texts. */
export function groupsOf(
  lines: readonly Line[],
  heading: Line | null,
  digits: readonly number[] | null,
  given: ReadonlyMap<number, Role>,
): Group[] {
  const width = Math.max(0, ...lines.map((l) => l.cells.length));
  const columns = Array.from({ length: width }, (_, c) => c);
  const named = [...given].filter(([, r]) => r === "code").map(([c]) => c);
  const seen = columns
    .map((c) => look(lines, c, digits))
    .filter((s) => !given.has(s.column) || given.get(s.column) === "code");
  const first = [...seen].sort((a, b) => b.score - a.score || a.column - b.column).at(0);
  if (!named.length && (!first || first.score < 0.15)) return [];
  const texts = columns.filter((c) => {
    const cells = lines.map((l) => l.cells[c] ?? "").filter((x) => x);
    return cells.length > 0 && cells.filter((x) => !numeric(x)).length / cells.length > 0.5;
  });
  const codeColumns = named.length ? named : besides(seen, first!, texts);
  codeColumns.sort((a, b) => a - b);
  return codeColumns.map((code, i) => {
    const from = i === 0 ? 0 : code;
    const to = codeColumns[i + 1] ?? width;
    const own = columns.filter((c) => c !== code && c >= from && c < to);
    return { code, roles: new Map([[code, "code"], ...rolesIn(own, code, texts, heading, given)]) };
  });
}

/** More code columns beside the first: each with texts of its own behind it, going up, and naming other codes. */
function besides(seen: readonly Seen[], first: Seen, texts: readonly number[]): number[] {
  const out = [first.column];
  const known = new Set(first.codes);
  const textBetween = (a: number, b: number) => texts.some((t) => t > Math.min(a, b) && t < Math.max(a, b));
  const textBehind = texts.some((t) => t > first.column);
  for (const s of seen) {
    if (s === first || s.share < 0.7 || s.codes.length < 2 || s.codes.length < first.codes.length / 3) continue;
    const own = s.codes.filter((c) => !known.has(c)).length / s.codes.length;
    const up = rising(s.codes).filter(Boolean).length / s.codes.length;
    const behind = texts.some((t) => t > s.column && !out.some((o) => o > s.column && o <= t));
    if (own < 0.9 || up < 0.8 || new Set(s.codes).size < s.codes.length) continue;
    if (out.every((o) => textBetween(o, s.column)) && behind === textBehind) {
      out.push(s.column);
      for (const c of s.codes) known.add(c);
    }
  }
  return out;
}

/** The texts of one code: the first is what the code is called; the others by their heading, else notes. */
function rolesIn(
  own: readonly number[],
  code: number,
  texts: readonly number[],
  heading: Line | null,
  given: ReadonlyMap<number, Role>,
): [number, Role][] {
  const out = new Map<number, Role>();
  for (const c of own) {
    const said = heading ? roleOf(heading.cells[c] ?? "") : null;
    out.set(c, given.get(c) ?? (!texts.includes(c) ? "left-out" : said && said !== "code" ? said : "note"));
  }
  const titled = [...out].filter(([, r]) => r === "title").map(([c]) => c);
  const free = own.filter((c) => out.get(c) === "note" && !given.has(c));
  if (!titled.length) {
    const pick = free.find((c) => c > code) ?? free.at(0) ?? own.find((c) => texts.includes(c) && !given.has(c));
    if (pick !== undefined) out.set(pick, "title");
  }
  for (const c of titled.slice(1)) if (!given.has(c)) out.set(c, "note");
  return [...out];
}
