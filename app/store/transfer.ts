import { mergeBackup, writeBackup, type Merge } from "@core/record/backup";
import type { Pack } from "@core/pack/pack";
import type { CodeNotes } from "@core/record/code-notes";
import type { Doc } from "@core/record/types";
import { boxes, KINDS, ready, type Kind } from "./boxes";
import { nowIso } from "./clock";
import { bringNotes, codeNotes } from "./code-notes";
import { isThere, keyIn } from "./opening";
import { rawPacks } from "./own-packs";
import { packById, writePack } from "./packs";
import { writeAll } from "./records";
import { saveFile } from "./save-file";
import { noteSaved } from "./saved-at";

/** All records as one file, as they are stored, locked ones too. */
export async function exportEverything(): Promise<string> {
  await ready();
  const records: Record<string, unknown> = {};
  for (const kind of KINDS)
    await boxes[kind].each((raw, key) => {
      // In a file a record is named by its own id.
      const { id } = raw as { id?: unknown };
      records[`${kind}/${typeof id === "string" ? id : key}`] = raw;
    });
  return writeBackup(records, nowIso(), Object.fromEntries(rawPacks()), await codeNotes());
}

/** Hands all records to the person as a file, and notes that it did. */
export async function saveEverything(): Promise<void> {
  const at = nowIso();
  saveFile(`klinko-${at.slice(0, 10)}.json`, await exportEverything());
  await noteSaved(at);
}

/** Brings in the records of a file and the makes that they need; those that are here stay as they are. */
export async function bringIn(
  docs: readonly Doc[],
  makes: readonly Pack[] = [],
  notes: CodeNotes = {},
): Promise<Merge> {
  await ready();
  if (Object.keys(notes).length) await bringNotes(notes);
  for (const make of makes) if (!packById(make.id)) await writePack(make);
  const here = new Map<string, unknown>();
  const look = async (kind: Kind, id: string, key: string) => {
    if (here.has(`${kind}/${id}`)) return;
    const raw = await boxes[kind].get(key);
    if (isThere(raw)) here.set(`${kind}/${id}`, raw);
  };
  for (const doc of docs) {
    await look(doc.kind, doc.id, keyIn(doc));
    if (doc.kind !== "vehicle") await look("vehicle", doc.vehicle, doc.vehicle);
    if (doc.kind === "reading") await look("job", doc.job, doc.job);
  }
  const merge = mergeBackup(docs, here);
  await writeAll(merge.add);
  return merge;
}
