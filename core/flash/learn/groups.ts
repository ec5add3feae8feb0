import type { Dialect } from "../dialect/dialect";
import { most, stretches, type Token } from "./tokens";

/** Of the codes so many must be of the same make-up, as a share; the others were misread. */
export const CONFORMING = 0.6;
/** No lamp shows so many flashes in one run. */
export const MOST_TOTAL = 60;

/** How digits are shown, and which kinds of rest stand in a code. */
export interface Style {
  style: Dialect["digits"]["style"];
  count: number[];
  zero: number | null;
  /** Kinds of rest below this stand in a code. */
  within: number;
  tokens: Token[];
}

/** Which kinds of rest stand between showings of one code, between two codes, and between two rounds of the list. */
export type Roles = readonly [repeat: number, code: number, pass: number];

/** A token of which the list is made, and what stands before the next one. */
export interface Listed {
  word: string;
  token: Token;
  /** Kind of rest behind it, or the separator that stands there. */
  after: number | "separator" | null;
}

/** Showings of one code in a row. */
export interface Group {
  word: string;
  n: number;
  after: Listed["after"];
}

/** Codes with how often each was shown in a row, and the rounds of the list, as far as rests of these roles tell. */
export function groupsOf(
  listed: readonly Listed[],
  [repeat, code, pass]: Roles,
): { groups: Group[]; rounds: Group[][] } {
  const words = listed.map((l) => l.word);
  const ends = (after: Listed["after"]) => after === "separator" || after === null || (pass > code && after >= pass);
  const joins = (i: number) => {
    const { after } = listed[i - 1];
    return typeof after === "number" && !ends(after) && (repeat === code || after <= repeat);
  };
  // Where showings of one code have a rest of their own they are told by it, though one of them was misread; else by what they show.
  const showings = stretches(repeat < code ? words.map(() => "") : words, joins);
  const groups = showings.map(({ n, from }) => ({
    word: usualWord(words, from, n),
    n,
    after: listed[from + n - 1].after,
  }));
  return { groups, rounds: roundsOf(groups, ends, pass > code) };
}

/** What most showings of a group have as their word; of two that as many have, the one that comes oftener in all. */
function usualWord(words: readonly string[], from: number, n: number): string {
  const own = words.slice(from, from + n);
  const inAll = (word: string) => words.filter((w) => w === word).length;
  const inGroup = (word: string) => own.filter((w) => w === word).length;
  return own.reduce((a, b) => ((inGroup(b) - inGroup(a) || inAll(b) - inAll(a)) > 0 ? b : a));
}

/** Rounds of the list: between the longest rests, or, where none is longer than that between codes, as often as the row repeats itself. */
function roundsOf(groups: readonly Group[], ends: (after: Listed["after"]) => boolean, marked: boolean): Group[][] {
  if (marked) {
    const rounds: Group[][] = [[]];
    for (const g of groups) {
      rounds[rounds.length - 1].push(g);
      if (ends(g.after)) rounds.push([]);
    }
    return rounds.filter((r) => r.length);
  }
  for (let period = 1; period < groups.length; period++)
    if (groups.slice(period).every((g, i) => g.word === groups[i].word))
      return Array.from({ length: Math.ceil(groups.length / period) }, (_, r) =>
        groups.slice(r * period, (r + 1) * period),
      );
  return [[...groups]];
}

/** A list that comes twice and is over, with a code before it or behind it that does not come again. */
export interface Twice {
  lead: Group | null;
  lists: readonly [Group[], Group[]];
  end: Group | null;
}

/** The ways in which a row of codes may be one list twice: each code of it comes in both, in the same order. */
export function twicesIn(groups: readonly Group[]): Twice[] {
  const found: Twice[] = [];
  for (const [before, behind] of [
    [0, 0],
    [1, 0],
    [0, 1],
  ]) {
    const row = groups.slice(before, groups.length - behind);
    const half = row.length / 2;
    if (!half || !Number.isInteger(half)) continue;
    const [first, second] = [row.slice(0, half), row.slice(half)];
    // The first may have been come upon in its middle, and the last broken off.
    const same = first.filter((g, i) => g.word === second[i].word).length;
    if (same < 1 || same < half - 1) continue;
    found.push({
      lead: before ? groups[0] : null,
      lists: [first, second],
      end: behind ? groups[groups.length - 1] : null,
    });
  }
  return found;
}

/** A code that may belong to the show and be no fault: how often it is shown, and the others. */
export interface Fixed {
  code: string;
  times: number;
  leads: boolean;
  others: number;
}

/** Codes that come in every round at its beginning, or at its end. */
export function fixedIn(rounds: readonly Group[][], style: Style, times: number): Fixed[] {
  const whole = rounds.length > 2 ? rounds.slice(1, -1) : rounds.length === 2 ? rounds.slice(0, 1) : rounds;
  const found: Fixed[] = [];
  for (const leads of [true, false]) {
    const at = whole.map((r) => (leads ? r[0] : r[r.length - 1]));
    const word = most(at.map((g) => g.word));
    const own = at.filter((g) => g.word === word);
    // A show that leads once and stops has it in its first round alone.
    const led = leads && rounds.length === 2 && rounds[0].length > 1;
    if (!word || (!led && (own.length < whole.length || whole.some((r) => r.length < 2)))) continue;
    const code = codeOfWord(word, style);
    const rest = whole.flatMap((r) => r.filter((g) => g.word !== word));
    if (code)
      found.push({
        code,
        times: most(own.map((g) => g.n)) ?? times,
        leads,
        others: most(rest.map((g) => g.n)) ?? times,
      });
  }
  return found;
}

/** Where nothing marks the rounds: a code that is shown oftener or less often than the others each time it comes. */
export function oddIn(groups: readonly Group[], style: Style, times: number, stopped: boolean): Fixed[] {
  // The first may have been come upon in its middle, the last was cut off, and a last showing that was cut off in its middle
  // reads as one of another code; what was shown oftener than others was not.
  const inner = groups.slice(groups[0].n > times ? 0 : 1, stopped ? undefined : groups.length > 4 ? -2 : -1);
  const found: Fixed[] = [];
  for (const word of new Set(inner.map((g) => g.word))) {
    const own = inner.filter((g) => g.word === word).map((g) => g.n);
    const others = inner.filter((g) => g.word !== word).map((g) => g.n);
    const [n, usual] = [most(own), most(others)];
    const code = codeOfWord(word, style);
    if (!code || n === undefined || usual === undefined) continue;
    if (own.filter((x) => x === n).length <= CONFORMING * own.length) continue;
    if (n !== usual && others.filter((x) => x === usual).length >= CONFORMING * others.length)
      found.push({ code, times: n, leads: true, others: usual });
  }
  // One that was shown more rarely up to now, at the end, may be an end mark as well as a code that was going to come again.
  const last = groups[groups.length - 1];
  const ends = codeOfWord(last.word, style);
  if (!stopped && ends && last.n < times && groups.length > 2 && !groups.slice(0, -1).some((g) => g.word === last.word))
    found.push({ code: ends, times: last.n, leads: false, others: times });
  return found;
}

/** The code that a word shows in this style, or null where no code looks so. */
export function codeOfWord(word: string, { style, zero, count }: Style): string | null {
  const runs = word.split(" ").map((r) => r.split(".").map(Number));
  if (style === "long-short") {
    const [long, short] = runs[0];
    return runs.length === 1 && long < 10 && short < 10 && long + short ? String(10 * long + short) : null;
  }
  if (style === "total") return runs[0][1] <= MOST_TOTAL ? String(runs[0][1]) : null;
  if (runs.some(([, short], i) => short > 9 && !(i && short === zero))) return null;
  return count.includes(runs.length) ? runs.map(([, short]) => (short === zero ? 0 : short)).join("") : null;
}
