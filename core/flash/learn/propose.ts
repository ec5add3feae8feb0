import { SHORTEST_MS, type Dialect, type Faults, type Phase } from "../dialect/dialect";
import { isFault } from "../dialect/digits";
import { kindsOf, type Kinds } from "./kinds";
import type { Marks } from "./marks";
import { alikeTo, logPriorOf } from "./prior";
import {
  codeOfWord,
  CONFORMING,
  fixedIn,
  groupsOf,
  MOST_TOTAL,
  oddIn,
  twicesIn,
  type Group,
  type Listed,
  type Roles,
  type Style,
} from "./groups";
import { most, tokensOf, wordOf, type Token } from "./tokens";

/** A way in which the lamp may talk, and how likely it is before its codes are read. */
export interface Proposed {
  dialect: Dialect;
  logPrior: number;
  /** How much as likely are, together, ways that show exactly the same and mean another code as fixed: no watch tells them apart. */
  alike: number;
  /** The list as the flashes have it, slips and all; the first and the last code may have been seen in part only. */
  read: Faults[];
}

/** What is known of it from elsewhere, as from a manual's page: it is held. */
export type Known = Partial<{ style: Dialect["digits"]["style"]; count: readonly number[]; rest: Dialect["rest"] }>;

/** Kinds of rest that lamps have at most, and ways of parting them that are gone into. */
const MOST_KINDS = 6;
const PARTINGS = 2;
const PARTING_IN_QUESTION = 15;
/** A lamp that rests for so many times the longest rest of its list has stopped. */
const STOPPED = 1.7;
/** No lamp shows a code oftener in a row. */
const MOST_TIMES = 20;
/** No hand follows flashes that come quicker than this, ms. */
const BY_HAND_MS = 280;
/** All ways of talking that marks suggest, those that need least first in question. */
export function propose(marks: Marks, known: Known = {}): Proposed[] {
  if (known.rest && known.rest !== marks.rest) return [];
  const partings = kindsOf(marks.rests, marks.scatter, MOST_KINDS);
  const quickest = marks.short + (partings[0]?.ms[0] ?? 0);
  if (marks.track.mode !== "edges" && quickest < BY_HAND_MS) return [];
  const able = partings.filter((p) => p.log > partings[0].log - PARTING_IN_QUESTION).slice(0, PARTINGS);
  const all = able.flatMap((kinds) => stylesOf(marks, kinds).flatMap((s) => shows(marks, kinds, s)));
  return all.filter(
    ({ dialect: { digits, phases } }) =>
      phases.every((p) => !("times" in p) || p.times <= MOST_TIMES) &&
      (!known.style || known.style === digits.style) &&
      (!known.count || known.count.join() === digits.count.join()),
  );
}

function stylesOf(marks: Marks, kinds: Kinds): Style[] {
  const styles: Style[] = [];
  if (marks.longMs !== null) {
    const ways = kinds.ms.length > 1 && partsTens(marks, kinds) ? [2, 1] : [1];
    for (const within of ways)
      styles.push({
        style: "long-short",
        count: [1, 2],
        zero: null,
        within,
        tokens: tokensOf(marks, kinds, within, within),
      });
    return styles;
  }
  const inOneRun = tokensOf(marks, kinds, 1, 1);
  if (inOneRun.every((t) => t.runs[0].short <= MOST_TOTAL))
    styles.push({ style: "total", count: [1], zero: null, within: 1, tokens: inOneRun });
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
  const counted = (count: number[]): void => void styles.push({ style: "counted", count, zero, within: 2, tokens });
  if (ofUsual >= CONFORMING * (digits.length - single) && ofUsual >= single) counted([usual]);
  const parted = separatorOf({ style: "counted", count: [usual], tokens });
  if (usual === 2 && single > 0 && !parted?.plain) counted([1, 2]);
  return styles;
}

/** Does the second kind of rest stand between tens and units, and nowhere else? */
function partsTens({ long }: Marks, { of }: Kinds): boolean {
  const second = Array.from(of, (kind, i) => ({ kind, i })).filter(({ kind }) => kind === 1);
  return second.filter(({ i }) => long[i] && !long[i + 1]).length > 0.8 * second.length;
}

function rolesOf(upper: readonly number[]): Roles[] {
  const [a, b, c] = upper;
  if (upper.length === 0) return [];
  if (upper.length === 1) return [[a, a, a]];
  if (upper.length === 2)
    return [
      [a, a, b],
      [a, b, b],
    ];
  // What is rarer still is a slip, or belongs to something that is no code.
  return upper.length === 3
    ? [
        [a, b, c],
        [a, a, b],
        [a, b, b],
        [a, a, c],
      ]
    : [
        [a, b, c],
        [a, b, upper[3]],
      ];
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
  return roles.flatMap((r) =>
    arranged(marks, kinds, style, listed, r, group).map((p) => ({ ...p, read: readBy(p.dialect, listed, style) })),
  );
}

/** The codes in the order in which they first come; of two memories, what stands before a separator and after it. */
function readBy(dialect: Dialect, listed: readonly Listed[], style: Style): Faults[] {
  const two = dialect.phases.some((p) => p.kind === "stored" && p.memory === "live");
  const of = (part: readonly Listed[]): Faults => {
    const lists: string[][] = [[]];
    for (const { word, after } of part) {
      const code = codeOfWord(word, style);
      const list = lists[lists.length - 1];
      if (code && isFault(dialect, code) && !list.includes(code)) list.push(code);
      if (after === "separator") lists.push([]);
    }
    if (!two) return { stored: [...new Set(lists.flat())] };
    const at = Math.max(
      1,
      lists.findIndex((list, i) => i > 0 && list.length > 0),
    );
    return { live: lists[at - 1], stored: lists[at] ?? [] };
  };
  return [listed, listed.slice(1), listed.slice(0, -1), listed.slice(1, -1)].map(of);
}

/** A lone run that is no code, and the kinds of rest around it. */
interface Lone {
  flashes: number;
  before: number;
  after: number;
}

interface Separator {
  /** One, or two that are told apart by their flashes. */
  lone: Lone[];
  /** The rests around it are longer than all others: a code would not stand so. */
  plain: boolean;
  is: (token: Token) => boolean;
}

/** In codes of several digits lone runs that come again and again, with the longest rests around them, are no codes. */
function separatorOf({ style, count, tokens }: Pick<Style, "style" | "count" | "tokens">): Separator | null {
  if (style !== "counted" || count.includes(1)) return null;
  const inner = tokens.slice(1, -1);
  const lone = (t: Token) => t.runs.length === 1;
  // The first and the last may be one too, or the beginning or the end of a code.
  const others = tokens.flatMap((t, i) =>
    !lone(t) && i + 1 < tokens.length && !lone(tokens[i + 1]) && t.after !== null ? [t.after] : [],
  );
  const longest = Math.max(-1, ...others);
  const found: Lone[] = [];
  let left = inner.filter(lone);
  while (left.length && found.length < 2) {
    const flashes = most(left.map((t) => t.runs[0].short))!;
    const own = left.filter((t) => t.runs[0].short === flashes);
    left = left.filter((t) => !own.includes(t));
    if (Math.min(...own.flatMap((t) => [t.before!, t.after!])) > longest)
      found.push({ flashes, before: most(own.map((t) => t.before!))!, after: most(own.map((t) => t.after!))! });
  }
  if (!found.length) return null;
  const all = new Set(found.map((f) => f.flashes));
  return { lone: found, plain: others.length > 0, is: (t) => lone(t) && all.has(t.runs[0].short) };
}

/** A length as the format has it, ms. */
const restMs = (kinds: Kinds, kind: number) => Math.max(SHORTEST_MS, Math.round(kinds.ms[kind]));

/** What does not depend on how the list is arranged. */
function plainDialect(marks: Marks, kinds: Kinds, style: Style, [repeat, code, pass]: Roles) {
  const { short, longMs, rest } = marks;
  const ms = (kind: number) => restMs(kinds, kind);
  return {
    id: "learned",
    title: "Learned from the lamp",
    rest,
    marks: { short: Math.max(SHORTEST_MS, Math.round(short)), ...(longMs !== null && { long: Math.round(longMs) }) },
    gaps: { flash: ms(0), digit: ms(style.within - 1), repeat: ms(repeat), code: ms(code), pass: ms(pass) },
    digits: { style: style.style, count: style.count, zero: style.zero },
    max: style.style === "total" ? MOST_TOTAL : style.style === "counted" ? 10 ** Math.max(...style.count) - 1 : 99,
    order: "stored" as const,
    advance: "self" as const,
    empty: null,
  };
}

/** The ways in which codes that were seen may stand in a show, as far as rests of these roles allow. */
function arranged(
  marks: Marks,
  kinds: Kinds,
  style: Style,
  listed: readonly Listed[],
  roles: Roles,
  separator: Separator | null,
): Proposed[] {
  const { short, longMs, steadyMs, rest, track } = marks;
  const base = plainDialect(marks, kinds, style, roles);
  const [, code, pass] = roles;
  const { groups, rounds } = groupsOf(listed, roles);
  const inner = groups.length > 2 ? groups.slice(1, -1) : groups;
  const times = most(inner.map((g) => g.n)) ?? 1;
  const { until, onset } = track;
  const longest = Math.max(...kinds.ms, 0);
  const stopped = until - onset[onset.length - 1] > STOPPED * longest + 2 * (longMs ?? short);
  const before: Phase[] =
    steadyMs === null ? [] : [{ kind: "steady", lamp: rest === "dark" ? "lit" : "dark", ms: Math.round(steadyMs) }];
  const of = (phases: Phase[], round: boolean): Proposed => {
    const dialect = { ...base, phases: [...before, ...phases], loopFrom: round ? before.length : null };
    return { dialect, logPrior: logPriorOf(dialect), alike: alikeTo(dialect), read: [] };
  };
  const list = (memory: "stored" | "live" = "stored", n = times): Phase => ({ kind: "stored", times: n, memory });
  if (separator) return parted(kinds, separator, stopped, list, of);
  const proposed: Proposed[] = [];
  const again = rounds.length > 1;
  const marked = pass > code;
  if (!stopped) proposed.push(of([list()], true));
  if (stopped || !again) proposed.push(of([list()], false));
  for (const { lead, lists, end } of twicesIn(groups)) {
    const fixed = ({ word, n }: Group, means: "mode" | "end"): Phase[] => {
      const code = codeOfWord(word, style);
      return code ? [{ kind: "code", code, times: n, means }] : [];
    };
    const both = lists.map((row) => list("stored", most(row.map((g) => g.n))));
    proposed.push(of([...(lead ? fixed(lead, "mode") : []), ...both, ...(end ? fixed(end, "end") : [])], false));
  }
  for (const fixed of marked ? fixedIn(rounds, style, times) : oddIn(groups, style, times, stopped)) {
    const phase: Phase = { kind: "code", code: fixed.code, times: fixed.times, means: fixed.leads ? "mode" : "end" };
    const phases = fixed.leads ? [phase, list("stored", fixed.others)] : [list("stored", fixed.others), phase];
    proposed.push(of(phases, !stopped));
    if (!stopped && !again && !fixed.leads) proposed.push(of(phases, false));
  }
  return proposed;
}

/** Shows in which lone runs stand between lists, or before them. */
function parted(
  kinds: Kinds,
  { lone }: Separator,
  stopped: boolean,
  list: (memory?: "stored" | "live") => Phase,
  of: (phases: Phase[], round: boolean) => Proposed,
): Proposed[] {
  const [group, second] = lone.map(({ flashes, before, after }): Phase => {
    const [beforeMs, afterMs] = [restMs(kinds, before), restMs(kinds, after)];
    return { kind: "group", flashes, means: "separator", beforeMs, afterMs };
  });
  // Which of two leads the round nobody can see who did not see it begin.
  if (second)
    return [
      [group, second],
      [second, group],
    ].map(([a, b]) => of([a, list("live"), b, list("stored")], true));
  const two = [list("live"), group, list("stored")];
  if (stopped) return [of(two, false)];
  return [of([group, list()], true), of(two, true), of(two, false)];
}
