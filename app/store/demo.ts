import { laterBy } from "@core/record/later";
import { clock } from "./clock";
import { readGarage, writeAll } from "./records";

let seeding: Promise<void> | null = null;

/** Puts the demo fleet into an empty garage; does nothing to one that holds anything. */
export function seedDemo(): Promise<void> {
  seeding ??= (async () => {
    const { vehicles, locked } = await readGarage();
    if (vehicles.length || locked.length) return;
    const { builtAt, docs } = (await import("virtual:demo-fleet")).default;
    await writeAll(laterBy(docs, clock.now() - builtAt));
  })().finally(() => {
    seeding = null;
  });
  return seeding;
}
