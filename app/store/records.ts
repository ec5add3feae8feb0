import { fold, newCard, unfold, without, withJob, withReadingOf, type Card, type Face } from "@core/job/card";
import { faultOf, openDoc, type Locked } from "@core/record/open";
import type { Doc, Job, Reading, Vehicle } from "@core/record/types";
import { rulesReady } from "@core/schema/rule";
import { StoreProblem } from "./box";
import { boxes, cards, placed, ready, type Kind } from "./boxes";
import { cardOf, isCard, keepCard, rebuild } from "./cards";
import { inTurn } from "./in-turn";
import { dropFixes } from "./ride-record";
import { isThere, keyIn, opened, readJob, readVehicle, stillLocked } from "./opening";
import { announce } from "./tabs";

/**
 * Everything that is recorded, in this browser and nowhere else. Beside the records stands a card for each vehicle, so that the garage and
 * a job read what they show and no more. Whatever belongs to a vehicle is changed in its turn, in all tabs.
 */
const vehicleOf = (doc: Doc): string => (doc.kind === "vehicle" ? doc.id : doc.vehicle);
const turnOf = <T>(vehicle: string, run: () => Promise<T>): Promise<T> => inTurn(`vehicle/${vehicle}`, run);

const readOnly = () =>
  new Response("This record was written by a newer Klinko or is damaged. It is read only here.", { status: 409 });

export interface Garage {
  vehicles: Vehicle[];
  /** What is told of their jobs, by vehicle. */
  faces: Map<string, Face>;
  /** Records of a newer version or damaged ones: left as they are. */
  locked: Locked[];
}

/** All that the garage shows. */
export async function readGarage(): Promise<Garage> {
  await placed();
  const vehicles: Vehicle[] = [];
  const locked: Locked[] = (await stillLocked()).filter((l) => !l.key.startsWith("vehicle/"));
  const known = new Map<string, Face>();
  const stored: [key: string, raw: unknown][] = [];
  await Promise.all([
    boxes.vehicle.each((raw, key) => void stored.push([key, raw])),
    cards.each((raw, key) => {
      if (isCard(raw, key) && !raw.doubt?.length) known.set(key, raw);
    }),
  ]);
  // An empty garage has nothing to check, and does not load what checks.
  if (stored.length) await rulesReady();
  for (const [key, raw] of stored) {
    const got = openDoc(`vehicle/${key}`, raw);
    if ("locked" in got) locked.push(got.locked);
    else vehicles.push(got.doc as Vehicle);
  }
  const missing = vehicles.filter((v) => !known.has(v.id)).map((v) => v.id);
  // One that a page died over is mended by itself; where most are missing, one walk over all records makes them.
  if (missing.length > 3) for (const [id, card] of await rebuild(missing)) known.set(id, fold(card));
  else for (const id of missing) known.set(id, fold(await turnOf(id, () => cardOf(id))));
  return { vehicles, faces: known, locked };
}

/** All vehicles that can be read, each with all its jobs in a line each. */
export async function readCards(): Promise<{ vehicle: Vehicle; jobs: Card["jobs"] }[]> {
  const { vehicles } = await readGarage();
  const known = new Map<string, Card["jobs"]>();
  await cards.each((raw, key) => {
    if (isCard(raw, key)) known.set(key, unfold(raw).jobs);
  });
  return vehicles.map((vehicle) => ({ vehicle, jobs: known.get(vehicle.id) ?? [] }));
}

export async function readCard(vehicle: string): Promise<Card> {
  await ready();
  return turnOf(vehicle, () => cardOf(vehicle));
}

/** The readings of a job, the oldest first. */
export async function readingsOf({ id, vehicle }: Job): Promise<Reading[]> {
  const card = await readCard(vehicle);
  const line = card.jobs.find((j) => j.id === id);
  const readings = await opened<Reading>(
    "reading",
    (line?.readings ?? []).map((r) => `${id}/${r.id}`),
  );
  return readings.sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

/** A reading as it is stored, or null where it is not here. */
export const readReading = async (job: string, reading: string): Promise<Reading | null> =>
  (await opened<Reading>("reading", [`${job}/${reading}`]))[0] ?? null;

export const hasReading = async (job: string, reading: string): Promise<boolean> =>
  isThere(await boxes.reading.get(`${job}/${reading}`));

/** How many marks a reading holds that was not recorded. */
export async function marksIn(job: string, reading: string): Promise<number> {
  const [own] = await opened<Reading>("reading", [`${job}/${reading}`]);
  return own?.marks.length ?? 0;
}

/** What is to be written, checked: the program must be able to read what it wrote. */
function checked(doc: Doc): Doc {
  const held = faultOf(doc);
  if ("doc" in held) return doc;
  throw new StoreProblem("refused", `Not saved, since it could not be read again: ${held.fault}.`);
}

/**
 * Stores a record whose turn it is; never over one that this version cannot read.
 * @param opened the record as it was read in the same turn, where it was: it need not be looked at again
 * @param card that of its vehicle, where it was read in the same turn
 */
async function put(doc: Doc, opened?: Doc, card?: Card): Promise<void> {
  const { kind } = doc;
  const key = keyIn(doc);
  const old = opened ?? (await boxes[kind].get(key));
  if (!opened && isThere(old) && "locked" in openDoc(`${kind}/${key}`, old)) throw readOnly();
  checked(doc);
  const vehicle = vehicleOf(doc);
  if (doc.kind === "vehicle") {
    await boxes.vehicle.set(key, doc);
    if (!isThere(old)) await keepCard(newCard(vehicle));
  } else {
    const before = card ?? (await cardOf(vehicle));
    const job = doc.kind === "job" ? doc : await readJob(doc.job);
    const after = doc.kind === "job" ? withJob(before, doc) : withReadingOf(before, job, doc);
    await over(before, after, { job: job.id, ...(doc.kind === "reading" && { reading: doc.id }) }, () =>
      boxes[kind].set(key, doc),
    );
  }
  announce(vehicle);
}

/** Changes records and the card that tells of them: where the page dies in between, the card says what to look at. */
async function over(before: Card, after: Card, doubt: { job: string; reading?: string }, run: () => Promise<void>) {
  if (JSON.stringify(before) === JSON.stringify(after)) return run();
  await keepCard(before, [doubt]);
  await run();
  await keepCard(after);
}

/** Writes a record; never over one that this version cannot read. */
export async function write(doc: Doc): Promise<void> {
  await ready();
  await turnOf(vehicleOf(doc), () => put(doc));
}

/**
 * Writes a reading and what its job says of it, in one turn: where the second fails, nothing of it stays; where the page dies in between,
 * the card knows, and the line is written when the job is opened again.
 */
export async function writeReading(reading: Reading, to: (job: Job) => Job): Promise<Job> {
  await ready();
  return turnOf(reading.vehicle, async () => {
    // A card that a page died over mends its jobs: that comes before they are read.
    const before = await cardOf(reading.vehicle);
    const job = to(await readJob(reading.job));
    const key = keyIn(reading);
    const old = await boxes.reading.get(key);
    if (isThere(old) && "locked" in openDoc(`reading/${key}`, old)) throw readOnly();
    const { recordedAt } = (old ?? {}) as Partial<Reading>;
    if (recordedAt && recordedAt !== reading.recordedAt) throw new StoreProblem("refused", RECORDED);
    checked(reading);
    checked(job);
    const after = withReadingOf(withJob(before, job), job, reading);
    await keepCard(before, [{ job: job.id, reading: reading.id }]);
    try {
      await boxes.reading.set(key, reading);
      await boxes.job.set(job.id, job);
    } catch (error) {
      if (isThere(old)) await boxes.reading.set(key, old);
      else await boxes.reading.remove(key);
      await keepCard(before);
      throw error;
    }
    await keepCard(after);
    announce(reading.vehicle);
    return job;
  });
}

async function take(doc: Doc): Promise<void> {
  const vehicle = vehicleOf(doc);
  if (doc.kind === "vehicle") {
    await boxes.vehicle.remove(doc.id);
    await cards.remove(doc.id);
  } else {
    const before = await cardOf(vehicle);
    const after = doc.kind === "job" ? without(before, doc.id) : without(before, doc.job, doc.id);
    await boxes[doc.kind].remove(keyIn(doc));
    if (before !== after) await keepCard(after);
  }
  announce(vehicle);
}

/** Removes one reading. */
export const removeReading = (reading: Reading): Promise<void> => turnOf(reading.vehicle, () => take(reading));

/** Removes a job with its readings. @returns their ids */
export async function removeJob(job: Job): Promise<string[]> {
  const readings = await readingsOf(job);
  return turnOf(job.vehicle, async () => {
    for (const r of readings) await boxes.reading.remove(keyIn(r));
    await dropFixes(job.id);
    await take(job);
    return readings.map((r) => r.id);
  });
}

/** Removes a vehicle with all that belongs to it. */
export async function removeVehicle(vehicle: Vehicle): Promise<void> {
  const card = await readCard(vehicle.id);
  await turnOf(vehicle.id, async () => {
    for (const job of card.jobs) {
      for (const r of job.readings) await boxes.reading.remove(`${job.id}/${r.id}`);
      await boxes.job.remove(job.id);
      await dropFixes(job.id);
    }
    await take(vehicle);
  });
}

/** Throws away a record that cannot be used here, as the person asked. */
export async function removeLocked(key: string): Promise<void> {
  const [kind, ...rest] = key.split("/");
  if (kind in boxes) await boxes[kind as Kind].remove(rest.join("/"));
}

/** Whose job it is never changes. */
const belongs = new Map<string, string>();

/** Changes a job where it is stored; changes asked at once are made one after the other. */
export const changeJob = (id: string, to: (job: Job) => Job): Promise<Job> =>
  // Those that are asked first come first, although the vehicle has to be looked up.
  inTurn(`job/${id}`, async () => {
    const vehicle = belongs.get(id) ?? (await readJob(id)).vehicle;
    belongs.set(id, vehicle);
    return turnOf(vehicle, async () => {
      // As in {@link writeReading}.
      const card = await cardOf(vehicle);
      const old = await readJob(id);
      const doc = to(old);
      await put(doc, old, card);
      return doc;
    });
  });

/** Changes a vehicle where it is stored, in the same way. */
export const changeVehicle = (id: string, to: (vehicle: Vehicle) => Vehicle): Promise<Vehicle> =>
  turnOf(id, async () => {
    const old = await readVehicle(id);
    const doc = to(old);
    await put(doc, old);
    return doc;
  });

/**
 * Writes each state of a reading as it comes. While one write runs only the newest of the states that follow is kept, so
 * a quick hand never waits and the last mark is always stored. What was recorded meanwhile is not written over.
 * @param set where it is no record of the garage
 */
export function readingWriter(set?: (reading: Reading) => Promise<void>): (reading: Reading) => Promise<void> {
  let running: Promise<void> | null = null;
  let waiting: Reading | null = null;
  let carded = false;
  const store = (reading: Reading) =>
    turnOf(reading.vehicle, async () => {
      const old = (await boxes.reading.get(keyIn(reading))) as Reading | null;
      if (old?.recordedAt && !reading.recordedAt) throw new StoreProblem("refused", RECORDED);
      // Its card names it from the first state on; what it holds is told when it is recorded.
      if (carded && !reading.recordedAt) return boxes.reading.set(keyIn(reading), reading);
      await put(reading);
      carded = true;
    });
  const run = async (): Promise<void> => {
    try {
      while (waiting) {
        const next: Reading = waiting;
        waiting = null;
        await (set ? set(next) : ready().then(() => store(next)));
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

const RECORDED = "This reading was recorded in another tab. What is marked here does not change it: begin a new one.";

/**
 * Writes many new records, vehicle by vehicle; the card of each is written once.
 * @param docs vehicles first, then jobs, then readings
 * @returns how many are stored, fewer than all where it was broken off between two vehicles
 */
export async function writeAll(
  docs: readonly Doc[],
  told: (done: number, of: number) => void = () => undefined,
  broken?: AbortSignal,
): Promise<number> {
  await ready();
  let done = 0;
  const stored = (n: number) => told((done += n), docs.length);
  for (const doc of docs)
    if (doc.kind === "vehicle") {
      if (broken?.aborted) return done;
      await turnOf(doc.id, () => put(doc));
      stored(1);
    }
  const by = new Map<string, Exclude<Doc, Vehicle>[]>();
  for (const doc of docs) if (doc.kind !== "vehicle") by.set(doc.vehicle, [...(by.get(doc.vehicle) ?? []), doc]);
  for (const [vehicle, own] of by) {
    if (broken?.aborted) return done;
    await turnOf(vehicle, async () => {
      const before = await cardOf(vehicle);
      const doubt = own.map((d) => (d.kind === "job" ? { job: d.id } : { job: d.job, reading: d.id }));
      await keepCard(before, doubt);
      for (const doc of own) await boxes[doc.kind].set(keyIn(doc), checked(doc));
      await cardOf(vehicle);
      announce(vehicle);
    });
    stored(own.length);
  }
  return done;
}

export const newId = () => crypto.randomUUID().slice(0, 13);
