import { HandoverSheet } from "~/features/handover/HandoverSheet";
import { readJobData } from "~/store/job-data";
import { idIn } from "~/store/paths";
import { Opening } from "~/ui/Frame";
import type { Route } from "./+types/handover";

export async function clientLoader({ params, request }: Route.ClientLoaderArgs) {
  const customer = new URL(request.url).searchParams.get("for") === "customer";
  return { data: await readJobData(idIn(params.jobId)), who: customer ? ("customer" as const) : ("workshop" as const) };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the sheet" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.data.vehicle.plate}: handover · Klinko` : "Handover · Klinko" },
];

export default function HandoverPage({ loaderData }: Route.ComponentProps) {
  return <HandoverSheet {...loaderData} />;
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
