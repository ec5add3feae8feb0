import { codesIn } from "./codes";
import type { Line } from "./split";

const LIST = String.raw`\d{1,4}(?:\s?(?:[/,&–-]|to|and|or)\s?\d{1,4})*(?:\s?(?:\*{1,3}|[†‡§¹²³]|\d\)))?`;
const START = new RegExp(
  String.raw`^((?:(?:fault |trouble |flash )?code\s*|no\.?\s*|#\s*)?(?:\d\s*long,?\s*\d\s*short|${LIST}))\s*(?:[:.)=–—-]+\s*|\s)(\D.*|\d.*)$`,
  "i",
);
/** A number with a unit behind it is a figure in the text. */
const FIGURE =
  /^\d[\d.,]*\s*(?:v|volts?|mv|a|amps?|ω|k?ohms?|kω|mm|km|miles?|°\s?[cf]|%|min(?:utes?)?|s|sec(?:onds?)?|times|hz|rpm|kpa|bar|pins?|cylinders?|wires?)\b/i;
const PARTS = new RegExp(String.raw`(?<!\d)(?:[;,.]\s+|\s{2,})(?=(?:code\s*)?${LIST}\s*[=:–]\s)`, "i");

/** Lines of running text as a code and its words: "23 Air sensor", "Code 23: air sensor", "23 = air sensor; 24 = …". */
export function plainLines(lines: readonly Line[]): Line[] {
  return lines.flatMap((line) =>
    line.raw
      .trim()
      .split(PARTS)
      .map((part): Line => ({ ...line, cells: cellsOf(part.replace(/\s+/g, " ").trim()) })),
  );
}

function cellsOf(text: string): [string, string] {
  if (FIGURE.test(text)) return ["", text];
  const m = START.exec(text);
  if (m && codesIn(m[1], true) && /\p{L}/u.test(m[2])) return [m[1], m[2]];
  return codesIn(text, true) ? [text, ""] : ["", text];
}

/** A page on which every cell has a line of its own: the code alone, then its words, up to the next code. */
export function stackedLines(lines: readonly Line[]): Line[] {
  const out: Line[] = [];
  for (const line of lines) {
    const text = line.cells[0];
    const open = out.at(-1);
    if (codesIn(text, true) && !FIGURE.test(text)) out.push({ ...line, cells: [text] });
    else if (open && line.from - open.to <= 2) {
      open.cells.push(text);
      open.to = line.to;
      open.raw += `\n${line.raw}`;
    } else out.push({ ...line, cells: ["", text] });
  }
  return out;
}
