import type { Pack } from "../pack/pack";
import { systemsOf, type SystemAccess } from "../pack/scope";
import { newJob, note } from "./job";
import type { Job, Reading, Vehicle } from "./types";

/** A system of a vehicle that a reading may be of, with an open job to take it, where there is one. */
export interface Taker {
  vehicle: Vehicle;
  access: SystemAccess;
  /** Id of that job. */
  job: string | null;
}

/** An open job as far as it matters here. */
export interface OpenJob {
  id: string;
  vehicle: string;
  system: string;
  /** It has a reading that was begun and not recorded. */
  begun: boolean;
}

/**
 * Whose reading it may be that was made without a vehicle: the systems whose lamp speaks the dialect, those with an open job first. An
 * open job takes it only where it reads that system, and has no other reading that was begun and not recorded.
 */
export function takersOf(
  dialect: string,
  vehicles: readonly Vehicle[],
  jobs: readonly OpenJob[],
  packOf: (id: string) => Pack | undefined,
): Taker[] {
  return vehicles
    .flatMap((vehicle) => {
      const pack = packOf(vehicle.pack);
      if (!pack) return [];
      return systemsOf(pack, vehicle)
        .filter((access) => access.dialect?.id === dialect)
        .map((access) => {
          const open = (j: OpenJob) => j.vehicle === vehicle.id && j.system === access.system && !j.begun;
          return { vehicle, access, job: jobs.find(open)?.id ?? null };
        });
    })
    .sort((a, b) => Number(b.job !== null) - Number(a.job !== null) || a.vehicle.plate.localeCompare(b.vehicle.plate));
}

/**
 * Takes a reading into a job, there to be recorded like any other.
 * @param ids of the reading, and of the job where none is open
 */
export function adopt(
  reading: Reading,
  { vehicle, access, job }: { vehicle: Vehicle; access: SystemAccess; job: Job | null },
  ids: { reading: string; job: string },
  now: string,
): { job: Job; reading: Reading } {
  const home = job ?? newJob(vehicle, access.system, ids.job, now);
  const flashes = reading.marks.length;
  const says = `Read without a vehicle, and taken in: ${flashes} ${flashes === 1 ? "flash" : "flashes"}.`;
  return {
    job: note(home, "read", says, now),
    reading: {
      ...reading,
      id: ids.reading,
      job: home.id,
      vehicle: vehicle.id,
      system: access.system,
      way: access.way.id,
    },
  };
}
