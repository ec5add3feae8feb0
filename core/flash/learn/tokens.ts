import type { Run } from "../dialect/digits";
import type { Kinds } from "./kinds";
import type { Marks } from "./marks";

/** Flashes between two rests that are longer than those in a code. */
export interface Token {
  runs: Run[];
  /** Which kind of rest stood before and after it; null where watching began or ended. */
  before: number | null;
  after: number | null;
}

/**
 * Flashes in tokens, and the flashes of a token in runs.
 * @param within kinds of rest below this stand in a code
 * @param parts kinds of rest from this on part two runs of a code
 */
export function tokensOf({ long }: Marks, { of }: Kinds, within: number, parts: number): Token[] {
  const tokens: Token[] = [];
  let token: Token = { runs: [{ long: 0, short: 0 }], before: null, after: null };
  for (const [i, l] of long.entries()) {
    const run = token.runs[token.runs.length - 1];
    if (l) run.long++;
    else run.short++;
    if (i === long.length - 1) break;
    const rest = of[i];
    if (rest >= within) {
      tokens.push({ ...token, after: rest });
      token = { runs: [{ long: 0, short: 0 }], before: rest, after: null };
    } else if (rest >= parts) token.runs.push({ long: 0, short: 0 });
  }
  tokens.push(token);
  return tokens;
}

/** What a token shows, as one word. */
export const wordOf = ({ runs }: Token): string => runs.map((r) => `${r.long}.${r.short}`).join(" ");

/** Length of the stretches of equal words, each with whether its beginning and its end were seen. */
export function stretches(
  words: readonly string[],
  joined: (i: number) => boolean,
): { word: string; n: number; from: number }[] {
  const all: { word: string; n: number; from: number }[] = [];
  for (const [i, word] of words.entries()) {
    const last = all.at(-1);
    if (last && last.word === word && joined(i)) last.n++;
    else all.push({ word, n: 1, from: i });
  }
  return all;
}

/** What occurs most; the greater of two that occur as often. */
export function most<T extends number | string>(of: readonly T[]): T | undefined {
  const n = new Map<T, number>();
  for (const x of of) n.set(x, (n.get(x) ?? 0) + 1);
  return [...n].sort(([a, x], [b, y]) => y - x || (a < b ? 1 : -1))[0]?.[0];
}
