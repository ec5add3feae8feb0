import type { Of } from "../schema/rule";
import { RECORD_VERSION, type Vehicle, type Work, type workToldRule } from "./types";

/** A vehicle of which only what it is is known. */
export function newVehicle(
  about: Pick<Vehicle, "id" | "plate" | "pack" | "variant" | "year" | "engine" | "market">,
  createdAt: string,
): Vehicle {
  return {
    version: RECORD_VERSION,
    kind: "vehicle",
    ...about,
    changes: [],
    drives: [],
    radio: "not-asked",
    immobiliser: "not-asked",
    createdAt,
  };
}

/** A vehicle with its mileage or some work written down. Told of an earlier day, it stands where it belongs. */
export function withWork(v: Vehicle, told: Of<typeof workToldRule>, at: string): Vehicle {
  const work = [...(v.work ?? []), { at, ...told }].sort((a, b) => a.at.localeCompare(b.at));
  return { ...v, work };
}

/** One that was written down by mistake: it stays in the records and counts for nothing. */
export function withoutWork(v: Vehicle, entry: Pick<Work, "at" | "what">, now: string): Vehicle {
  const gone = v.work?.find((w) => w.at === entry.at && w.what === entry.what && !w.withdrawnAt);
  return gone ? { ...v, work: v.work?.map((w) => (w === gone ? { ...w, withdrawnAt: now } : w)) } : v;
}

/** The distance that was read last, km. */
export const lastKm = (v: Pick<Vehicle, "work">): Work | undefined =>
  v.work?.findLast((w) => w.km !== undefined && !w.withdrawnAt);

/** A vehicle put out of the way, or, without a time, back among the others. */
export function archived({ archivedAt: _, ...vehicle }: Vehicle, at?: string): Vehicle {
  return at ? { ...vehicle, archivedAt: at } : vehicle;
}

/** A vehicle with what somebody told of it besides; null takes that back, and what is not named stays. */
export function withTold(
  { inspection, drivesAWeek, ...v }: Vehicle,
  told: { inspection?: string | null; drivesAWeek?: number | null },
): Vehicle {
  const day = told.inspection === undefined ? inspection : told.inspection;
  const drives = told.drivesAWeek === undefined ? drivesAWeek : told.drivesAWeek;
  return { ...v, ...(day != null && { inspection: day }), ...(drives != null && { drivesAWeek: drives }) };
}
