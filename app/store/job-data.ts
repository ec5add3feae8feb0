import { redirect } from "react-router";
import type { JobCase } from "@core/job/case";
import { askedOf, lockOf } from "@core/job/gates";
import { judge, type Judgement } from "@core/job/judge";
import { systemsOf, type SystemAccess } from "@core/pack/scope";
import type { CodeNotes } from "@core/record/code-notes";
import type { Reading, StepId, Vehicle } from "@core/record/types";
import { codeNotes } from "./code-notes";
import { packById } from "./packs";
import { keptPath } from "./paths";
import { readJob, readVehicle } from "./opening";
import { readingsOf } from "./records";

/** All that the pages of a job need. */
export interface JobData extends JobCase {
  readings: Reading[];
  systems: SystemAccess[];
  /** The system that is read now. */
  access: SystemAccess;
  /** What is known, proven and said, from the records as they are. */
  judged: Judgement;
  /** Own notes to codes, of all makes. */
  notes: CodeNotes;
}

/** Is the make known here, and a way to read this vehicle? */
export const isReadable = (vehicle: Vehicle): boolean => {
  const pack = packById(vehicle.pack);
  return pack !== undefined && systemsOf(pack, vehicle).length > 0;
};

export async function readJobData(jobId: string): Promise<JobData> {
  const job = await readJob(jobId);
  const [vehicle, readings, notes] = await Promise.all([readVehicle(job.vehicle), readingsOf(job), codeNotes()]);
  const pack = packById(vehicle.pack);
  if (!pack || !isReadable(vehicle)) throw redirect(keptPath(job.id));
  const systems = systemsOf(pack, vehicle);
  const access = systems.find((s) => s.system === job.system) ?? systems[0];
  const known: JobCase = { job, vehicle, pack, readings, systems };
  return { job, vehicle, pack, readings, systems, access, judged: judge(known), notes };
}

/** What is known and proven of the system that is read now. */
export const ownOf = ({ judged, access }: JobData) => judged.systems.find((s) => s.access.system === access.system)!;

/** Why a step of this job cannot be taken yet, for the system that is read now. */
export const lockOfStep = ({ job, readings, access, systems }: JobData, step: StepId): string | null =>
  lockOf(job, readings, step, askedOf(access, systems));
