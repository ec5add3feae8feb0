import type { System } from "../pack/pack";
import type { CircuitHere } from "./circuits";
import type { Failure } from "./kinds";
import type { Cause } from "./network";

/** A thing that can be wrong: a failure of one circuit, or of something that several share. */
export interface Suspect extends Cause {
  /** The same for the same thing in every job of a vehicle. */
  id: string;
  failure: Failure;
  system: string;
  /** The circuit it belongs to; null where it is shared. */
  circuit: CircuitHere | null;
  /** What it is called in the pack, where it is shared and has a name: "G101, behind the battery". */
  name: string | null;
}

/** A system whose codes are weighed, with its circuits. */
export interface SystemHere {
  about: Pick<System, "id" | "ground" | "feed" | "drives">;
  circuits: readonly CircuitHere[];
}
