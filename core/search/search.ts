import type { Job, Vehicle } from "../record/types";
import { alike, wordsOf } from "./alike";

/** Something that can be found in the records of a vehicle. */
export interface Entry {
  kind: "note" | "story" | "verdict" | "repair" | "change" | "work";
  vehicle: string;
  /** null where it is of the vehicle itself. */
  job: string | null;
  /** ISO 8601, UTC. */
  at: string;
  text: string;
}

/** What is searched of one vehicle, the words made alike. */
export interface Searchable {
  plate: string;
  /** How it is called: plate, name and year. */
  called: string;
  entries: readonly Entry[];
  /** The text of each entry. */
  hay: readonly string[];
}

export interface Hit extends Entry {
  plate: string;
}

export interface Found {
  /** The newest first, at most as many as were asked for. */
  hits: Hit[];
  /** How many there are in all. */
  total: number;
}

/** All that was written of a vehicle and its jobs, in the words in which it was. @param name what the vehicle is called */
export function searchableOf(vehicle: Vehicle, name: string, jobs: readonly Job[]): Searchable {
  const entries: Entry[] = [];
  const own = { vehicle: vehicle.id, job: null };
  for (const { text, codes } of vehicle.changes)
    entries.push({ ...own, kind: "change", at: vehicle.createdAt, text: [text, ...codes].join(" · ") });
  for (const { at, what, withdrawnAt } of vehicle.work ?? [])
    if (what && !withdrawnAt) entries.push({ ...own, kind: "work", at, text: what });
  for (const job of jobs) {
    const of = { vehicle: vehicle.id, job: job.id };
    const { story } = job;
    const told = [job.title, story.words, story.since, ...story.symptoms, ...story.worked].filter(Boolean).join(" · ");
    if (told) entries.push({ ...of, kind: "story", at: job.openedAt, text: told });
    // The verdict stands in the notebook, too.
    for (const { at, text } of job.notebook) if (text !== job.verdict) entries.push({ ...of, kind: "note", at, text });
    for (const r of job.repairs)
      if (!r.withdrawnAt)
        entries.push({
          ...of,
          kind: "repair",
          at: r.at,
          text: [r.what, r.part, r.cures.length ? `for ${r.cures.join(", ")}` : ""].filter(Boolean).join(" · "),
        });
    if (job.verdict && job.closedAt) entries.push({ ...of, kind: "verdict", at: job.closedAt, text: job.verdict });
  }
  return {
    plate: vehicle.plate,
    called: alike(`${vehicle.plate} ${name} ${vehicle.year}`),
    entries,
    hay: entries.map((e) => alike(e.text)),
  };
}

const DIGITS = /^\d+$/;

/** Does a text hold a word? A number is found whole, so that 4 is not found in 14 or 43; other words by any part. */
function holds(hay: string, word: string): boolean {
  if (!DIGITS.test(word)) return hay.includes(word);
  for (let at = hay.indexOf(word); at >= 0; at = hay.indexOf(word, at + 1)) {
    const [before, after] = [hay.charCodeAt(at - 1), hay.charCodeAt(at + word.length)];
    if (!isDigit(before) && !isDigit(after)) return true;
  }
  return false;
}
const isDigit = (c: number): boolean => c >= 48 && c <= 57;

/**
 * What holds all words of a question, in what was written or in the name of its vehicle; at least one of them in what was written.
 * @param most so many hits are given
 */
export function search(all: Iterable<Searchable>, asked: string, most: number): Found {
  const words = wordsOf(asked);
  if (!words.length) return { hits: [], total: 0 };
  const found: { entry: Entry; plate: string }[] = [];
  for (const { plate, called, entries, hay } of all) {
    // What its name answers to need not stand in the text; the rest must, and where its name answers to all, one word at least.
    const left = words.filter((w) => !holds(called, w));
    for (let i = 0; i < hay.length; i++)
      if (left.every((w) => holds(hay[i], w)) && (left.length || words.some((w) => holds(hay[i], w))))
        found.push({ entry: entries[i], plate });
  }
  // The newest first: times of one form are in order as text.
  found.sort((a, b) => (a.entry.at < b.entry.at ? 1 : a.entry.at > b.entry.at ? -1 : 0));
  return { hits: found.slice(0, most).map(({ entry, plate }) => ({ ...entry, plate })), total: found.length };
}

/** A text cut where a word of the question stands in it; every second part is such a word. */
export function marked(text: string, asked: string): string[] {
  const words = wordsOf(asked);
  if (!words.length) return [text];
  // Where letters made alike are not as many, the place of a word cannot be told.
  const same = [...text].map((c) => alike(c));
  if (same.some((c) => c.length !== 1) || same.length !== text.length) return [text];
  const hay = same.join("");
  const hit = new Uint8Array(text.length);
  for (const w of words)
    for (let at = hay.indexOf(w); at >= 0; at = hay.indexOf(w, at + 1))
      if (!DIGITS.test(w) || (!isDigit(hay.charCodeAt(at - 1)) && !isDigit(hay.charCodeAt(at + w.length))))
        hit.fill(1, at, at + w.length);
  const parts: string[] = [""];
  for (let i = 0; i < text.length; i++) {
    if ((parts.length % 2 === 0) !== (hit[i] === 1)) parts.push("");
    parts[parts.length - 1] += text[i];
  }
  return parts;
}
