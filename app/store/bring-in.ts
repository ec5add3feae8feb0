import { keyOf, mergeBackup, type Attached, type BackupRead, type Merge } from "@core/record/backup";
import { join, type Joined, type Side } from "@core/record/join";
import { openDoc } from "@core/record/open";
import { same } from "@core/record/same";
import type { Pack } from "@core/pack/pack";
import type { CodeNotes } from "@core/record/code-notes";
import type { Doc } from "@core/record/types";
import { inBulk } from "./box";
import { boxes, KINDS, ready, values, type Kind } from "./boxes";
import { nowIso } from "./clock";
import { bringNotes } from "./code-notes";
import { isThere, keyIn } from "./opening";
import { packById, writePack } from "./packs";
import { changeJob, changeVehicle, readReading, write, writeAll } from "./records";
import { films as kept, keepFilm } from "./films";
import { photos, readPhoto } from "./photos";

/** A photo or film of a file, ready to be kept. */
export interface Brought extends Omit<Attached, "data"> {
  blob: Blob;
}

/** A file of records as it was read. */
export interface FileRead extends Omit<BackupRead, "photos" | "films"> {
  photos: Brought[];
  films: Brought[];
}

/** Of so many records all that is stored is read in one go. */
const MANY = 500;

/** What is stored of the records of a file, and of those that they belong to, by key. */
async function storedOf(docs: readonly Doc[]): Promise<Map<string, unknown>> {
  await ready();
  const here = new Map<string, unknown>();
  if (docs.length > MANY) {
    for (const kind of KINDS)
      await boxes[kind].each((raw, key) => {
        const { id } = (raw ?? {}) as { id?: unknown };
        if (isThere(raw)) here.set(`${kind}/${typeof id === "string" ? id : key}`, raw);
      });
    return here;
  }
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

/**
 * Brings in the records of a file and the makes that they need; those that are here stay as they are.
 * @param told how many of how many records are stored
 * @param broken off where the signal says so: what has come in stays
 */
export async function bringIn(
  docs: readonly Doc[],
  makes: readonly Pack[] = [],
  notes: CodeNotes = {},
  told?: (done: number, of: number) => void,
  broken?: AbortSignal,
): Promise<Merge> {
  const here = await storedOf(docs);
  if (Object.keys(notes).length) await bringNotes(notes);
  for (const make of makes) if (!packById(make.id)) await writePack(make);
  const merge = mergeBackup(docs, here);
  const stored = await inBulk(() => writeAll(merge.add, told, broken));
  // One write that waits for the disk takes with it all that was written before.
  if (stored) await values.set("brought-at", nowIso());
  return { ...merge, add: merge.add.slice(0, stored) };
}

/** A record that is here in one state and in the file in another. */
export interface Difference {
  key: string;
  /** What it is, for whoever decides. */
  called: Pick<Doc, "kind"> & { title: string; at: string };
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
  read: FileRead;
  merge: Merge;
  vehicles: VehiclePlan[];
}

const calledOf = (doc: Doc): Difference["called"] => ({
  kind: doc.kind,
  title: doc.kind === "job" ? doc.title : "",
  at: doc.kind === "vehicle" ? doc.createdAt : doc.kind === "job" ? doc.openedAt : doc.startedAt,
});
const vehicleOf = (doc: Doc): string => (doc.kind === "vehicle" ? doc.id : doc.vehicle);

/** What bringing in a file would do, vehicle by vehicle; nothing is done yet. */
export async function planOf(read: FileRead): Promise<Plan> {
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
    if (joined.gains.length || joined.conflicts.length)
      plan(file).differences.push({ key, called: calledOf(file), file, joined });
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
  told?: (done: number, of: number) => void,
  broken?: AbortSignal,
): Promise<{ merge: Merge; joined: number; pictures: number }> {
  const docs = read.docs.filter((doc) => !left.has(vehicleOf(doc)));
  const merge = await bringIn(docs, read.makes, read.notes, told, broken);
  let joined = 0;
  const pictures = broken?.aborted ? 0 : await bringPictures(read, left);
  for (const { id, differences } of vehicles)
    if (!left.has(id) && !broken?.aborted)
      for (const { key, file } of differences) if (await joinIn(file, (field) => choose(key, field))) joined++;
  return { merge, joined, pictures };
}

/** Keeps the photos and films of a file that are not here yet, of vehicles that are. @returns how many */
async function bringPictures({ photos: taken, films }: FileRead, left: ReadonlySet<string>): Promise<number> {
  const here = new Set(await boxes.vehicle.keys());
  const wanted = (p: { vehicle: string }) => !left.has(p.vehicle) && (p.vehicle === "" || here.has(p.vehicle));
  let n = 0;
  for (const { id, vehicle, of, at, blob } of taken.filter(wanted))
    if (!(await readPhoto(id))) {
      await photos.set(id, { id, vehicle, job: of, at, photo: blob });
      n++;
    }
  const known = new Set(films.length ? await kept.keys() : []);
  for (const { id, vehicle, of, at, blob } of films.filter(wanted))
    if (!known.has(id) && (await keepFilm({ id, vehicle, reading: of, at, film: blob }))) n++;
  return n;
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
