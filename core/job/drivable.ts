import { driveAdvice, type DriveAdvice } from "../diagnosis/drive";
import { entriesFor } from "../pack/scope";
import type { JobCase } from "./case";
import { codeKind } from "./faults";
import type { Judgement } from "./judge";

/** Whether the vehicle can be driven, by the faults of all its systems that were read; those that were not read surely count too. */
export function drivable(c: JobCase, systems: Judgement["systems"]): DriveAdvice | null {
  return driveAdvice(
    systems.flatMap(({ access, known }) => {
      const entries = entriesFor(c.pack, c.vehicle, access.system);
      const codes = new Set(known.codes.map((x) => x.code));
      return [...codes]
        .filter((code) => codeKind(c, access.system, code) === "fault")
        .map((code) => ({ code, entry: entries.find((e) => e.code === code) ?? null }));
    }),
  );
}
