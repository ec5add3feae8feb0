import { isDue } from "@core/job/fleet";
import { recurringOf } from "@core/job/recurring";
import { AcrossPage } from "~/features/across/AcrossPage";
import { today } from "~/store/clock";
import { packById } from "~/store/packs";
import { readCards } from "~/store/records";
import { vehicleName } from "~/store/vehicle-name";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/across";

export async function clientLoader() {
  const garage = (await readCards()).filter(({ vehicle }) => !vehicle.archivedAt);
  const vehicles = new Map(garage.map(({ vehicle }) => [vehicle.id, vehicle]));
  const recurring = recurringOf(garage).map((r) => {
    const vehicle = vehicles.get(r.at[0].vehicle)!;
    const pack = packById(r.pack);
    return { ...r, model: vehicleName(vehicle), name: pack?.systems.find((s) => s.id === r.system)?.name ?? r.system };
  });
  return {
    recurring,
    due: [...vehicles.values()].filter((v) => isDue(v, today())),
    open: garage.flatMap(({ vehicle, jobs }) => jobs.filter((j) => !j.closedAt).map((job) => ({ vehicle, job }))),
    plates: new Map([...vehicles].map(([id, { plate }]) => [id, plate])),
  };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the garage" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Across the garage · Klinko" }];

export default function Across({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <AcrossPage {...loaderData} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
