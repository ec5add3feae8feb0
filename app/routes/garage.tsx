import type { ShouldRevalidateFunctionArgs } from "react-router";
import { FirstVehicle } from "~/features/garage/FirstVehicle";
import { GarageHead } from "~/features/garage/GarageHead";
import { StoreProblem } from "~/store/box";
import { isUntouched } from "~/store/untouched";
import { Main, Opening, TopBar } from "~/ui/Frame";
import { useFocusOn } from "~/ui/use-focus-on";
import type { Route } from "./+types/garage";

// A first visit finds nothing here, and is spared what shows, reads and changes records.
const page = () => import("~/features/garage/GaragePage");
const inUse = () => import("~/features/garage/in-use");

export async function clientLoader() {
  const demo = document.documentElement.dataset.demo === "yes";
  // What was here before comes from this device: it need not wait until it is known to be needed.
  const coming = demo || navigator.serviceWorker?.controller ? Promise.all([inUse(), page()]) : null;
  // Where it cannot be had, that is told by who waits for it.
  coming?.catch(() => undefined);
  if (!demo && (await isUntouched())) return null;
  const [{ readInUse }, { GaragePage }] = await (coming ?? Promise.all([inUse(), page()]));
  // With its page, which is there by then: nothing has to stand in for it.
  return { GaragePage, garage: await readInUse(demo) };
}
clientLoader.hydrate = true as const;

/** Only what is shown, and in which order, stands in the address: the records are the same. */
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs) {
  const turned = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return turned && !formMethod ? false : defaultShouldRevalidate;
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const intent = (await request.formData()).get("intent");
  try {
    await (await inUse()).carryOut(intent);
  } catch (error) {
    if (error instanceof StoreProblem) return { problem: error.message };
    throw error;
  }
  return null;
}

export function HydrateFallback() {
  return <Opening what="the garage" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Garage · Klinko" }];

export default function Garage({ loaderData }: Route.ComponentProps) {
  // Who asked for the demo fleet goes on from its heading.
  useFocusOn(loaderData ? "in use" : "untouched", "#work h1");
  return (
    <>
      <TopBar />
      <Main id="work">
        {loaderData ? (
          <loaderData.GaragePage {...loaderData.garage} />
        ) : (
          <>
            <GarageHead title="The garage is empty." across={false} />
            <FirstVehicle />
          </>
        )}
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
