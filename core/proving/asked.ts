import type { Pack } from "../pack/pack";
import type { RideRule } from "../pack/ride";
import type { Job } from "../record/types";
import { rideRuleOf } from "./told";

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
