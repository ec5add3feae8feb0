import { holds, map, object, text, time, word, type Of } from "../schema/rule";

/** What somebody has found out about a code of a make: kept with the make, whatever table comes later, and shown in each job. */
const noteRule = object({ text: text(1000), at: time });
const rule = map(word(200), noteRule);
export type CodeNotes = Of<typeof rule>;

/** Under what a note is kept: the make, the system whose table the code stands in, and the code. */
export const noteKey = (pack: string, system: string, code: string): string => `${pack}/${system}/${code}`;

/** What is stored as notes; what is not as it should be counts as none. */
export function readNotes(value: unknown): CodeNotes {
  const held = holds(rule, value ?? {});
  return "value" in held ? held.value : {};
}

/** The notes with one more, or without the one whose text is empty. */
export function withNote(notes: CodeNotes, key: string, said: string, at: string): CodeNotes {
  const { [key]: _, ...rest } = notes;
  return said.trim() ? { ...rest, [key]: { text: said.trim(), at } } : rest;
}

/** Notes of a file beside those that are here: the newer one of each stays. */
export function mergeNotes(here: CodeNotes, other: CodeNotes): CodeNotes {
  const newer = Object.entries(other).filter(([key, n]) => !here[key] || here[key].at < n.at);
  return { ...here, ...Object.fromEntries(newer) };
}
