import type { JobCase } from "@core/job/case";
import { askedOf, lockOf } from "@core/job/gates";
import { judge, type Judgement } from "@core/job/judge";
import { systemsOf, type SystemAccess } from "@core/pack/scope";
import type { Reading, StepId } from "@core/record/types";
import { packById } from "@packs/index";
import { readingsOf, readJob, readVehicle } from "./records";

/** All that the pages of a job need. */
export interface JobData extends JobCase {
  readings: Reading[];
  systems: SystemAccess[];
  /** The system that is read now. */
  access: SystemAccess;
  /** What is known, proven and said, from the records as they are. */
  judged: Judgement;
}

export async function readJobData(jobId: string): Promise<JobData> {
  const job = await readJob(jobId);
  const [vehicle, readings] = await Promise.all([readVehicle(job.vehicle), readingsOf(job)]);
  const pack = packById(vehicle.pack);
  if (!pack)
    throw new Response(`This vehicle needs the pack "${vehicle.pack}", which is not in this Klinko.`, { status: 409 });
  const systems = systemsOf(pack, vehicle);
  const access = systems.find((s) => s.system === job.system) ?? systems[0];
  if (!access) throw new Response(`The pack "${pack.title}" knows no way to read this vehicle.`, { status: 409 });
  const known: JobCase = { job, vehicle, pack, readings, systems };
  return { job, vehicle, pack, readings, systems, access, judged: judge(known) };
}

/** What is known and proven of the system that is read now. */
export const ownOf = ({ judged, access }: JobData) => judged.systems.find((s) => s.access.system === access.system)!;

/** Why a step of this job cannot be taken yet, for the system that is read now. */
export const lockOfStep = ({ job, readings, access, systems }: JobData, step: StepId): string | null =>
  lockOf(job, readings, step, askedOf(access, systems));
