import type { Vehicle } from "../record/types";
import type { JobLine } from "./card";

/** A code that came at several vehicles of one model, or in several jobs of one. */
export interface Recurring {
  pack: string;
  variant: string;
  system: string;
  code: string;
  /** At which vehicles, and in how many jobs of each, those with the most jobs first. */
  at: { vehicle: string; jobs: number }[];
  /** How many vehicles of this model have had a reading of this system. */
  of: number;
  /** When it was read last. */
  last: string;
}

/**
 * Which codes come again and again: at two vehicles of one model, or in two jobs of one vehicle. What was read, whoever judges it;
 * readings that were taken back count for nothing.
 */
export function recurringOf(
  garage: Iterable<{ vehicle: Pick<Vehicle, "id" | "pack" | "variant">; jobs: readonly JobLine[] }>,
): Recurring[] {
  const codes = new Map<string, Recurring & { by: Map<string, Set<string>> }>();
  const read = new Map<string, Set<string>>();
  for (const { vehicle, jobs } of garage)
    for (const job of jobs)
      for (const r of job.readings) {
        if (!r.recordedAt || r.withdrawn) continue;
        const model = JSON.stringify([vehicle.pack, vehicle.variant, r.system]);
        read.set(model, (read.get(model) ?? new Set()).add(vehicle.id));
        for (const code of r.codes) {
          const key = `${model} ${code}`;
          const { pack, variant } = vehicle;
          const own = codes.get(key) ?? {
            pack,
            variant,
            system: r.system,
            code,
            at: [],
            of: 0,
            last: "",
            by: new Map<string, Set<string>>(),
          };
          own.by.set(vehicle.id, (own.by.get(vehicle.id) ?? new Set<string>()).add(job.id));
          if (r.startedAt > own.last) own.last = r.startedAt;
          codes.set(key, own);
        }
      }
  return [...codes.values()]
    .map(({ by, ...c }) => ({
      ...c,
      at: [...by].map(([vehicle, jobs]) => ({ vehicle, jobs: jobs.size })).sort((a, b) => b.jobs - a.jobs),
      of: read.get(JSON.stringify([c.pack, c.variant, c.system]))!.size,
    }))
    .filter((c) => c.at.length > 1 || c.at[0].jobs > 1)
    .sort((a, b) => b.at.length - a.at.length || jobsOf(b) - jobsOf(a) || b.last.localeCompare(a.last));
}

/** In how many jobs it came. */
export const jobsOf = ({ at }: Pick<Recurring, "at">): number => at.reduce((n, v) => n + v.jobs, 0);
