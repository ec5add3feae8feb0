import { mergeNotes, readNotes, withNote, type CodeNotes } from "@core/record/code-notes";
import { nowIso } from "./clock";
import { changeValue, readValue } from "./values";

/** Own notes to codes, of all makes. */
const KEY = "code-notes";

export const codeNotes = async (): Promise<CodeNotes> => readNotes(await readValue(KEY));

/** Writes a note; an empty one takes it away. */
export const writeCodeNote = (key: string, text: string): Promise<unknown> =>
  changeValue(KEY, (stored) => withNote(readNotes(stored), key, text, nowIso()));

/** Takes over the notes of a file; of two to one code the newer one stays. */
export const bringNotes = (notes: CodeNotes): Promise<unknown> =>
  changeValue(KEY, (stored) => mergeNotes(readNotes(stored), notes));

/** A copy of a make begins with the notes of the one it was taken from. */
export const copyNotes = (from: string, to: string): Promise<unknown> =>
  changeValue(KEY, (stored) => {
    const notes = readNotes(stored);
    const own = Object.entries(notes).filter(([key]) => key.startsWith(`${from}/`));
    return { ...notes, ...Object.fromEntries(own.map(([key, note]) => [`${to}${key.slice(from.length)}`, note])) };
  });
