import { codesIn, digitwise, withoutMarks, type CodeCell } from "./codes";
import { groupsOf, isHeading, rising, type Group, type Role } from "./columns";
import { plainLines, stackedLines } from "./lines";
import { linesOf, SPLITS, type Line, type Split } from "./split";

/** Why somebody should look at a row again. */
export type Doubt =
  /** The code stands in another row too, with other words. */
  | "twice"
  /** Its number is lower than the one before, or higher than the one behind. */
  | "out-of-order"
  /** It has more or fewer digits than the lamp shows. */
  | "digits"
  /** The lamp cannot show it: a zero, or too high a number. */
  | "cannot-show"
  /** Nothing is said of it. */
  | "no-text"
  /** One of a span such as "31-33". */
  | "span"
  /** A zero stood in front. */
  | "padded"
  /** The text holds what may be another code's. */
  | "two-in-one"
  /** Hardly anything on the page looks like a table. */
  | "few"
  /** Its number is hard to read on the picture. */
  | "unclear";

/** One code as the page has it. */
export interface ReadRow {
  code: string;
  title: string;
  /** Its other texts, by what they hold. */
  texts: Partial<Record<Role, string>>;
  /** Heading under which it stands, or empty. */
  under: string;
  /** Blanks in front of its line. */
  indent: number;
  /** Lines of the page that it was read from, counted from 0, both included. */
  from: number;
  to: number;
  doubts: Doubt[];
}

export interface ReadTable {
  split: Split | "stacked";
  /** What each column holds; empty where nothing could be told apart. */
  columns: { heading: string; role: Role }[];
  rows: ReadRow[];
  /** What is on the page and was not taken as a row. */
  aside: { from: number; to: number; text: string; as: "heading" | "footnote" | "other" }[];
}

/** What is known beforehand of the codes, and what the person says of the columns. */
export interface TableHints {
  /** How many digits the lamp shows. */
  digits?: readonly number[];
  /** Can it show a zero? */
  zero?: boolean;
  max?: number;
  columns?: ReadonlyMap<number, Role>;
  /** Off a picture: the number of each line that is well seen, null where it is not. Any other number is hard to read. */
  seen?: readonly (string | null)[];
}

/** A page longer than this is not gone through, characters. */
export const PAGE_MAX = 400_000;
/** Fewer rows make no table: each is doubtful. */
const FEW = 3;

/**
 * Reads the table on a page of text: pasted, out of a spreadsheet or a web page, CSV of any dialect. How its cells are parted and
 * which columns hold what is found by trying: the reading wins that makes most rows, in order, with most of the page used.
 *
 * @throws RangeError for a page longer than {@link PAGE_MAX}
 */
export function readTable(page: string, hints: TableHints = {}): ReadTable {
  if (page.length > PAGE_MAX) throw new RangeError("too long for a page");
  const tries = [
    ...SPLITS.map((split) => ({
      split,
      lines: split === "plain" ? plainLines(linesOf(page, split)) : linesOf(page, split),
    })),
    { split: "stacked" as const, lines: stackedLines(linesOf(page, "plain")) },
  ];
  const read = tries.map(({ split, lines }) => {
    const once = interpret(lines, hints);
    const notes = footnotesIn(lines, once.marks);
    const table = notes.size
      ? interpret(
          lines.filter((l) => !notes.has(l)),
          hints,
        )
      : once;
    return { split, table, notes, worth: worth(table, lines.length) };
  });
  const best = read.reduce((a, b) => (b.worth > a.worth ? b : a));
  const { rows, aside, columns } = best.table;
  for (const { raw, from, to } of best.notes.keys()) aside.push({ from, to, text: raw.trim(), as: "footnote" });
  for (const row of best.table.marked) {
    const said = [...best.notes.values()].filter((n) => row.marks.includes(n.mark)).map((n) => n.text);
    if (said.length) row.row.texts.note = [row.row.texts.note, ...said].filter(Boolean).join(". ");
  }
  doubt(rows, hints);
  return { split: best.split, columns, rows, aside: aside.sort((a, b) => a.from - b.from) };
}

interface Interpreted {
  rows: ReadRow[];
  marked: { row: ReadRow; marks: string[] }[];
  aside: ReadTable["aside"];
  columns: ReadTable["columns"];
  marks: Set<string>;
}

function interpret(lines: readonly Line[], hints: TableHints): Interpreted {
  const out: Interpreted = { rows: [], marked: [], aside: [], columns: [], marks: new Set() };
  const heads = lines.flatMap((l, i) => (isHeading(l) ? [i] : []));
  const starts = [...new Set([0, ...heads])];
  const whole = groupsOf(
    lines.filter((l) => !isHeading(l)),
    lines[heads[0]] ?? null,
    hints.digits ?? null,
    hints.columns ?? new Map(),
  );
  starts.forEach((start, k) => {
    const block = lines.slice(start, starts[k + 1] ?? lines.length);
    const heading = heads.includes(start) ? block[0] : null;
    const body = heading ? block.slice(1) : block;
    if (heading) out.aside.push({ from: heading.from, to: heading.to, text: heading.raw.trim(), as: "heading" });
    const own = groupsOf(body, heading, hints.digits ?? null, hints.columns ?? new Map());
    const groups = body.length > FEW && own.length ? own : whole;
    if (!out.columns.length) out.columns = columnsOf(groups, heading, body);
    takeRows(body, groups, out);
  });
  return out;
}

function columnsOf(groups: readonly Group[], heading: Line | null, body: readonly Line[]): ReadTable["columns"] {
  const width = groups.length ? Math.max(0, ...body.map((l) => l.cells.length)) : 0;
  const roles = new Map(groups.flatMap((g) => [...g.roles]));
  return Array.from({ length: width }, (_, c) => ({
    heading: heading?.cells[c] ?? "",
    role: roles.get(c) ?? "left-out",
  }));
}

/** Rows out of lines: a cell of codes begins one, what follows without a code goes on with it, what stands alone parts them. */
function takeRows(body: readonly Line[], groups: readonly Group[], out: Interpreted): void {
  const apart = groups.map((g) => digitwise(body.map((l) => l.cells[g.code] ?? "")));
  const last: (ReadRow[] | null)[] = groups.map(() => null);
  let under = "";
  for (const line of body) {
    let used = false;
    groups.forEach((g, k) => {
      const cell = line.cells[g.code] ?? "";
      const found = codesIn(cell, apart[k]);
      if (found) {
        used = true;
        last[k] = rowsOf(found, line, g, under, out);
      } else if (!cell && last[k]?.length && line.from - last[k][0].to <= 2 && goesOn(last[k], line, g)) used = true;
    });
    if (used) continue;
    const text = line.raw.trim();
    const heading = text.length < 60 && !/[.;,]$/.test(text);
    if (heading) under = text.replace(/[:|\s]+$/, "").replace(/^[|\s]+/, "");
    last.fill(null);
    out.aside.push({ from: line.from, to: line.to, text, as: heading ? "heading" : "other" });
  }
}

function rowsOf(found: CodeCell, line: Line, group: Group, under: string, out: Interpreted): ReadRow[] {
  const texts: ReadRow["texts"] = {};
  const marks = [...found.marks];
  for (const [c, role] of group.roles) {
    if (role === "code" || role === "left-out" || !line.cells[c]) continue;
    const { bare, marks: own } = role === "title" ? withoutMarks(line.cells[c]) : { bare: line.cells[c], marks: [] };
    marks.push(...own);
    texts[role] = texts[role] ? `${texts[role]}. ${bare}` : bare;
  }
  for (const m of marks) out.marks.add(m);
  const { title = "", ...rest } = texts;
  return found.codes.map((code) => {
    const doubts: Doubt[] = [
      ...(found.span ? (["span"] as const) : []),
      ...(found.padded ? (["padded"] as const) : []),
    ];
    const row: ReadRow = {
      code,
      title,
      texts: { ...rest },
      under,
      indent: line.indent,
      from: line.from,
      to: line.to,
      doubts,
    };
    out.rows.push(row);
    if (marks.length) out.marked.push({ row, marks });
    return row;
  });
}

/** A line without a code goes on with the texts of the row before. */
function goesOn(rows: readonly ReadRow[], line: Line, group: Group): boolean {
  if (standsAlone(rows[0], line)) return false;
  let used = false;
  for (const [c, role] of group.roles) {
    const more = line.cells[c];
    if (!more || role === "code" || role === "left-out") continue;
    used = true;
    for (const row of rows) {
      const before = role === "title" ? row.title : (row.texts[role] ?? "");
      const joined = /[\p{L}]-$/u.test(before) ? before.slice(0, -1) + more : [before, more].filter(Boolean).join(" ");
      if (role === "title") row.title = joined;
      else row.texts[role] = joined;
    }
  }
  if (used) for (const row of rows) row.to = line.to;
  return used;
}

/** A few words by themselves, no deeper than the rows, that begin anew: a heading, and no more of the row before. */
function standsAlone(row: ReadRow, line: Line): boolean {
  const parted = line.raw.includes("\t") || /[|;]/.test(line.raw);
  if (parted || line.cells.filter((c) => c).length !== 1) return false;
  const text = line.raw.trim();
  const open = /[,–-]$|\b(?:and|or|of|the|to|in|with|at|by|for|from)$/i.test(
    [row.title, ...Object.values(row.texts)].at(-1) ?? "",
  );
  return line.indent <= row.indent && /^\p{Lu}/u.test(text) && text.length < 60 && !/[.;,]$/.test(text) && !open;
}

/** Lines that explain a mark which codes or titles carry. */
function footnotesIn(lines: readonly Line[], marks: ReadonlySet<string>): Map<Line, { mark: string; text: string }> {
  const out = new Map<Line, { mark: string; text: string }>();
  if (!marks.size) return out;
  for (const line of lines) {
    const m = /^\s*[|]?\s*(\*{1,3}|[†‡§¹²³⁴⁵]|\(?(?:\d|[a-z])\)|\^\d)\s*[:=-]?\s*(\S.*)$/i.exec(
      line.raw.replace(/[\t;|]+/g, " "),
    );
    const mark = m?.[1].replace(/[()^]/g, "");
    if (m && mark && marks.has(mark)) out.set(line, { mark, text: m[2].replace(/[|\s"]+$/, "") });
  }
  return out;
}

/** How much of the page a reading explains: rows with words, in order, parted into columns; what it leaves lying counts against it. */
function worth({ rows, aside, columns }: Interpreted, lines: number): number {
  if (!rows.length) return 0;
  const ordered = rising(rows.map((r) => Number(r.code))).filter(Boolean).length;
  const said = rows.filter((r) => r.title).length;
  const filled = rows.reduce((sum, r) => sum + Math.min(3, Object.keys(r.texts).length), 0);
  // Words that begin with a number have swallowed a column.
  const swallowed = rows.filter((r) => /^\d/.test(r.title)).length;
  const kept = columns.filter((c) => c.role === "left-out").length;
  const other = aside.filter((a) => a.as === "other").length;
  return (
    said +
    0.2 * (rows.length - said) +
    0.5 * ordered +
    0.12 * filled -
    0.5 * swallowed -
    0.4 * (aside.length + other) -
    0.02 * kept * lines ** 0.5
  );
}

/** A number with words behind it in the middle of a text may be the next code; one with a unit is a figure. */
const ANOTHER =
  /\s\d{2,3}\s+(?!k?m\/?h|rpm|volts?|ohms?|sec|min|times|turns|degrees|cylinder|pins?|models?|percent|and\b|to\b|or\b)\p{L}{3}/iu;

function doubt(rows: readonly ReadRow[], { digits, zero = true, max = 9999, seen }: TableHints): void {
  const byCode = new Map<string, ReadRow[]>();
  for (const row of rows) byCode.set(row.code, [...(byCode.get(row.code) ?? []), row]);
  for (const part of runsOf(rows)) {
    const inOrder = rising(part.map((r) => Number(r.code)));
    const share = inOrder.filter(Boolean).length / part.length;
    part.forEach((row, i) => {
      if (part.length > 3 && share > 0.6 && !inOrder[i]) row.doubts.push("out-of-order");
    });
  }
  for (const row of rows) {
    if (byCode.get(row.code)!.length > 1) row.doubts.push("twice");
    if (digits && !digits.includes(row.code.length)) row.doubts.push("digits");
    if ((!zero && row.code.includes("0")) || Number(row.code) > max) row.doubts.push("cannot-show");
    if (!/\p{L}{2}/u.test(row.title)) row.doubts.push("no-text");
    if (ANOTHER.test(row.title) || /[;,]\s*\d{1,3}\s*[=:]/.test(row.title)) row.doubts.push("two-in-one");
    if (rows.length < FEW) row.doubts.push("few");
    if (seen && !codesIn(seen[row.from] ?? "", true)?.codes.includes(row.code)) row.doubts.push("unclear");
  }
}

/** Rows that stand under one heading, in the order of the page. */
function runsOf(rows: readonly ReadRow[]): ReadRow[][] {
  const out: ReadRow[][] = [];
  for (const row of rows) {
    const part = out.find((p) => p[0].under === row.under);
    if (part) part.push(row);
    else out.push([row]);
  }
  return out;
}
