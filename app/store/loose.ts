import { adopt, takersOf, type OpenJob } from "@core/record/adopt";
import { newJob } from "@core/record/job";
import { openDoc } from "@core/record/open";
import { lastMarked, TAIL_MS } from "@core/record/readings";
import type { Job, Reading } from "@core/record/types";
import type { JobLine } from "@core/job/card";
import { packById } from "./packs";
import { clock, nowIso } from "./clock";
import { readJob, readVehicle } from "./opening";
import { hasReading, newId, readCard, readingWriter, removeJob, write, writeReading } from "./records";
import { changeValue, dropValue, readValue, writeValue } from "./values";

/** The reading of a lamp that belongs to no vehicle yet: there is one on this device, until another lamp is watched. */
const KEY = "watch";

const writer = readingWriter((reading) => writeValue(KEY, reading));
let written: Promise<unknown> = Promise.resolve();

/** The open jobs of a vehicle, as far as it matters to whoever takes a reading in. */
export const openJobs = (vehicle: string, jobs: readonly JobLine[]): OpenJob[] =>
  jobs
    .filter((j) => !j.closedAt)
    .map((j) => ({ id: j.id, vehicle, system: j.system, begun: j.readings.some((r) => !r.recordedAt) }));

export function keepLoose(reading: Reading): Promise<void> {
  const done = writer(reading);
  written = done.catch(() => undefined);
  return done;
}

/** @returns null where there is none, or what is there cannot be read */
export async function readLoose(): Promise<Reading | null> {
  await written;
  const opened = openDoc(KEY, await readValue(KEY));
  if (!("doc" in opened) || opened.doc.kind !== "reading" || !opened.doc.marks.length) return null;
  const { taking, ...reading } = opened.doc as Claimed;
  // Its page died after it was taken in.
  if (taking && (await hasReading(taking.job, reading.id))) {
    await dropValue(KEY);
    return null;
  }
  const last = Math.max(lastMarked(reading.marks), reading.levels?.t.at(-1) ?? 0);
  return { ...reading, until: reading.until ?? Math.ceil(last) + TAIL_MS };
}

/** @param last state of it: what is still to be written comes before */
export async function dropLoose(last: Reading): Promise<void> {
  await keepLoose(last).catch(() => undefined);
  await dropValue(KEY);
}

/**
 * Takes it into a job of a vehicle, an open one where there is one.
 * @throws a Response where it is gone, or that system does not speak so
 */
export async function takeIn(vehicleId: string, system: string): Promise<{ job: Job; opened: boolean }> {
  const reading = await readLoose();
  if (!reading) throw gone();
  const vehicle = await readVehicle(vehicleId).catch(() => null);
  const open = vehicle ? openJobs(vehicleId, (await readCard(vehicleId)).jobs) : [];
  const taker = takersOf(reading.dialect, vehicle ? [vehicle] : [], open, packById).find(
    (t) => t.access.system === system,
  );
  if (!taker) throw new Response("That vehicle's lamp does not blink this way.", { status: 409 });
  const now = nowIso();
  const ids = { reading: reading.id, job: taker.job ?? newId() };
  if (!(await claim(reading, ids.job))) throw gone();
  try {
    if (!taker.job) await write(newJob(taker.vehicle, system, ids.job, now));
    const taken = adopt(reading, { ...taker, job: null }, ids, now).reading;
    const job = await writeReading(
      { ...taken, job: ids.job },
      (j) => adopt(reading, { ...taker, job: j }, ids, now).job,
    );
    await dropValue(KEY);
    return { job, opened: !taker.job };
  } catch (error) {
    // Nothing is half done: the reading is where it was.
    if (!taker.job) await readJob(ids.job).then(removeJob, () => undefined);
    await changeValue(KEY, (stored) => (stored ? reading : null)).catch(() => undefined);
    throw error;
  }
}

const gone = () =>
  new Response("That reading is not here any more: it was thrown away or taken in elsewhere.", { status: 409 });

/** Whoever takes it in says so on it; a claim of a page that died meanwhile counts no more after a while, ms. */
const CLAIM_MS = 10_000;
interface Claimed extends Reading {
  taking?: { at: string; job: string };
}

/** Asked twice, or from two tabs, it is taken in once. @returns false where it is taken, or another one is there by now */
async function claim(reading: Reading, job: string): Promise<boolean> {
  let mine = false;
  await changeValue(KEY, (value) => {
    const stored = value as Claimed | null;
    mine =
      stored?.startedAt === reading.startedAt &&
      !(stored.taking && clock.now() - Date.parse(stored.taking.at) < CLAIM_MS);
    return mine ? { ...stored, taking: { at: nowIso(), job } } : stored;
  });
  return mine;
}
