import { entriesFor } from "../pack/scope";
import type { JobCase } from "./case";

/** What a code is on this vehicle: a fault to chase, one that a change on it explains, or a status that is no fault. */
export type CodeKind = "fault" | "expected" | "status";

export function codeKind(c: Pick<JobCase, "vehicle" | "pack">, system: string, code: string): CodeKind {
  if (c.vehicle.changes.some((x) => x.codes.includes(code))) return "expected";
  return entriesFor(c.pack, c.vehicle, system).find((e) => e.code === code)?.kind === "status" ? "status" : "fault";
}
