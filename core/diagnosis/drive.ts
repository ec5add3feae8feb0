import type { Drivability, Entry } from "../pack/pack";

/** Whether a vehicle can be driven with all that is stored, and because of which codes. */
export interface DriveAdvice {
  drive: Drivability;
  /** The codes that decide, with what each affects. */
  because: Pick<Entry, "code" | "affects">[];
  /** Codes of which their table does not say. */
  untold: string[];
}

/** As it is said. Of what was not read nothing is known, so that none says more than that. */
export const DRIVE_WORDS: Readonly<Record<Drivability, string>> = {
  on: "Nothing that was read speaks against driving it.",
  gently: "Drive it gently, and no further than to where it is mended.",
  stop: "Do not drive it.",
};

const RANK: Readonly<Record<Drivability, number>> = { on: 0, gently: 1, stop: 2 };

/**
 * The worst of all faults decides.
 * @param faults those that are stored; `entry` is null for a code in no table
 * @returns null where no table says anything of it
 */
export function driveAdvice(faults: readonly { code: string; entry: Entry | null }[]): DriveAdvice | null {
  const told = faults.flatMap(({ entry }) => (entry?.drive ? [{ ...entry, drive: entry.drive }] : []));
  if (!told.length) return null;
  const drive = told.reduce<Drivability>((worst, e) => (RANK[e.drive] > RANK[worst] ? e.drive : worst), "on");
  return {
    drive,
    because: told.filter((e) => e.drive === drive),
    untold: faults.filter((f) => !f.entry?.drive).map((f) => f.code),
  };
}
