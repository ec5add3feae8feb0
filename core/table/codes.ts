/** Codes that stand in one cell of a table, and what is odd about how they are written. */
export interface CodeCell {
  codes: string[];
  /** Footnote marks behind them: "*", "1)". */
  marks: string[];
  /** Written as a span ("31-33"): all numbers between are meant, if the table means it so. */
  span: boolean;
  /** Digit by digit ("2-3", "2 long 3 short"): one code of several digits. */
  apart: boolean;
  /** A zero stood in front ("07"). */
  padded: boolean;
}

const WORD = /^(?:fault |trouble |flash |blink )?(?:code|no|nr|number)s?\b\.?:?\s*|^#\s*/i;
const MARK = /\s?(\*{1,3}|[†‡§¹²³⁴⁵]|\(?\d\)|\([a-z]\)|\^\d)$/i;
const NUMBER = /^\d{1,4}$/;
const SPAN_MOST = 40;

/** The marks at the end of a cell, and the cell without them. */
export function withoutMarks(cell: string): { bare: string; marks: string[] } {
  let bare = cell.trim();
  const marks: string[] = [];
  for (let m = MARK.exec(bare); m && bare.length > m[0].length; m = MARK.exec(bare)) {
    marks.unshift(m[1].replace(/[()^]/g, ""));
    bare = bare.slice(0, -m[0].length).trim();
  }
  return { bare, marks };
}

/**
 * The codes in a cell, or null where the cell is no list of codes: "23", "Code 23:", "23 / 24", "31-33", "23*", "2-3", "2 long 3 short".
 *
 * @param digitwise is "2-3" a code of two digits here, and no span from 2 to 3?
 */
export function codesIn(cell: string, digitwise = false): CodeCell | null {
  const first = withoutMarks(cell);
  const bare = first.bare
    .replace(WORD, "")
    .replace(/[.:)=]+$/, "")
    .trim();
  if (!/\d/.test(bare)) return null;
  const worded = /^(\d)\s*(?:long|l)\b[\s,+-]*(\d)\s*(?:short|s)\b$/i.exec(bare);
  if (worded) return { codes: [worded[1] + worded[2]], marks: first.marks, span: false, apart: true, padded: false };
  if (digitwise && /^\d(?:\s?[-–.·:]\s?\d){1,3}$/.test(bare))
    return { codes: [bare.replace(/\D/g, "")], marks: first.marks, span: false, apart: true, padded: false };
  const out: CodeCell = { codes: [], marks: first.marks, span: false, apart: false, padded: false };
  for (const part of bare.split(/\s*(?:[/,;&+]|\band\b|\bor\b)\s*/i)) {
    const span = /^(\d{1,4})\s*(?:-|–|—|\.\.|to)\s*(\d{1,4})$/i.exec(part);
    if (span) {
      const [from, to] = [Number(span[1]), Number(span[2])];
      if (to <= from || to - from > SPAN_MOST) return null;
      out.span = true;
      for (let n = from; n <= to; n++) out.codes.push(String(n));
      continue;
    }
    const { bare: number, marks } = withoutMarks(part);
    if (!NUMBER.test(number) || Number(number) === 0) return null;
    out.marks.push(...marks);
    if (/^0/.test(number)) out.padded = true;
    out.codes.push(String(Number(number)));
  }
  return out.codes.length ? out : null;
}

/** Do the cells of a column spell their codes digit by digit? Then "3-1" goes down somewhere, which no span does. */
export function digitwise(cells: readonly string[]): boolean {
  const pairs = cells.flatMap((c) => /^(\d)\s?[-–.·:]\s?(\d)$/.exec(withoutMarks(c).bare.replace(WORD, "")) ?? []);
  const n = pairs.length / 3;
  if (n < 2) return false;
  const rest = cells.filter((c) => c.trim() && !/\d\s?[-–.·:]\s?\d/.test(c) && codesIn(c)).length;
  let down = false;
  for (let i = 0; i < pairs.length; i += 3) down ||= Number(pairs[i + 2]) <= Number(pairs[i + 1]);
  return down || rest === 0;
}
