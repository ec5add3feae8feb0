import "@core/schema/joi-now";
import { expose } from "comlink";
import { search, searchableOf, type Found, type Searchable } from "@core/search/search";
import { openDoc } from "@core/record/open";
import type { Job, Vehicle } from "@core/record/types";
import { boxes, ready } from "~/store/boxes";
import { loadOwnPacks } from "~/store/own-packs";
import { readCard } from "~/store/records";
import { hearChanges } from "~/store/tabs";
import { vehicleName } from "~/store/vehicle-name";

/** What can be found, by vehicle: read once, then only where something has changed. */
const held = new Map<string, Searchable>();
const changed = new Set<string>();
let filled: Promise<void> | null = null;

hearChanges((vehicle) => {
  // Where makes were changed vehicles may be called otherwise, and where all was wiped nothing is left.
  if (vehicle === null) filled = null;
  else changed.add(vehicle);
});

async function fill(): Promise<void> {
  await ready();
  await loadOwnPacks();
  held.clear();
  const vehicles = new Map<string, Vehicle>();
  const jobs = new Map<string, Job[]>();
  await boxes.vehicle.each((raw, key) => {
    const got = openDoc(`vehicle/${key}`, raw);
    if ("doc" in got && got.doc.kind === "vehicle") vehicles.set(key, got.doc);
  });
  await boxes.job.each((raw, key) => {
    const got = openDoc(`job/${key}`, raw);
    if (!("doc" in got) || got.doc.kind !== "job") return;
    const { vehicle } = got.doc;
    if (vehicles.has(vehicle)) jobs.set(vehicle, [...(jobs.get(vehicle) ?? []), got.doc]);
  });
  for (const [id, vehicle] of vehicles) held.set(id, searchableOf(vehicle, vehicleName(vehicle), jobs.get(id) ?? []));
}

async function readAnew(id: string): Promise<void> {
  const got = openDoc(`vehicle/${id}`, await boxes.vehicle.get(id));
  if (!("doc" in got) || got.doc.kind !== "vehicle") return void held.delete(id);
  const own: Job[] = [];
  for (const line of (await readCard(id)).jobs) {
    const opened = openDoc(`job/${line.id}`, await boxes.job.get(line.id));
    if ("doc" in opened && opened.doc.kind === "job") own.push(opened.doc);
  }
  held.set(id, searchableOf(got.doc, vehicleName(got.doc), own));
}

/** All that is stored by now can be found. */
async function upToDate(): Promise<void> {
  filled ??= fill().catch((error: unknown) => {
    filled = null;
    throw error;
  });
  await filled;
  for (const id of [...changed]) {
    changed.delete(id);
    try {
      await readAnew(id);
    } catch (error) {
      changed.add(id);
      throw error;
    }
  }
}

/** One question after the other: none is answered while another one still reads what was changed. */
let turn: Promise<unknown> = Promise.resolve();

const api = {
  /** All that holds the words. The first question takes as long as reading all jobs does. */
  search: async (asked: string, most: number): Promise<Found> => {
    const mine = turn.then(upToDate);
    turn = mine.catch(() => undefined);
    await mine;
    return search(held.values(), asked, most);
  },
};

export type SearchApi = typeof api;
expose(api);
