import type { Vehicle } from "@core/record/types";
import type { Option } from "./Choice";

/** What a power cut takes from a vehicle, as its owner answers. */
export const RADIO: readonly Option<Exclude<Vehicle["radio"], "not-asked">>[] = [
  { value: "none", label: "Needs no code" },
  { value: "code-known", label: "Needs a code, I have it" },
  { value: "code-unknown", label: "Needs a code, not found" },
];

export const IMMOBILISER: readonly Option<Exclude<Vehicle["immobiliser"], "not-asked">>[] = [
  { value: "none", label: "There is none" },
  { value: "keys-here", label: "All keys and the code card are here" },
  { value: "keys-missing", label: "A key or the card is missing" },
];
