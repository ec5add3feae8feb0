import type { Pack } from "@core/pack/pack";
import aldermoor from "./aldermoor.json";
import calverra from "./calverra.json";
import dunmarrow from "./dunmarrow.json";
import hollinPike from "./hollin-pike.json";
import lindqvar from "./lindqvar.json";
import merrow from "./merrow.json";
import norrvik from "./norrvik.json";
import osaril from "./osaril.json";
import pellworth from "./pellworth.json";
import tarvello from "./tarvello.json";

/** The packs that ship with Klinko. `packs.test.ts` holds each against the schema, so they are trusted here. */
export const PACKS = [
  aldermoor,
  calverra,
  dunmarrow,
  hollinPike,
  lindqvar,
  merrow,
  norrvik,
  osaril,
  pellworth,
  tarvello,
] as unknown as readonly Pack[];

export function packById(id: string): Pack | undefined {
  return PACKS.find((p) => p.id === id);
}
