import { MakesList, type KnownMake } from "~/features/makes/MakesList";
import { allPacks, lockedPacks, ships } from "~/store/packs";
import { readGarage } from "~/store/records";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/makes";

export const meta: Route.MetaFunction = () => [{ title: "Makes · Klinko" }];

export async function clientLoader() {
  const { vehicles } = await readGarage();
  const makes = allPacks().map((pack): KnownMake => ({
    pack,
    usedBy: vehicles.filter((v) => v.pack === pack.id).map((v) => v.plate),
  }));
  return {
    own: makes.filter((m) => !ships(m.pack.id)),
    shipped: makes.filter((m) => ships(m.pack.id)),
    locked: lockedPacks(),
  };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the makes" />;
}

export default function Makes({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <MakesList {...loaderData} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
