import Papa from "papaparse";

/** A lamp's timeline: state changes, the first giving the state at the start; times in ms from 0. */
export interface Trace {
  edges: [t: number, lit: 0 | 1][];
  until: number;
}

export interface TraceFault {
  line: number;
  message: string;
}

export const TRACE_MAX_BYTES = 16_000_000;
const TRACE_MAX_CHANGES = 20_000;

/**
 * Reads a trace from text with the columns `t_ms,lit` (comma, semicolon or tab; with or without a heading; `lit` is
 * 1 or 0). Samples of an unchanged lamp are fine: only changes are kept. Times are moved to begin at 0.
 * @returns the trace, or the first line at fault and how to mend it
 */
export function readTrace(text: string): { trace: Trace } | { fault: TraceFault } {
  if (text.length > TRACE_MAX_BYTES)
    return fault(
      1,
      `the file is larger than ${TRACE_MAX_BYTES / 1e6} MB. Cut it to the minutes in which the lamp blinks.`,
    );
  if (text.includes("\0"))
    return fault(1, "this is not a text file. Export the trace as CSV with the columns t_ms,lit.");
  const body = text.replace(/^\uFEFF/, "");
  const semicolons = body.slice(0, 2000).includes(";");
  const delimiter = semicolons ? ";" : body.slice(0, 2000).includes("\t") ? "\t" : ",";
  const number = (cell: string) => (cell === "" ? NaN : Number(semicolons ? cell.replace(",", ".") : cell));
  const edges: Trace["edges"] = [];
  let problem: TraceFault | null = null;
  let line = 0;
  let previous = -Infinity;
  let rows = 0;
  Papa.parse<string[]>(body, {
    delimiter,
    quoteChar: '"',
    step: ({ data }, parser) => {
      line++;
      const cells = data.map((c) => c.trim());
      if (cells.every((c) => c === "")) return;
      const stop = (message: string) => {
        problem = { line, message };
        parser.abort();
      };
      const t = number(cells[0]);
      if (rows === 0 && edges.length === 0 && !Number.isFinite(t) && /[a-z]/i.test(cells[0])) {
        if (!/^t/i.test(cells[0]) || !/lit|lamp|state/i.test(cells[1] ?? ""))
          stop(`the heading reads "${short(cells.join(delimiter))}". It must be t_ms${delimiter}lit.`);
        rows++;
        return;
      }
      rows++;
      if (cells.length < 2 || cells[1] === "")
        return stop(`the lamp's state is missing. Write the time, a ${name(delimiter)} and 1 or 0.`);
      if (!Number.isFinite(t)) return stop(`"${short(cells[0])}" is not a time. Write milliseconds as a plain number.`);
      if (cells[1] !== "0" && cells[1] !== "1")
        return stop(`"${short(cells[1])}" is not a lamp state. Write 1 for lit, 0 for dark.`);
      if (t < 0) return stop(`the time ${cells[0]} is negative. Times count from the start of watching.`);
      if (t < previous) return stop(`the time ${cells[0]} comes after ${previous}. Sort the lines by time.`);
      previous = t;
      const lit = cells[1] === "1" ? 1 : 0;
      if (edges.at(-1)?.[1] !== lit) edges.push([t, lit]);
      if (edges.length > TRACE_MAX_CHANGES)
        stop(
          `there are more than ${TRACE_MAX_CHANGES} changes up to here. Cut the file to the minutes in which the lamp blinks.`,
        );
    },
  });
  if (problem) return { fault: problem };
  if (edges.length < 2)
    return fault(Math.max(1, line), "the lamp never changes in this file. Watch for a whole round of the list.");
  const zero = edges[0][0];
  return { trace: { edges: edges.map(([t, lit]) => [t - zero, lit]), until: previous - zero } };
}

/** Writes a trace as `t_ms,lit`; the inverse of {@link readTrace}. The last line repeats the state at `until`. */
export function writeTrace({ edges, until }: Trace): string {
  const rows: [number, number][] = [...edges];
  const last = edges.at(-1);
  if (last && until > last[0]) rows.push([until, last[1]]);
  return (
    Papa.unparse(
      { fields: ["t_ms", "lit"], data: rows.map(([t, lit]) => [Math.round(t * 10) / 10, lit]) },
      { newline: "\n" },
    ) + "\n"
  );
}

function fault(line: number, message: string): { fault: TraceFault } {
  return { fault: { line, message } };
}

function short(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}

function name(delimiter: string): string {
  return { ",": "comma", ";": "semicolon", "\t": "tab" }[delimiter] ?? "comma";
}
