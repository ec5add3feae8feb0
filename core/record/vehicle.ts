import { RECORD_VERSION, type Vehicle } from "./types";

/** A vehicle of which only what it is is known. */
export function newVehicle(
  about: Pick<Vehicle, "id" | "plate" | "pack" | "variant" | "year" | "engine" | "market">,
  createdAt: string,
): Vehicle {
  return { version: RECORD_VERSION, kind: "vehicle", ...about, changes: [], drives: [], radio: "not-asked", createdAt };
}
