import { countingSince } from "../proving/count";
import { rideRuleOf } from "../proving/told";
import type { ClearWay, Pack } from "../pack/pack";
import type { RideRule } from "../pack/ride";
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

/** What rides are held against now, and since when they count: what a unit wipes itself by while it is counted, else what proves a repair. */
export function ridesAsked(
  { counting, clears }: Pick<Job, "counting" | "clears">,
  pack: Pick<Pack, "clears" | "proving">,
): { rule: RideRule; since: string; wipes: boolean } | null {
  const rule = pack.clears.find((w) => w.id === counting?.way)?.ride;
  if (rule && counting) return { rule, since: counting.startedAt, wipes: true };
  const since = clears.at(-1)?.at;
  return since === undefined ? null : { rule: rideRuleOf(pack), since, wipes: false };
}
