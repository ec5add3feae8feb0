import { flashWorker } from "~/workers/flash";
import { clock } from "./clock";
import { readGarage, writeAll } from "./records";

let seeding: Promise<void> | null = null;

/** Puts the demo fleet into an empty garage; does nothing to one that holds anything. */
export function seedDemo(): Promise<void> {
  seeding ??= (async () => {
    const { vehicles, locked } = await readGarage();
    if (vehicles.length || locked.length) return;
    await writeAll(await flashWorker().buildDemo(clock.now()));
  })().finally(() => {
    seeding = null;
  });
  return seeding;
}
