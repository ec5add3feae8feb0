import type { Vehicle } from "@core/record/types";
import { ownModelName } from "./own-packs";
import { MODELS } from "@packs/models";

/** What a vehicle is called: its model and engine, or what is recorded where no pack knows the model. */
export function vehicleName({ pack, variant, engine }: Vehicle): string {
  const known = Object.hasOwn(MODELS, pack) && Object.hasOwn(MODELS[pack], variant);
  const name = known ? MODELS[pack][variant] : ownModelName(pack, variant);
  return name ? `${name} ${engine}` : `${pack} ${variant} ${engine}`;
}
