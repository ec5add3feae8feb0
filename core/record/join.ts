import { same } from "./same";
import { STEP_IDS, type Doc } from "./types";

/** A field in which two states of a record differ, and neither is more than the other. */
export interface Conflict {
  /** Its place in the record: `plate`, `story.words`. */
  field: string;
  here: unknown;
  file: unknown;
}

/** Two states of one record made one. */
export interface Joined<D extends Doc = Doc> {
  /** With what is here wherever there is a conflict. */
  doc: D;
  /** What the file adds, by field: how many entries of a list, 1 for a value. */
  gains: { field: string; n: number }[];
  conflicts: Conflict[];
}

/** Whose word counts where both say something. */
export type Side = "here" | "file";

/** Where somebody is at work just now is of each device alone. */
const OWN = ["version", "kind", "id", "vehicle", "job", "createdAt", "hookUpStep", "stepTimer", "clearing", "ruledOut"];
/** Fields that only make sense together: they come from one side. */
const TOGETHER: Readonly<Record<string, readonly string[]>> = {
  closedAt: ["closedAt", "end", "verdict"],
  pack: ["pack", "variant", "year", "engine", "market"],
};
/** What was seen or begun in one go is one thing. */
const ONE_LOOK = ["lampCheck", "counting"];
/** A watch is one thing: no mark of it is joined with marks of another. */
const WHOLE = "reading";

type Fields = Record<string, unknown>;
const isObject = (v: unknown): v is Fields => typeof v === "object" && v !== null && !Array.isArray(v);
/** What stands where nobody has said anything. */
const UNSAID: readonly unknown[] = [undefined, null, "", "not-asked"];
const isEmpty = (v: unknown): boolean => UNSAID.includes(v) || (Array.isArray(v) && v.length === 0);

/** What an entry of a list is, whether it was taken back or not. */
const nameOf = (entry: unknown): string => {
  if (!isObject(entry)) return JSON.stringify(entry);
  const { withdrawnAt: _, was, ...rest } = entry;
  // A line that was corrected is the line that it was.
  if (Array.isArray(was) && isObject(was[0])) rest.text = was[0].text;
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1)));
};

/** Was it taken back, or corrected, after the other state of it? */
function isLater(entry: Fields, known: Fields): boolean {
  if (entry.withdrawnAt && !known.withdrawnAt) return true;
  const corrected = (e: Fields) => (Array.isArray(e.was) ? String((e.was.at(-1) as Fields).at) : "");
  return corrected(entry) > corrected(known);
}

/** Both lists in one: each entry once, taken back where either side took it back; by time, where entries have one. */
function joinLists(field: string, here: readonly unknown[], file: readonly unknown[]): unknown[] {
  const all = new Map<string, unknown>();
  for (const entry of [...here, ...file]) {
    const name = nameOf(entry);
    const known = all.get(name);
    if (known === undefined || (isObject(entry) && isLater(entry, known as Fields))) all.set(name, entry);
  }
  const list = [...all.values()];
  if (field === "done") return STEP_IDS.filter((s) => list.includes(s));
  const at = (entry: unknown) => (isObject(entry) && typeof entry.at === "string" ? entry.at : "");
  return list.sort((a, b) => (at(a) < at(b) ? -1 : at(a) > at(b) ? 1 : 0));
}

/**
 * Joins two states of a record, as two devices have it that both went on with it: lists hold the entries of both, what only one side
 * has is taken, and what both say otherwise is a conflict. Without the state that both began from, something removed on one side comes
 * back from the other.
 * @param choose whose word counts in a conflict
 */
export function join<D extends Doc>(here: D, file: D, choose: (field: string) => Side = () => "here"): Joined<D> {
  const gains: Joined["gains"] = [];
  const conflicts: Conflict[] = [];
  const decide = (field: string, a: unknown, b: unknown): unknown => {
    conflicts.push({ field, here: a, file: b });
    return choose(field) === "file" ? b : a;
  };
  if (here.kind === WHOLE) {
    const doc = same(here, file) ? here : (decide(WHOLE, here, file) as D);
    return { doc, gains, conflicts };
  }
  const walk = (a: Fields, b: Fields, path: string): Fields => {
    const out: Fields = { ...a };
    const together = path ? [] : Object.values(TOGETHER).flat();
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
      const field = path + key;
      if (key === "__proto__") continue;
      if ((!path && OWN.includes(key)) || together.includes(key) || same(a[key], b[key])) continue;
      if (isEmpty(b[key])) continue;
      if (isEmpty(a[key])) {
        gains.push({ field, n: Array.isArray(b[key]) ? b[key].length : 1 });
        out[key] = b[key];
      } else if (Array.isArray(a[key]) && Array.isArray(b[key])) {
        const list = joinLists(field, a[key], b[key]);
        const n = list.length - a[key].length;
        if (n > 0) gains.push({ field, n });
        out[key] = list;
      } else if (isObject(a[key]) && isObject(b[key]) && !ONE_LOOK.includes(field))
        out[key] = walk(a[key], b[key], `${field}.`);
      else out[key] = decide(field, a[key], b[key]);
    }
    if (!path)
      for (const [field, keys] of Object.entries(TOGETHER)) {
        const of = (side: Fields) => Object.fromEntries(keys.flatMap((k) => (k in side ? [[k, side[k]]] : [])));
        if (same(of(a), of(b))) continue;
        const taken = decide(field, of(a), of(b)) as Fields;
        for (const k of keys) delete out[k];
        Object.assign(out, taken);
      }
    return out;
  };
  const doc = walk({ ...here }, { ...file }, "") as D;
  return { doc, gains, conflicts };
}
