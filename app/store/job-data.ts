import type { Pack } from "@core/pack/pack";
import { systemsOf, type SystemAccess } from "@core/pack/scope";
import type { Job, Reading, Vehicle } from "@core/record/types";
import { packById } from "@packs/index";
import { readingsOf, readJob, readVehicle } from "./db";

/** All that the pages of a job need. */
export interface JobData {
  job: Job;
  vehicle: Vehicle;
  pack: Pack;
  readings: Reading[];
  systems: SystemAccess[];
  /** The system that is read now. */
  access: SystemAccess;
}

export async function readJobData(jobId: string): Promise<JobData> {
  const job = await readJob(jobId);
  const [vehicle, readings] = await Promise.all([readVehicle(job.vehicle), readingsOf(jobId)]);
  const pack = packById(vehicle.pack);
  if (!pack)
    throw new Response(`This vehicle needs the pack "${vehicle.pack}", which is not in this Klinko.`, { status: 409 });
  const systems = systemsOf(pack, vehicle);
  const access = systems.find((s) => s.system === job.system) ?? systems[0];
  if (!access) throw new Response(`The pack "${pack.title}" knows no way to read this vehicle.`, { status: 409 });
  return { job, vehicle, pack, readings, systems, access };
}
