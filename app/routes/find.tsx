import { FindPage } from "~/features/find/FindPage";
import { allPacks, packsReady } from "~/store/packs";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/find";

export const meta: Route.MetaFunction = () => [{ title: "Find a way in · Klinko" }];

export async function clientLoader() {
  await packsReady();
  return { packs: allPacks() };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the makes" />;
}

export default function Find({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <FindPage packs={loaderData.packs} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
