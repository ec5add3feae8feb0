import Joi from "joi";
import { climb, type Ladder } from "../schema/ladder";
import { holds, object, oneOf, optional, rule, time, whole, type Of } from "../schema/rule";
import type { Pack } from "../pack/pack";
import { checkPack } from "../pack/schema";
import { readNotes, type CodeNotes } from "./code-notes";
import { openDoc } from "./open";
import { same } from "./same";
import type { Doc } from "./types";

/** A file of records: as they are stored, one key a record. */
const BACKUP_FORMAT = "klinko-backup";
export const BACKUP_VERSION = 1;
export const BACKUP_MAX_BYTES = 100_000_000;

/** How files of each version that was released become those of the next; the records in them climb on their own. */
const BACKUP_LADDER: Ladder = {};

const shape = object({
  format: oneOf(BACKUP_FORMAT),
  version: whole(1),
  savedAt: time,
  records: rule<Record<string, unknown>>(Joi.object()),
  /** Makes of one's own, by id; a file from before there were any has none. */
  makes: optional(rule<Record<string, unknown>>(Joi.object())),
  /** Own notes to codes. */
  notes: optional(rule<Record<string, unknown>>(Joi.object())),
});
type Backup = Of<typeof shape>;

/** What a file of records holds: those that can be brought in, and why others cannot. */
export interface BackupRead {
  savedAt: string;
  docs: Doc[];
  makes: Pack[];
  notes: CodeNotes;
  faults: { key: string; message: string }[];
}

export function writeBackup(
  records: Record<string, unknown>,
  savedAt: string,
  makes: Record<string, unknown> = {},
  notes: CodeNotes = {},
): string {
  const file: Backup = { format: BACKUP_FORMAT, version: BACKUP_VERSION, savedAt, records };
  const filled = (of: object) => Object.keys(of).length > 0;
  return JSON.stringify({ ...file, ...(filled(makes) && { makes }), ...(filled(notes) && { notes }) }, null, 1);
}

/**
 * Reads a file of records. A record that is damaged, of a newer version, or filed under another name than its own is told of and left out.
 * @returns `fault` where the file as a whole is none
 */
export function readBackup(text: string): BackupRead | { fault: string } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return {
      fault: "This is no file of records: it is not JSON, or it was cut off. Save it anew, or take another copy.",
    };
  }
  const held = holds(shape, raw);
  if ("faults" in held)
    return {
      fault: `This is no file of records that Klinko saved: ${held.faults[0].path.join(".") || "its beginning"} is not as it should be.`,
    };
  const { version } = held.value;
  if (version > BACKUP_VERSION) return { fault: "A newer Klinko saved this file. Update Klinko to bring it in." };
  const {
    savedAt,
    records,
    makes = {},
    notes = {},
  } = climb(BACKUP_LADDER, { ...held.value }, version, BACKUP_VERSION) as unknown as Backup;
  const read: BackupRead = { savedAt, docs: [], makes: [], notes: readNotes(notes), faults: [] };
  if (Object.keys(notes).length && !Object.keys(read.notes).length)
    read.faults.push({ key: "notes", message: "The notes to codes are not as they should be and are left out." });
  for (const [key, record] of Object.entries(records)) {
    const opened = openDoc(key, record);
    if ("locked" in opened) read.faults.push({ key, message: opened.locked.message });
    else if (keyOf(opened.doc) !== key)
      read.faults.push({ key, message: "It is filed under another name than its own." });
    else read.docs.push(opened.doc);
  }
  for (const [id, make] of Object.entries(makes)) {
    const checked = checkPack(make);
    if ("faults" in checked)
      read.faults.push({ key: `make/${id}`, message: `${checked.faults[0].path} ${checked.faults[0].message}.` });
    else read.makes.push(checked.pack);
  }
  return read;
}

/** Under which key a record is stored. */
export const keyOf = ({ kind, id }: Pick<Doc, "kind" | "id">): string => `${kind}/${id}`;

/** What is to be done with the records of a file, beside those that are here already. */
export interface Merge {
  add: Doc[];
  /** Here already, just so. */
  same: number;
  /** Here already, and otherwise: what is here stays, unless somebody joins the two. */
  kept: string[];
  /** What they belong to is neither in the file nor here. */
  astray: string[];
}

/** Nothing that is here is ever written over. @param here what is stored, by key */
export function mergeBackup(docs: readonly Doc[], here: ReadonlyMap<string, unknown>): Merge {
  const merge: Merge = { add: [], same: 0, kept: [], astray: [] };
  const known = new Set([...here.keys(), ...docs.map(keyOf)]);
  for (const doc of docs) {
    const key = keyOf(doc);
    const own = here.get(key);
    const to =
      doc.kind === "vehicle" ? [] : [`vehicle/${doc.vehicle}`, ...(doc.kind === "reading" ? [`job/${doc.job}`] : [])];
    if (own !== undefined) {
      if (same(own, doc)) merge.same++;
      else merge.kept.push(key);
    } else if (to.every((k) => known.has(k))) merge.add.push(doc);
    else merge.astray.push(key);
  }
  // What others belong to comes first, so that a writing that breaks off leaves nothing astray.
  merge.add.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  return merge;
}

const ORDER: readonly Doc["kind"][] = ["vehicle", "job", "reading"];
