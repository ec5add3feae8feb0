import { outside } from "@core/pack/scope";
import type { Vehicle } from "@core/record/types";
import { newVehicle } from "@core/record/vehicle";
import { packById } from "./packs";

/** What of a vehicle says what it is. */
export type VehicleAbout = Pick<Vehicle, "plate" | "pack" | "variant" | "year" | "engine" | "market">;

export interface VehicleErrors {
  plate?: string;
  year?: string;
  model?: string;
}

const OLDEST = 1950;
const NEWEST = 2035;
const PLATE_LETTERS = 16;

/** What was filled in about a vehicle, or what is wrong with it, by field. */
export function vehicleIn(form: FormData): { about: VehicleAbout } | { errors: VehicleErrors } {
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim() : "";
  };
  const pack = packById(text("pack"));
  const about = {
    plate: text("plate").toUpperCase(),
    pack: pack?.id ?? "",
    variant: text("variant"),
    year: Number(text("year")),
    engine: text("engine"),
    market: text("market") || "home",
  };
  const errors: VehicleErrors = {};
  if (!about.plate) errors.plate = "Write what you call it: the plate, or a name.";
  if (about.plate.length > PLATE_LETTERS) errors.plate = `Keep it to ${PLATE_LETTERS} characters.`;
  if (!Number.isInteger(about.year) || about.year < OLDEST || about.year > NEWEST)
    errors.year = "Write the model year with four digits, such as 1991.";
  if (!pack) errors.model = "Pick the make first.";
  else if (!errors.year) {
    const why = outside(pack, newVehicle({ id: "new", ...about }, ""));
    if (why) errors[why.includes("covers") ? "year" : "model"] = why;
  }
  return Object.keys(errors).length ? { errors } : { about };
}
