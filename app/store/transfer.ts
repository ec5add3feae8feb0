import { keyOf, mergeBackup, writeBackup, type BackupRead, type Merge } from "@core/record/backup";
import { join, type Joined, type Side } from "@core/record/join";
import { openDoc } from "@core/record/open";
import { same } from "@core/record/same";
import type { Pack } from "@core/pack/pack";
import type { CodeNotes } from "@core/record/code-notes";
import type { Doc } from "@core/record/types";
import { boxes, KINDS, ready, type Kind } from "./boxes";
import { nowIso } from "./clock";
import { bringNotes, codeNotes } from "./code-notes";
import { isThere, keyIn } from "./opening";
import { rawPacks } from "./own-packs";
import { packById, writePack } from "./packs";
import { changeJob, changeVehicle, readReading, write, writeAll } from "./records";
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

/** What is stored of the records of a file, and of those that they belong to, by key. */
async function storedOf(docs: readonly Doc[]): Promise<Map<string, unknown>> {
  await ready();
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
  return here;
}

/** Brings in the records of a file and the makes that they need; those that are here stay as they are. */
export async function bringIn(
  docs: readonly Doc[],
  makes: readonly Pack[] = [],
  notes: CodeNotes = {},
): Promise<Merge> {
  const here = await storedOf(docs);
  if (Object.keys(notes).length) await bringNotes(notes);
  for (const make of makes) if (!packById(make.id)) await writePack(make);
  const merge = mergeBackup(docs, here);
  await writeAll(merge.add);
  return merge;
}

/** A record that is here in one state and in the file in another. */
export interface Difference {
  key: string;
  file: Doc;
  joined: Joined;
}

/** What bringing in a file would do to one vehicle. */
export interface VehiclePlan {
  id: string;
  plate: string;
  /** It is not here yet. */
  isNew: boolean;
  /** How many new ones come with it. */
  jobs: number;
  readings: number;
  differences: Difference[];
}

export interface Plan {
  read: BackupRead;
  merge: Merge;
  vehicles: VehiclePlan[];
}

const vehicleOf = (doc: Doc): string => (doc.kind === "vehicle" ? doc.id : doc.vehicle);

/** What bringing in a file would do, vehicle by vehicle; nothing is done yet. */
export async function planOf(read: BackupRead): Promise<Plan> {
  const here = await storedOf(read.docs);
  const merge = mergeBackup(read.docs, here);
  const plans = new Map<string, VehiclePlan>();
  const plates = new Map(read.docs.flatMap((d) => (d.kind === "vehicle" ? [[d.id, d.plate] as const] : [])));
  const plan = (doc: Doc): VehiclePlan => {
    const id = vehicleOf(doc);
    const known = plans.get(id);
    if (known) return known;
    const { plate } = (here.get(`vehicle/${id}`) ?? {}) as { plate?: unknown };
    const called = typeof plate === "string" ? plate : plates.get(id);
    const own = { id, plate: called ?? id, isNew: !here.has(`vehicle/${id}`), jobs: 0, readings: 0, differences: [] };
    plans.set(id, own);
    return own;
  };
  for (const doc of merge.add) {
    const own = plan(doc);
    if (doc.kind === "job") own.jobs++;
    if (doc.kind === "reading") own.readings++;
  }
  const kept = new Set(merge.kept);
  for (const file of read.docs) {
    const key = keyOf(file);
    // What this version cannot read stays as it is.
    const opened = kept.has(key) ? openDoc(key, here.get(key)) : null;
    if (!opened || !("doc" in opened)) continue;
    const joined = join(opened.doc, file);
    if (joined.gains.length || joined.conflicts.length) plan(file).differences.push({ key, file, joined });
  }
  return { read, merge, vehicles: [...plans.values()].sort((a, b) => a.plate.localeCompare(b.plate)) };
}

/**
 * Brings a file in as somebody decided.
 * @param left vehicles of which nothing is brought in
 * @param choose whose word counts in a conflict of a record
 */
export async function carryOut(
  { read, vehicles }: Plan,
  left: ReadonlySet<string>,
  choose: (key: string, field: string) => Side,
): Promise<{ merge: Merge; joined: number }> {
  const docs = read.docs.filter((doc) => !left.has(vehicleOf(doc)));
  const merge = await bringIn(docs, read.makes, read.notes);
  let joined = 0;
  for (const { id, differences } of vehicles)
    if (!left.has(id))
      for (const { key, file } of differences) if (await joinIn(file, (field) => choose(key, field))) joined++;
  return { merge, joined };
}

/** Joins a record with the one that is stored now, which may have gone on since the plan was made. @returns whether that changed it */
async function joinIn(file: Doc, choose: (field: string) => Side): Promise<boolean> {
  let changes = false;
  const joined = <D extends Doc>(here: D, other: D): D => {
    const { doc } = join(here, other, choose);
    changes = !same(here, doc);
    return doc;
  };
  if (file.kind === "vehicle") await changeVehicle(file.id, (here) => joined(here, file));
  else if (file.kind === "job") await changeJob(file.id, (here) => joined(here, file));
  else {
    const here = await readReading(file.job, file.id);
    const doc = here && joined(here, file);
    if (doc && changes) await write(doc);
  }
  return changes;
}
