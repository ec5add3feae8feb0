import { adopt, takersOf } from "@core/record/adopt";
import { lastMarked, TAIL_MS } from "@core/record/readings";
import { openDoc } from "@core/record/open";
import type { Job, Reading } from "@core/record/types";
import { packById } from "@packs/index";
import { nowIso } from "./clock";
import { changeJob, dropValue, newId, readEverything, readingWriter, readValue, remove, write } from "./db";

/** The reading of a lamp that belongs to no vehicle yet: there is one on this device, until another lamp is watched. */
const KEY = "value/watch";

const writer = readingWriter(KEY);
let written: Promise<unknown> = Promise.resolve();

export function keepLoose(reading: Reading): Promise<void> {
  const done = writer(reading);
  written = done.catch(() => undefined);
  return done;
}

/** @returns null where there is none, or what is there cannot be read */
export async function readLoose(): Promise<Reading | null> {
  await written;
  const opened = openDoc(KEY, await readValue("watch"));
  if (!("doc" in opened) || opened.doc.kind !== "reading" || !opened.doc.marks.length) return null;
  const reading = opened.doc;
  const last = Math.max(lastMarked(reading.marks), reading.levels?.t.at(-1) ?? 0);
  return { ...reading, until: reading.until ?? Math.ceil(last) + TAIL_MS };
}

/** @param last state of it: what is still to be written comes before */
export async function dropLoose(last: Reading): Promise<void> {
  await keepLoose(last).catch(() => undefined);
  await dropValue("watch");
}

/**
 * Takes it into a job of a vehicle, an open one where there is one.
 * @throws a Response where it is gone, or that system does not speak so
 */
export async function takeIn(vehicle: string, system: string): Promise<{ job: Job; opened: boolean }> {
  const reading = await readLoose();
  if (!reading) throw new Response("That reading is not here any more: it was thrown away or taken in elsewhere.", { status: 409 }); // prettier-ignore
  const all = await readEverything();
  const taker = takersOf(reading.dialect, all.vehicles, all.jobs, all.readings, packById).find(
    (t) => t.vehicle.id === vehicle && t.access.system === system,
  );
  if (!taker) throw new Response("That vehicle's lamp does not talk as this one does.", { status: 409 });
  const now = nowIso();
  const ids = { reading: newId(), job: newId() };
  const taken = adopt(reading, taker, ids, now);
  await write(taken.reading);
  try {
    if (taker.job) await changeJob(taker.job.id, (job) => adopt(reading, { ...taker, job }, ids, now).job);
    else await write(taken.job);
  } catch (error) {
    // Nothing is half done: the reading is still where it was.
    await remove(taken.reading);
    throw error;
  }
  await dropValue("watch");
  return { job: taken.job, opened: !taker.job };
}
