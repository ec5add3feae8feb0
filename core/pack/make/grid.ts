import type { Entry } from "../pack";

/** Columns of the grid of codes, as they stand in it, and how long their texts may be. */
export const COLUMNS = [
  { id: "code", label: "Code", max: 4 },
  { id: "title", label: "What it means", max: 200 },
  { id: "circuit", label: "Circuit", max: 200 },
  { id: "sets", label: "Set when", max: 1000 },
  { id: "affects", label: "Affects", max: 1000 },
] as const;
export type Column = (typeof COLUMNS)[number]["id"];

const UNTOLD = "Not told yet";

export const newEntry = (code: string, title = UNTOLD): Entry => ({
  code,
  kind: "fault",
  circuit: title,
  title,
  lookFirst: [],
});

const labelOf = (column: Column): string => COLUMNS.find((c) => c.id === column)!.label;
const scopeOf = (e: Entry): string => JSON.stringify(e.scope ?? null);

/** What is wrong with a text in a cell, or null. */
export function cellFault(column: Column, text: string): string | null {
  if (column === "code") return /^[1-9]\d{0,3}$/.test(text) ? null : "a code is a number, such as 24";
  if (column !== "title") return tooLong(column, text);
  return text ? tooLong(column, text) : "it may not be empty";
}

function tooLong(column: Column, text: string): string | null {
  const { max } = COLUMNS.find((c) => c.id === column)!;
  if (text.length > max) return `at most ${max} characters`;
  return /<[a-z!/?]/i.test(text) ? "plain text, without markup" : null;
}

/** An entry with another text in one of its cells; a circuit that is empty or only repeats the meaning is the meaning. */
function withCell(entry: Entry, column: Column, text: string): Entry {
  if (column === "title" && entry.circuit === entry.title) return { ...entry, title: text, circuit: text };
  if (column === "circuit") return { ...entry, circuit: text || entry.title };
  if (column !== "sets" && column !== "affects") return { ...entry, [column]: text };
  const { [column]: _, ...rest } = entry;
  return text ? { ...rest, [column]: text } : rest;
}

/**
 * Puts a block of cells, as it is copied from a spreadsheet, into the grid.
 * @param entries in the order of the rows
 * @param at the cell that the block begins at; a row behind the last begins new codes
 * @param block rows of texts; from the column of codes on a first row of headings is left out, and empty rows are
 * @returns all of it, or what is wrong with which row of the block: then nothing is taken
 */
export function withBlock(
  entries: readonly Entry[],
  at: { row: number; column: number },
  block: readonly (readonly string[])[],
): { entries: Entry[]; rows: number } | { faults: string[] } {
  const columns = COLUMNS.slice(at.column).map((c) => c.id);
  const clean = block.map((r) => r.map((text) => text.replace(/\s+/g, " ").trim()));
  // In other columns than the first an empty cell empties the one that it comes to lie on.
  const filled = clean
    .map((texts, i) => ({ texts, line: i + 1 }))
    .filter(({ texts }) => at.column > 0 || texts.some(Boolean));
  const headed = at.column === 0 && filled.length > 1 && !/\d/.test(filled[0].texts[0]);
  const rows = headed ? filled.slice(1) : filled;
  const next = [...entries];
  const faults: string[] = [];
  for (const [i, { texts, line }] of rows.entries()) {
    const cells = columns.slice(0, texts.length).map((column, k) => ({ column, text: texts[k] }));
    if (texts.length > columns.length && texts.slice(columns.length).some(Boolean))
      faults.push(`Row ${line}: it is wider than the grid from here on.`);
    const row = at.row + i;
    if (row >= entries.length && at.column > 0) {
      faults.push(`Row ${line}: it has no code. Paste rows that are new into the column of codes.`);
      continue;
    }
    for (const { column, text } of cells) {
      const wrong = cellFault(column, text);
      if (wrong) faults.push(`Row ${line}, ${labelOf(column)}${text && ` "${text.slice(0, 20)}"`}: ${wrong}.`);
    }
    next[row] = cells.reduce((e, { column, text }) => withCell(e, column, text), next[row] ?? newEntry(texts[0]));
  }
  for (const [i, e] of next.entries())
    if (next.findIndex((o) => o.code === e.code && scopeOf(o) === scopeOf(e)) < i)
      faults.push(`Code ${e.code} would stand there twice.`);
  return faults.length ? { faults } : { entries: next, rows: rows.length };
}
