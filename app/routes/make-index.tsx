import { redirect } from "react-router";
import { missingIn } from "@core/pack/make/missing";
import { MakeAbout } from "~/features/makes/MakeAbout";
import { packById, packsReady, ships } from "~/store/packs";
import { idIn, makePath } from "~/store/paths";
import type { Route } from "./+types/make-index";

/** One's own opens where something is missing; one that ships shows what it holds. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  await packsReady();
  const pack = packById(idIn(params.packId));
  if (!pack || ships(pack.id)) return null;
  const [first] = missingIn(pack);
  throw redirect(makePath(pack.id, !first?.must ? "hand-over" : first.part === "proving" ? "clears" : first.part));
}
clientLoader.hydrate = true as const;

export default function MakeIndex() {
  return <MakeAbout />;
}
