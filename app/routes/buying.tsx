import { BuyingPage } from "~/features/buying/BuyingPage";
import { TopBar } from "~/ui/Frame";
import type { Route } from "./+types/buying";

export const meta: Route.MetaFunction = () => [{ title: "A vehicle to buy · Klinko" }];

export default function Buying() {
  return (
    <>
      <div data-screen>
        <TopBar />
      </div>
      <BuyingPage />
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
