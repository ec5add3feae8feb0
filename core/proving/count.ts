import type { RideDone } from "../record/types";

/** Rides that count since a moment: those before a clear prove nothing after it. */
export const countingSince = (rides: readonly RideDone[], since: string): RideDone[] =>
  rides.filter((r) => r.counts === "yes" && !r.withdrawnAt && r.at > since);
