import type { Pack } from "../pack/pack";
import type { SystemAccess } from "../pack/scope";
import type { Job, Reading, Vehicle } from "../record/types";

/** A job with all that is recorded of it and known of its vehicle: what the judgement is made from. */
export interface JobCase {
  vehicle: Vehicle;
  job: Job;
  /** All readings of the job. */
  readings: readonly Reading[];
  pack: Pack;
  systems: readonly SystemAccess[];
}

export const accessOf = (c: Pick<JobCase, "systems">, system: string): SystemAccess | undefined =>
  c.systems.find((s) => s.system === system);
