import { dropFilms } from "./films";
import { dropPhotos } from "./photos";
import { laterBy } from "@core/record/later";
import { clock } from "./clock";
import { boxes } from "./boxes";
import { isThere, readVehicle } from "./opening";
import { readGarage, removeVehicle, writeAll } from "./records";

const fleet = async () => (await import("virtual:demo-fleet")).default;

let seeding: Promise<void> | null = null;

/** Puts the demo fleet into an empty garage; does nothing to one that holds anything. */
export function seedDemo(): Promise<void> {
  seeding ??= (async () => {
    const { vehicles, locked } = await readGarage();
    if (vehicles.length || locked.length) return;
    const { builtAt, docs } = await fleet();
    await writeAll(laterBy(docs, clock.now() - builtAt));
  })().finally(() => {
    seeding = null;
  });
  return seeding;
}

/** Ids of the demo's vehicles that are in this garage. */
export async function demoHere(): Promise<string[]> {
  const ids = (await fleet()).docs.flatMap((d) => (d.kind === "vehicle" ? [d.id] : []));
  const there = await Promise.all(ids.map(async (id) => isThere(await boxes.vehicle.get(id))));
  return ids.filter((_, i) => there[i]);
}

/** Takes the demo fleet out of the garage, with what was recorded of it. */
export async function removeDemo(): Promise<void> {
  for (const vehicle of await demoHere()) {
    await removeVehicle(await readVehicle(vehicle));
    await dropFilms({ vehicle });
    await dropPhotos({ vehicle });
  }
}
