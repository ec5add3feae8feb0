import type { Dialect } from "../flash/dialect/dialect";
import { nearBy } from "../flash/dialect/near-by";
import type { Entry, Pack } from "./pack";
import { entriesFor, otherMeanings, type VehicleFacts } from "./scope";

/** What a code means on this vehicle. `entry` is null where no table of this vehicle has it. */
export interface Meaning {
  code: string;
  entry: Entry | null;
  /** Codes of this table that one flash more or less would have made. Only for a code without an entry. */
  nearMisses: Entry[];
  /** The same number on other years or engines: the trap of the wrong table. */
  elsewhere: Entry[];
}

/** Looks codes up; those that must be mended before all others come first, then faults, then status codes. */
export function meaningsOf(
  pack: Pack,
  v: VehicleFacts,
  system: string,
  dialect: Dialect | null,
  codes: readonly string[],
): Meaning[] {
  const entries = new Map(entriesFor(pack, v, system).map((e) => [e.code, e]));
  const rank = (m: Meaning) => (m.entry?.first ? 0 : m.entry?.kind === "status" ? 2 : 1);
  return codes
    .map((code): Meaning => {
      const entry = entries.get(code) ?? null;
      const nearMisses = entry || !dialect ? [] : nearBy(dialect, code).flatMap((c) => entries.get(c) ?? []);
      return { code, entry, nearMisses, elsewhere: otherMeanings(pack, v, system, code) };
    })
    .sort((a, b) => rank(a) - rank(b));
}
