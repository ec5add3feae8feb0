import Papa from "papaparse";

/** One row of a page, parted into cells; lines are counted from 0. */
export interface Line {
  cells: string[];
  from: number;
  to: number;
  /** As it stands on the page. */
  raw: string;
  /** Blanks in front. */
  indent: number;
}

export const SPLITS = ["tab", "semicolon", "comma", "bars", "wide", "plain"] as const;
/** How the cells of a page are parted. */
export type Split = (typeof SPLITS)[number];

const SIGN: Partial<Record<Split, string>> = { tab: "\t", semicolon: ";", comma: "," };

/** The lines of a page, parted in one of the ways; lines without a letter or digit are left out. */
export function linesOf(page: string, split: Split): Line[] {
  const rows = page
    .replace(/\r\n?/g, "\n")
    .replace(/[\u00a0\u2007\u202f]/g, " ")
    .split("\n");
  if (SIGN[split]) return parted(rows, SIGN[split]);
  const lines = rows.map((raw, i) => ({ raw, from: i, to: i, indent: raw.length - raw.trimStart().length }));
  const some = lines.filter((l) => /[\p{L}\d]/u.test(l.raw));
  if (split === "bars")
    return some.map((l) => ({
      ...l,
      cells: l.raw
        .replace(/^\s*[|│¦]|[|│¦]\s*$/g, "")
        .split(/[|│¦]/)
        .map(clean),
    }));
  if (split === "plain") return some.map((l) => ({ ...l, cells: [clean(l.raw)] }));
  return inColumns(some);
}

const clean = (cell: string): string => cell.replace(/\s+/g, " ").trim();

/** Fields with a sign between; one in quotes may go over several lines. */
function parted(rows: readonly string[], delimiter: string): Line[] {
  const quoted = rows.some((r) => r.startsWith('"') || r.includes(`${delimiter}"`));
  if (!quoted) {
    const cellsOf = (raw: string) => raw.split(delimiter).map(clean);
    return rows.flatMap((raw, i) =>
      /[\p{L}\d]/u.test(raw) ? [{ cells: cellsOf(raw), from: i, to: i, raw, indent: 0 }] : [],
    );
  }
  const out: Line[] = [];
  let at = 0;
  for (const data of Papa.parse<string[]>(rows.join("\n"), { delimiter }).data) {
    const to = at + data.reduce((sum, field) => sum + field.split("\n").length - 1, 0);
    const raw = rows.slice(at, to + 1).join("\n");
    if (/[\p{L}\d]/u.test(raw)) out.push({ cells: codesFirst(data.map(clean)), from: at, to, raw, indent: 0 });
    at = to + 1;
  }
  return out;
}

/** `11, 13,"Air sensor"`: somebody forgot to quote a list of codes. */
function codesFirst([first, second, ...rest]: string[]): string[] {
  const number = /^\d{1,4}$/;
  return rest.length && number.test(first) && number.test(second) && /\p{L}/u.test(rest[0])
    ? codesFirst([`${first}, ${second}`, ...rest])
    : [first, second, ...rest].filter((c) => c !== undefined);
}

interface Piece {
  text: string;
  at: number;
}

/** Columns by where their cells begin: two blanks or a row of dots part them, and what begins under the same place is the same column. */
function inColumns(lines: readonly Omit<Line, "cells">[]): Line[] {
  const pieces = lines.map(({ raw }) => piecesOf(raw));
  const starts = new Map<number, number>();
  for (const line of pieces) for (const { at } of line) starts.set(at, (starts.get(at) ?? 0) + 1);
  const often = [...starts].sort((a, b) => b[1] - a[1]);
  const columns: number[] = [];
  // Figures stand flush right in many tables, so that a column's cells begin one or two places apart.
  for (const [at, n] of often)
    if (!columns.some((c) => Math.abs(c - at) <= NEAR) && n >= Math.max(2, lines.length / 12)) columns.push(at);
  if (!columns.length) columns.push(0);
  columns.sort((a, b) => a - b);
  const ends = endsOf(columns, pieces);
  return lines.map((line, i) => {
    const cells = columns.map(() => "");
    for (const { text, at } of pieces[i]) {
      // Figures that stand flush right belong to the column that ends where they do.
      const flush = /^\d/.test(text) ? ends.findIndex((e) => e === at + text.length) : -1;
      const k = flush < 0 ? nearest(columns, at) : flush;
      cells[k] = cells[k] ? `${cells[k]} ${text}` : text;
    }
    return { ...line, cells };
  });
}

const NEAR = 2;

/** Where most figures of each column end, or -1. */
function endsOf(columns: readonly number[], pieces: readonly Piece[][]): number[] {
  const counts = columns.map(() => new Map<number, number>());
  for (const { text, at } of pieces.flat())
    if (/^\d/.test(text)) {
      const of = counts[nearest(columns, at)];
      of.set(at + text.length, (of.get(at + text.length) ?? 0) + 1);
    }
  return counts.map((of) => [...of].sort((a, b) => b[1] - a[1]).find(([, n]) => n > 2)?.[0] ?? -1);
}

function piecesOf(raw: string): Piece[] {
  const out: Piece[] = [];
  for (const m of raw.replace(/\t/g, "    ").matchAll(/\S+(?: \S+)*/g))
    for (const part of m[0].matchAll(/(?:(?!\s?\.{3,}).)+/g)) {
      const text = part[0].replace(/^[\s.]{3,}/, "").trim();
      if (text && !/^\.+$/.test(text)) out.push({ text: clean(text), at: m.index + part.index });
    }
  return out;
}

/** The column whose place is at or before, within a blank or two; what begins between two belongs to the left one. */
function nearest(columns: readonly number[], at: number): number {
  let best = 0;
  for (let k = 0; k < columns.length; k++) if (columns[k] <= at + NEAR) best = k;
  return best;
}
