import type { Doc } from "@core/record/types";
import { rulesReady } from "@core/schema/rule";
import { box } from "./box";
import { move } from "./move";
import { loadOwnPacks } from "./own-packs";

/** A store for each kind of record: a vehicle and a job by its id, a reading by that of its job and its own. */
export const boxes = { vehicle: box("klinko-vehicles"), job: box("klinko-jobs"), reading: box("klinko-readings") };
/** What is told of each vehicle outside its jobs; made anew from the records where it is missing. */
export const cards = box("klinko-cards");
/** Loose values. */
export const values = box("klinko-values");

export type Kind = Doc["kind"];
export const KINDS = ["vehicle", "job", "reading"] as const satisfies readonly Kind[];

let moved: Promise<void> | null = null;

/** All is where it belongs: records of an older Klinko were moved, and the makes of this device are read. */
export function placed(): Promise<void> {
  moved ??= move(boxes, values)
    .then(loadOwnPacks)
    .catch((error: unknown) => {
      // The next one who asks tries again.
      moved = null;
      throw error;
    });
  return moved;
}

/** All is where it belongs, and can be checked as it is opened. */
export const ready = async (): Promise<void> => void (await Promise.all([placed(), rulesReady()]));
