import { RECORD_VERSION, type Vehicle } from "./types";

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
