import { CodesPage } from "~/features/codes/CodesPage";
import { allPacks, packsReady } from "~/store/packs";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/codes";

export const meta: Route.MetaFunction = () => [{ title: "Find a code · Klinko" }];

export async function clientLoader() {
  await packsReady();
  return { packs: allPacks() };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the codes" />;
}

export default function Codes({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <CodesPage packs={loaderData.packs} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
