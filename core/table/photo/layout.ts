/** A word that was read off a picture, with its place in pixels and how sure the reader is, 0 to 1. */
export interface Word {
  text: string;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  sure: number;
}

/** A line of a page that was read off a picture. */
export interface WordLine {
  words: Word[];
  y0: number;
  y1: number;
}

/** Words gathered into lines: those whose middles lie within another's height. */
export function linesOfWords(words: readonly Word[]): WordLine[] {
  const out: WordLine[] = [];
  const some = words.filter((w) => /[\p{L}\d]/u.test(w.text) || /^[-–/*]+$/.test(w.text));
  const heights = some.map((w) => w.y1 - w.y0).sort((a, b) => a - b);
  const usual = heights[Math.floor(heights.length / 2)] ?? 1;
  for (const w of [...some].sort((a, b) => a.y0 + a.y1 - (b.y0 + b.y1))) {
    const middle = (w.y0 + w.y1) / 2;
    const line = out.findLast((l) => Math.abs((l.y0 + l.y1) / 2 - middle) < usual * 0.6);
    if (!line) {
      out.push({ words: [w], y0: w.y0, y1: w.y1 });
      continue;
    }
    line.words.push(w);
    const n = line.words.length;
    // The line's middle is the mean of its words, so that one tall letter does not drag it off.
    line.y0 += (w.y0 - line.y0) / n;
    line.y1 += (w.y1 - line.y1) / n;
  }
  for (const l of out) l.words.sort((a, b) => a.x0 - b.x0);
  return out.sort((a, b) => a.y0 - b.y0);
}

/** The page as text in which columns stand under one another: a gap that is wider than between words is two blanks at least. */
export function pageText(lines: readonly WordLine[]): string {
  const all = lines.flatMap((l) => l.words);
  const widths = all.filter((w) => w.text.length > 2).map((w) => (w.x1 - w.x0) / w.text.length);
  const letter = widths.sort((a, b) => a - b)[Math.floor(widths.length / 2)] ?? 10;
  return lines
    .map(({ words }) => {
      let row = "";
      let end = -Infinity;
      for (const w of words) {
        const apart = w.x0 - end > 1.9 * letter;
        const place = Math.round(w.x0 / letter);
        row = apart ? (row ? `${row}  ` : "").padEnd(place) + w.text : `${row} ${w.text}`;
        end = w.x1;
      }
      return row;
    })
    .join("\n");
}
