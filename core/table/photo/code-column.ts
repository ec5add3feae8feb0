import { codesIn } from "../codes";
import { byOwnDigits, ownDigits, type Piece } from "./digits";
import type { Word, WordLine } from "./layout";

/** Where the codes of a table stand, in pixels from left to right. */
export interface Band {
  x0: number;
  x1: number;
}

/** The place that most codes at the beginning of a line share, or null where there is none. */
export function codeBand(lines: readonly WordLine[]): Band | null {
  const codes = lines.flatMap(({ words }) =>
    words[0] && isCode(words[0].text) && words[1] ? [{ code: words[0], next: words[1] }] : [],
  );
  if (codes.length < 3) return null;
  const middles = codes.map(({ code }) => (code.x0 + code.x1) / 2).sort((a, b) => a - b);
  const middle = middles[Math.floor(middles.length / 2)];
  const own = codes.filter(({ code }) => Math.abs((code.x0 + code.x1) / 2 - middle) < 60);
  const high = Math.max(...own.map(({ code }) => code.y1 - code.y0));
  const x0 = Math.min(...own.map(({ code }) => code.x0)) - 0.6 * high;
  const text = Math.min(...own.map(({ next }) => next.x0));
  const x1 = Math.min(text - 0.3 * high, Math.max(...own.map(({ code }) => code.x1)) + 0.8 * high);
  return x1 > x0 ? { x0: Math.max(0, x0), x1 } : null;
}

const isCode = (text: string): boolean => codesIn(text, true) !== null;

/** Words of a line that stand in the band of the codes. */
export const inBand = ({ words }: WordLine, { x0, x1 }: Band): Word[] =>
  words.filter((w) => (w.x0 + w.x1) / 2 > x0 && (w.x0 + w.x1) / 2 < x1);

/** What further looks at one cell gave: digits alone, how sure that was, 0 to 1, and its pieces of ink. */
export interface Look {
  text: string;
  sure: number;
  pieces: readonly Piece[];
}

/** So sure a look must be to count. */
const SURE = 0.6;

/**
 * The lines with the codes as three looks saw them: the reader's at the whole page, its second one at the digits alone, and a third by what
 * the page's own digits look like. What two of them see stands, if none surely sees something else; any other code is one that somebody
 * has to look at.
 *
 * @param agree so many looks have to see the same
 * @returns `seen`: the number of each line that is well seen; of the others somebody must look at the code
 */
export function withLooks(
  lines: readonly WordLine[],
  band: Band,
  looks: ReadonlyMap<number, Look>,
  agree: number,
): { lines: WordLine[]; seen: (string | null)[] } {
  const looked = new Map(
    [...looks].map(([i, look]) => {
      const own = inBand(lines[i], band);
      const text = own.map((w) => w.text).join(" ");
      const first = isCode(text) && Math.min(...own.map((w) => w.sure)) >= SURE ? text.replace(/\s/g, "") : null;
      const second = isCode(look.text) && look.sure >= SURE ? look.text.replace(/\s/g, "") : null;
      return [i, { own, first, second, look, weak: isCode(look.text) ? look.text : isCode(text) ? text : null }];
    }),
  );
  const known = [...looked.values()].flatMap(({ first, second, look }) =>
    first && first === second && /^\d+$/.test(first) ? [{ code: first, pieces: look.pieces }] : [],
  );
  const digits = ownDigits(known);
  const seen: (string | null)[] = lines.map(() => null);
  const out = lines.map((line, i): WordLine => {
    const here = looked.get(i);
    if (!here) return line;
    const third = byOwnDigits(here.look.pieces, digits);
    const votes = [here.first, here.second, third].filter((c): c is string => c !== null);
    const most = votes.find((c) => votes.filter((v) => v === c).length > 1) ?? null;
    const code = most ?? third ?? here.second ?? here.first ?? here.weak;
    if (code === null) return line;
    if (most && votes.length >= agree && votes.every((v) => v === most)) seen[i] = most;
    const rest = line.words.filter((w) => !here.own.includes(w));
    const place = here.own[0] ?? { x0: band.x0, x1: band.x1, y0: line.y0, y1: line.y1, sure: 0 };
    return { ...line, words: [{ ...place, text: code, sure: here.look.sure }, ...rest].sort((a, b) => a.x0 - b.x0) };
  });
  return { lines: out, seen };
}
