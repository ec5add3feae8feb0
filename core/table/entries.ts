import type { Entry } from "../pack/pack";
import type { Scope } from "../pack/validity";
import type { ReadRow } from "./read-table";

/** Words that say that a number is no fault. */
const STATUS =
  /\b(?:no fault|end of (?:list|code|output|message)s?|system (?:ok|pass|in order)|no (?:codes?|trouble)|all (?:well|ok)|lead-?in|start code)\b/i;
/** Words that say that it comes before all others. */
const FIRST = /\b(?:(?:fix|repair|mend|check|correct)(?: this)? first|before (?:all|any) others?)\b/i;

const YEAR = "(19[5-9]\\d|20[0-3]\\d)";
const YEARS: readonly [RegExp, (m: RegExpExecArray) => [number, number]][] = [
  [
    new RegExp(`\\b(?:from\\s+)?${YEAR}\\s*(?:to|-|–|until|through)\\s*${YEAR}\\b`, "i"),
    (m) => [Number(m[1]), Number(m[2])],
  ],
  [
    new RegExp(`\\b(?:from|since)\\s+${YEAR}(?:\\s+on(?:wards)?)?\\b|\\b${YEAR}\\s+(?:on(?:wards)?|and later)\\b`, "i"),
    (m) => [Number(m[1] ?? m[2]), 2035],
  ],
  [
    new RegExp(`\\b(?:up to|until|before|to)\\s+${YEAR}\\b|\\b${YEAR}\\s+and earlier\\b`, "i"),
    (m) => [1950, Number(m[1] ?? m[2]) - (/before/i.test(m[0]) ? 1 : 0)],
  ],
  [
    new RegExp(`\\b${YEAR}\\s+(?:only|models?)\\b|\\bonly\\s+(?:in\\s+)?${YEAR}\\b`, "i"),
    (m) => [Number(m[1] ?? m[2]), Number(m[1] ?? m[2])],
  ],
];

/** What a row's words say about where it holds, as far as they are plain about it. */
export function scopeIn(words: string, engines: readonly { id: string; name: string }[]): Scope | null {
  const scope: Scope = {};
  for (const [form, of] of YEARS) {
    const m = form.exec(words);
    if (!m) continue;
    const [from, to] = of(m);
    if (from <= to) scope.years = [from, to];
    break;
  }
  const named = engines.filter(({ id, name }) =>
    [id, name].some((n) =>
      new RegExp(
        `(?:^|[^\\w.])(?:${escaped(n)}\\s+(?:engine\\s+)?only|only\\s+(?:(?:with|on|for)\\s+)?(?:the\\s+)?${escaped(n)})(?:$|[^\\w])`,
        "i",
      ).test(words),
    ),
  );
  if (named.length && named.length < engines.length) scope.engines = named.map((e) => e.id);
  return scope.years || scope.engines ? scope : null;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** What the rules for texts of a pack refuse is taken out; what is too long is cut. */
const plain = (text: string, most: number): string =>
  text
    .replace(/<(?=[a-z!/?])/gi, "‹")
    .replace(/[\p{Cc}\p{Co}\p{Cn}]+/gu, " ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, most);

/** A row of a page as an entry of a pack. Nothing is added that the page does not say. */
export function entryOf(row: ReadRow, engines: readonly { id: string; name: string }[]): Entry {
  const { sets, affects, look, note } = row.texts;
  const all = [row.title, sets, affects, look, note, row.under].filter(Boolean).join(". ");
  const scope = scopeIn(all, engines);
  const first = FIRST.test(all);
  const title = plain(row.title, 200) || `Code ${row.code}`;
  const when = [sets, note].filter(Boolean).join(". ");
  return {
    code: row.code,
    kind: STATUS.test(row.title) ? "status" : "fault",
    ...(scope && { scope }),
    circuit: title,
    title,
    ...(when && { sets: plain(when, 1000) }),
    ...(affects && { affects: plain(affects, 1000) }),
    lookFirst: look
      ? look
          .split(/(?:\n|;\s+|\.\s+(?=\p{Lu}))/u)
          .map((x) => plain(x, 1000))
          .filter(Boolean)
          .slice(0, 8)
      : [],
    ...(first && { first: "Its table says: this one before all others." }),
  };
}

/** Of a code that stands twice with the same words one is enough; with other words the scope has to tell them apart. */
export function withoutDoubles(entries: readonly Entry[]): Entry[] {
  const key = (e: Entry) => JSON.stringify([e.code, e.title, e.scope ?? null]);
  return entries.filter((e, i) => entries.findIndex((o) => key(o) === key(e)) === i);
}
