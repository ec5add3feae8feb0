import { FindPage } from "~/features/find/FindPage";
import { Main, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/find";

export const meta: Route.MetaFunction = () => [{ title: "Find a way in · Klinko" }];

export default function Find() {
  return (
    <>
      <TopBar />
      <Main id="work">
        <FindPage />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
