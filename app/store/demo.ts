import { clock } from "./clock";
import { flashWorker } from "~/workers/flash";
import { readEverything, write } from "./db";

let seeding: Promise<void> | null = null;

/** Puts the demo fleet into an empty garage; does nothing to one that holds anything. */
export function seedDemo(): Promise<void> {
  seeding ??= (async () => {
    const { vehicles, locked } = await readEverything();
    if (vehicles.length || locked.length) return;
    for (const doc of await flashWorker().buildDemo(clock.now())) await write(doc);
  })().finally(() => {
    seeding = null;
  });
  return seeding;
}
