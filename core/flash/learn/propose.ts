import type { Dialect, Phase } from "../dialect";
import { kindsOf, type Kinds } from "./kinds";
import type { Marks } from "./marks";
import { most, stretches, tokensOf, wordOf, type Token } from "./tokens";

/** A way in which the lamp may talk, and how likely it is before its codes are read. */
export interface Proposed {
  dialect: Dialect;
  logPrior: number;
}

/** What is known of it from elsewhere, as from a manual's page: it is held. */
export type Known = Partial<{ style: Dialect["digits"]["style"]; count: readonly number[]; rest: Dialect["rest"] }>;

/** Kinds of rest that lamps have at most, and ways of parting them that are gone into. */
const MOST_KINDS = 6;
const PARTINGS = 3;
const PARTING_IN_QUESTION = 25;
/** Of the codes so many must be of the same make-up, as a share; the others were misread. */
const CONFORMING = 0.6;
/** A lamp that rests for so many times the longest rest of its list has stopped. */
const STOPPED = 1.7;
/** Shortest flash and rest of the format, ms. */
const SHORTEST_MS = 120;
const MOST_TOTAL = 60;

/** Logs of what is believed of lamps of any make before one is seen; from the makes that are met most. */
const PRIOR = {
  style: { counted: Math.log(0.4), "long-short": Math.log(0.35), total: Math.log(0.25) },
  mixedDigits: Math.log(0.25),
  round: Math.log(0.65),
  once: Math.log(0.35),
  times: [Math.log(0.55), Math.log(0.2), Math.log(0.2)],
  timesMore: Math.log(0.05),
  fixed: Math.log(0.06),
  separated: Math.log(0.1),
  rest: { dark: Math.log(0.8), lit: Math.log(0.2) },
  /** One more kind of rest, with a length of its own. */
  kind: -2.5,
} as const;

/** All ways of talking that marks suggest, those that need least first in question. */
export function propose(marks: Marks, known: Known = {}): Proposed[] {
  if (known.rest && known.rest !== marks.rest) return [];
  const partings = kindsOf(marks.rests, marks.scatter, MOST_KINDS);
  const able = partings.filter((p) => p.log > partings[0].log - PARTING_IN_QUESTION).slice(0, PARTINGS);
  const all = able.flatMap((kinds) => stylesOf(marks, kinds).flatMap((s) => shows(marks, kinds, s)));
  return all.filter(
    ({ dialect: { digits } }) =>
      (!known.style || known.style === digits.style) && (!known.count || known.count.join() === digits.count.join()),
  );
}

/** How digits are shown, and which kinds of rest stand in a code. */
interface Style {
  style: Dialect["digits"]["style"];
  count: number[];
  zero: number | null;
  /** Kinds of rest below this stand in a code. */
  within: number;
  tokens: Token[];
  logPrior: number;
}

function stylesOf(marks: Marks, kinds: Kinds): Style[] {
  const styles: Style[] = [];
  if (marks.longMs !== null) {
    const ways = kinds.ms.length > 1 && partsTens(marks, kinds) ? [2, 1] : [1];
    for (const within of ways)
      styles.push({ style: "long-short", count: [1, 2], zero: null, within, tokens: tokensOf(marks, kinds, within, within), logPrior: PRIOR.style["long-short"] }); // prettier-ignore
    return styles;
  }
  const inOneRun = tokensOf(marks, kinds, 1, 1);
  if (inOneRun.every((t) => t.runs[0].short <= MOST_TOTAL))
    styles.push({ style: "total", count: [1], zero: null, within: 1, tokens: inOneRun, logPrior: PRIOR.style.total });
  if (kinds.ms.length < 2) return styles;
  const tokens = tokensOf(marks, kinds, 2, 1);
  const inner = tokens.length > 2 ? tokens.slice(1, -1) : tokens;
  const digits = inner.map((t) => t.runs.length).filter((n) => n <= 4);
  const counts = [most(digits.filter((n) => n > 1)) ?? 0, digits.filter((n) => n === 1).length] as const;
  const [usual, single] = counts;
  if (usual < 2) return styles;
  const ofUsual = digits.filter((n) => n === usual).length;
  const runs = inner.flatMap((t) => t.runs.slice(1));
  const zero = runs.some((r) => r.short === 10) ? 10 : null;
  const counted = (count: number[], logPrior: number): void =>
    void styles.push({ style: "counted", count, zero, within: 2, tokens, logPrior: PRIOR.style.counted + logPrior });
  if (ofUsual >= CONFORMING * (digits.length - single) && ofUsual >= single) counted([usual], 0);
  if (usual === 2 && single > 0) counted([1, 2], PRIOR.mixedDigits);
  return styles;
}

/** Does the second kind of rest stand between tens and units, and nowhere else? */
function partsTens({ long }: Marks, { of }: Kinds): boolean {
  const second = Array.from(of, (kind, i) => ({ kind, i })).filter(({ kind }) => kind === 1);
  return second.filter(({ i }) => long[i] && !long[i + 1]).length > 0.8 * second.length;
}

/** Which kinds of rest stand between showings of one code, between two codes, and between two rounds of the list. */
type Roles = readonly [repeat: number, code: number, pass: number];

function rolesOf(upper: readonly number[]): Roles[] {
  const [a, b, c] = upper;
  if (upper.length === 0) return [];
  if (upper.length === 1) return [[a, a, a]];
  if (upper.length === 2) return [[a, a, b], [a, b, b]]; // prettier-ignore
  // What is rarer still is a slip, or belongs to something that is no code.
  return upper.length === 3 ? [[a, b, c], [a, a, b], [a, b, b], [a, a, c]] : [[a, b, c], [a, b, upper[3]]]; // prettier-ignore
}

/** A token of which the list is made, and what stands before the next one. */
interface Listed {
  word: string;
  token: Token;
  /** Kind of rest behind it, or the separator that stands there. */
  after: number | "separator" | null;
}

function shows(marks: Marks, kinds: Kinds, style: Style): Proposed[] {
  const group = separatorOf(style);
  const listed: Listed[] = [];
  for (const token of style.tokens) {
    if (group && group.is(token)) {
      const last = listed.at(-1);
      if (last) last.after = "separator";
    } else listed.push({ word: wordOf(token), token, after: token.after });
  }
  const used = listed.flatMap(({ after }) => (typeof after === "number" ? [after] : []));
  const upper = [...new Set(used)].sort((a, b) => a - b);
  const roles = rolesOf(upper);
  return roles.flatMap((r) => arranged(marks, kinds, style, listed, r, group));
}

interface Separator {
  flashes: number;
  is: (token: Token) => boolean;
  before: number;
  after: number;
}

/** In codes of several digits a lone run that comes again and again, with the longest rests around it, is no code. */
function separatorOf({ style, count, tokens }: Style): Separator | null {
  if (style !== "counted" || count.includes(1)) return null;
  const lone = tokens.slice(1, -1).filter((t) => t.runs.length === 1);
  const flashes = most(lone.map((t) => t.runs[0].short));
  const own = lone.filter((t) => t.runs[0].short === flashes);
  if (!flashes || own.length < Math.max(1, tokens.length / 12)) return null;
  return {
    flashes,
    is: (t) => t.runs.length === 1 && t.runs[0].short === flashes,
    before: most(own.map((t) => t.before!))!,
    after: most(own.map((t) => t.after!))!,
  };
}

function arranged(
  marks: Marks,
  kinds: Kinds,
  style: Style,
  listed: readonly Listed[],
  [repeat, code, pass]: Roles,
  separator: Separator | null,
): Proposed[] {
  const { short, longMs, steadyMs, rest, track } = marks;
  const restMs = (kind: number) => Math.max(SHORTEST_MS, Math.round(kinds.ms[kind]));
  const gaps = {
    flash: restMs(0),
    digit: restMs(style.within - 1),
    repeat: restMs(repeat),
    code: restMs(code),
    pass: restMs(pass),
  };
  const words = listed.map((l) => l.word);
  const ends = (after: Listed["after"]) => after === "separator" || after === null || (pass > code && after >= pass);
  const joins = (after: Listed["after"]) =>
    typeof after === "number" && !ends(after) && (repeat === code || after <= repeat);
  const groups = stretches(words, (i) => joins(listed[i - 1].after)).map((g) => ({
    ...g,
    after: listed[g.from + g.n - 1].after,
  }));
  const inner = groups.length > 2 ? groups.slice(1, -1) : groups;
  const times = most(inner.map((g) => g.n)) ?? 1;
  const rounds = roundsOf(groups, ends, pass > code);
  const { until, onset } = track;
  const longest = Math.max(...kinds.ms, 0);
  const stopped = until - onset[onset.length - 1] > STOPPED * longest + 2 * (longMs ?? short);
  const before: Phase[] = steadyMs === null ? [] : [{ kind: "steady", lamp: rest === "dark" ? "lit" : "dark", ms: Math.round(steadyMs) }]; // prettier-ignore
  const base = {
    id: "learned",
    title: "Learned from the lamp",
    rest,
    marks: { short: Math.max(SHORTEST_MS, Math.round(short)), ...(longMs !== null && { long: Math.round(longMs) }) },
    gaps,
    digits: { style: style.style, count: style.count, zero: style.zero },
    max: style.style === "total" ? MOST_TOTAL : style.style === "counted" ? 10 ** Math.max(...style.count) - 1 : 99,
    order: "stored" as const,
    advance: "self" as const,
    empty: null,
  };
  const kindsUsed = new Set(Object.values(gaps)).size;
  const logPrior =
    style.logPrior + PRIOR.rest[rest] + kindsUsed * PRIOR.kind + (PRIOR.times[times - 1] ?? PRIOR.timesMore);
  const of = (phases: Phase[], round: boolean, more: number): Proposed => ({
    dialect: { ...base, phases: [...before, ...phases], loopFrom: round ? before.length : null },
    logPrior: logPrior + more + (round ? PRIOR.round : PRIOR.once),
  });
  const list = (memory: "stored" | "live" = "stored", n = times): Phase => ({ kind: "stored", times: n, memory });
  if (separator) {
    const group: Phase = { kind: "group", flashes: separator.flashes, means: "separator", beforeMs: restMs(separator.before), afterMs: restMs(separator.after) }; // prettier-ignore
    const two = [list("live"), group, list("stored")];
    return stopped
      ? [of(two, false, PRIOR.separated)]
      : [of([group, list()], true, PRIOR.separated), of(two, true, PRIOR.separated)];
  }
  const proposed: Proposed[] = [];
  const again = rounds.length > 1;
  if (!stopped) proposed.push(of([list()], true, 0));
  if (stopped || !again) proposed.push(of(again && rounds.length === 2 ? [list(), list()] : [list()], false, 0));
  for (const fixed of fixedIn(rounds, style, times)) {
    const phase: Phase = { kind: "code", code: fixed.code, times: fixed.times, means: fixed.leads ? "mode" : "end" };
    const n = fixed.others ?? times;
    const phases = fixed.leads ? [phase, list("stored", n)] : [list("stored", n), phase];
    proposed.push(of(phases, !stopped, PRIOR.fixed));
  }
  return proposed;
}

interface Group {
  word: string;
  n: number;
  after: Listed["after"];
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
      return Array.from({ length: Math.ceil(groups.length / period) }, (_, r) => groups.slice(r * period, (r + 1) * period)); // prettier-ignore
  return [[...groups]];
}

/** Codes that come in every round at its beginning, or at its end, and so may belong to the show and be no fault. */
function fixedIn(
  rounds: readonly Group[][],
  style: Style,
  times: number,
): { code: string; times: number; leads: boolean; others?: number }[] {
  const whole = rounds.length > 2 ? rounds.slice(1, -1) : rounds.length === 2 ? rounds.slice(0, 1) : rounds;
  const found: { code: string; times: number; leads: boolean; others?: number }[] = [];
  for (const leads of [true, false]) {
    const at = whole.map((r) => (leads ? r[0] : r[r.length - 1]));
    const word = most(at.map((g) => g.word));
    const own = at.filter((g) => g.word === word);
    if (!word || own.length < whole.length || whole.some((r) => r.length < 2)) continue;
    const code = codeOfWord(word, style);
    const rest = whole.flatMap((r) => r.filter((g) => g.word !== word));
    if (code)
      found.push({ code, times: most(own.map((g) => g.n)) ?? times, leads, others: most(rest.map((g) => g.n)) });
  }
  return found;
}

function codeOfWord(word: string, { style, zero, count }: Style): string | null {
  const runs = word.split(" ").map((r) => r.split(".").map(Number));
  if (style === "long-short") {
    const [long, short] = runs[0];
    return runs.length === 1 && long < 10 && short < 10 && long + short ? String(10 * long + short) : null;
  }
  if (style === "total") return runs[0][1] <= MOST_TOTAL ? String(runs[0][1]) : null;
  if (runs.some(([, short], i) => short > 9 && !(i && short === zero))) return null;
  return count.includes(runs.length) ? runs.map(([, short]) => (short === zero ? 0 : short)).join("") : null;
}
