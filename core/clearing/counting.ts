import { countingSince } from "../proving/count";
import type { ClearWay } from "../pack/pack";
import type { Counting, Job } from "../record/types";

/** How far a unit is on its way to wipe itself. */
export type Counted = Pick<Counting, "of" | "need"> & { have: number };

/** What has to be counted until a way has wiped; null where it wipes in another manner. */
export function toCount({ does, starts, ride }: ClearWay): Pick<Counting, "of" | "need"> | null {
  if (does !== "count") return null;
  return starts !== undefined ? { of: "starts", need: starts } : { of: "rides", need: ride?.rides ?? 1 };
}

/** @returns null where nothing is counted */
export function countedOf({ counting, rides }: Pick<Job, "counting" | "rides">): Counted | null {
  if (!counting) return null;
  const { of, need, starts, startedAt } = counting;
  return { of, need, have: of === "starts" ? starts.length : countingSince(rides, startedAt).length };
}

/** "3 of 40 starts" */
export const countedText = ({ of, have, need }: Counted): string => `${have} of ${need} ${of}`;
