import localforage from "localforage";
import { keyOf, mergeBackup, writeBackup, type Merge } from "@core/record/backup";
import { openDoc, type Locked } from "@core/record/open";
import type { Doc, Job, Reading, Vehicle } from "@core/record/types";
import { nowIso } from "./clock";
import { inTurn } from "./in-turn";

/** Everything that is recorded, in this browser and nowhere else. One key a record: `vehicle/…`, `job/…`, `reading/…`. */
const db = localforage.createInstance({ name: "klinko", storeName: "records" });

export interface Everything {
  vehicles: Vehicle[];
  jobs: Job[];
  readings: Reading[];
  /** Records of a newer version or damaged ones: left as they are. */
  locked: Locked[];
}

export async function readEverything(): Promise<Everything> {
  const all: Everything = { vehicles: [], jobs: [], readings: [], locked: [] };
  await db.iterate((raw, key) => {
    if (!/^(vehicle|job|reading)\//.test(key)) return;
    const opened = openDoc(key, raw);
    if ("locked" in opened) all.locked.push(opened.locked);
    else if (opened.doc.kind === "vehicle") all.vehicles.push(opened.doc);
    else if (opened.doc.kind === "job") all.jobs.push(opened.doc);
    else all.readings.push(opened.doc);
  });
  return all;
}

async function read<D extends Doc>(kind: D["kind"], id: string, what: string): Promise<D> {
  const key = `${kind}/${id}`;
  const raw = await db.getItem(key);
  if (raw === null) throw new Response(`There is no ${what} "${id}" on this device.`, { status: 404 });
  const opened = openDoc(key, raw);
  if ("locked" in opened)
    throw new Response(`${opened.locked.message} You can save it as a file from the garage.`, { status: 409 });
  return opened.doc as D;
}

export const readVehicle = (id: string) => read<Vehicle>("vehicle", id, "vehicle");
export const readJob = (id: string) => read<Job>("job", id, "job");

export async function readingsOf(jobId: string): Promise<Reading[]> {
  const { readings } = await readEverything();
  return readings.filter((r) => r.job === jobId).sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

/** Writes a record; never over one that this version cannot read. */
export async function write(doc: Doc): Promise<void> {
  const key = keyOf(doc);
  const old: unknown = await db.getItem(key);
  if (old !== null && "locked" in openDoc(key, old))
    throw new Response("This record was written by a newer Klinko or is damaged. It is read only here.", {
      status: 409,
    });
  await db.setItem(key, doc);
}

export async function remove(doc: Pick<Doc, "kind" | "id">): Promise<void> {
  await db.removeItem(keyOf(doc));
}

function change<D extends Doc>(key: string, stored: () => Promise<D>, to: (doc: D) => D): Promise<D> {
  return inTurn(key, async () => {
    const doc = to(await stored());
    await write(doc);
    return doc;
  });
}

/** Changes a job where it is stored; changes asked at once are made one after the other. */
export const changeJob = (id: string, to: (job: Job) => Job) => change(`job/${id}`, () => readJob(id), to);

/** Changes a vehicle where it is stored, in the same way. */
export const changeVehicle = (id: string, to: (vehicle: Vehicle) => Vehicle) =>
  change(`vehicle/${id}`, () => readVehicle(id), to);

/**
 * Writes each state of a reading as it comes. While one write runs only the newest of the states that follow is kept, so
 * a quick hand never waits and the last mark is always stored.
 * @param key where it is no record of the garage yet
 */
export function readingWriter(key?: string): (reading: Reading) => Promise<void> {
  let running: Promise<void> | null = null;
  let waiting: Reading | null = null;
  const run = async (): Promise<void> => {
    try {
      while (waiting) {
        const next = waiting;
        waiting = null;
        await db.setItem(key ?? keyOf(next), next);
      }
    } finally {
      // One that failed must not stop those that follow.
      running = null;
    }
  };
  return (reading) => {
    waiting = reading;
    running ??= run();
    return running;
  };
}

/** Loose values beside the records: settings, simulated vehicles. */
export async function readValue(key: string): Promise<unknown> {
  return db.getItem(`value/${key}`);
}
export async function writeValue(key: string, value: unknown): Promise<void> {
  await db.setItem(`value/${key}`, value);
}

export const dropValue = (key: string): Promise<void> => db.removeItem(`value/${key}`);

/** Changes a loose value where it is stored; changes asked at once are made one after the other. */
export const changeValue = <T>(key: string, to: (value: unknown) => T): Promise<T> =>
  inTurn(`value/${key}`, async () => {
    const value = to(await readValue(key));
    await writeValue(key, value);
    return value;
  });

/** All records as one file, as they are stored, locked ones too. */
export async function exportEverything(): Promise<string> {
  const records: Record<string, unknown> = {};
  await db.iterate((raw, key) => {
    if (!key.startsWith("value/")) records[key] = raw;
  });
  return writeBackup(records, nowIso());
}

/** Brings in the records of a file; those that are here stay as they are. */
export async function bringIn(docs: readonly Doc[]): Promise<Merge> {
  const here = new Map<string, unknown>();
  await db.iterate((raw, key) => {
    here.set(key, raw);
  });
  const merge = mergeBackup(docs, here);
  for (const doc of merge.add) await db.setItem(keyOf(doc), doc);
  return merge;
}

export const newId = () => crypto.randomUUID().slice(0, 13);
