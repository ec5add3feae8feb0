import type { Vehicle } from "@core/record/types";
import { MODELS } from "@packs/models";

/** What a vehicle is called: its model and engine, or what is recorded where no pack knows the model. */
export function vehicleName({ pack, variant, engine }: Vehicle): string {
  const known = Object.hasOwn(MODELS, pack) && Object.hasOwn(MODELS[pack], variant);
  return known ? `${MODELS[pack][variant]} ${engine}` : `${pack} ${variant} ${engine}`;
}
