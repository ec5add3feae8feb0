import { historyOf } from "@core/job/history";
import type { Job } from "@core/record/types";
import { HistoryPage } from "~/features/history/HistoryPage";
import { opened, readVehicle } from "~/store/opening";
import { packById } from "~/store/packs";
import { idIn } from "~/store/paths";
import { readCard, readingsOf } from "~/store/records";
import { readSettings } from "~/store/settings";
import { Opening } from "~/ui/Frame";
import type { Route } from "./+types/vehicle-history";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const vehicle = await readVehicle(idIn(params.vehicleId));
  const card = await readCard(vehicle.id);
  const jobs = await opened<Job>("job", card.jobs.map((j) => j.id)); // prettier-ignore
  const whole = await Promise.all(jobs.map(async (job) => ({ job, readings: await readingsOf(job) })));
  const { speed: unit } = await readSettings();
  return { vehicle, events: historyOf(vehicle, whole, packById(vehicle.pack)), unit };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the history" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData ? `${loaderData.vehicle.plate}: history` : "History"} · Klinko` },
];

export default function VehicleHistoryPage({ loaderData }: Route.ComponentProps) {
  return <HistoryPage {...loaderData} />;
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
