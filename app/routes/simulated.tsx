import { DEMO_FAULTS } from "@packs/demo-faults";
import { packById } from "~/store/packs";
import { hiddenFaults, seedOf } from "@core/simulated/hidden-faults";
import { parked, simulate, type Simulated } from "@core/simulated/state";
import { SimulatedVehicle } from "~/features/simulated/SimulatedVehicle";
import { readVehicle } from "~/store/opening";
import { seedDemo } from "~/store/demo";
import { readValue } from "~/store/values";
import { vehicleName } from "~/store/vehicle-name";
import { Opening } from "~/ui/Frame";
import type { Route } from "./+types/simulated";
import { idIn } from "~/store/paths";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  if (document.documentElement.dataset.demo === "yes") await seedDemo();
  const vehicle = await readVehicle(idIn(params.vehicleId));
  const pack = packById(vehicle.pack);
  if (!pack)
    throw new Response(`This vehicle needs the pack "${vehicle.pack}", which is not in this Klinko.`, { status: 409 });
  const seed = seedOf(vehicle.id);
  // The state is the page's own and holds no record of a person: what does not look like one is made anew.
  const stored = (await readValue(`simulated/${vehicle.id}`)) as Simulated | null;
  const state =
    stored && Array.isArray(stored.faults) && Array.isArray(stored.keyTurns) && typeof stored.memory === "object"
      ? stored
      : simulate(DEMO_FAULTS[vehicle.id] ?? hiddenFaults(pack, vehicle, seed), 0.92 + (seed % 17) / 100);
  return {
    vehicle,
    pack,
    name: vehicleName(vehicle),
    state: parked(state),
  };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the simulated vehicle" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Simulated vehicle · Klinko" }];

export default function SimulatedPage({ loaderData }: Route.ComponentProps) {
  return <SimulatedVehicle {...loaderData} />;
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
