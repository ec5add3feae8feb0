import { FreeWatch } from "~/features/read/FreeWatch";
import { Main, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/watch";

export const meta: Route.MetaFunction = () => [{ title: "Watch a lamp · Klinko" }];

export default function WatchLamp() {
  return (
    <>
      <TopBar />
      <Main id="work">
        <FreeWatch />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
