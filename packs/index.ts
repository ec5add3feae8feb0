import type { Pack } from "@core/pack/pack";
import calverra from "./calverra.json";
import norrvik from "./norrvik.json";

/** The packs that ship with Klinko. `packs.test.ts` holds each against the schema, so they are trusted here. */
export const PACKS = [norrvik, calverra] as unknown as readonly Pack[];

export function packById(id: string): Pack | undefined {
  return PACKS.find((p) => p.id === id);
}
