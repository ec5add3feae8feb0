import { HookUpSheet } from "~/features/sheet/HookUpSheet";
import { readJobData } from "~/store/job-data";
import { Opening } from "~/ui/Frame";
import type { Route } from "./+types/sheet";
import { idIn } from "~/store/paths";

export const clientLoader = ({ params }: Route.ClientLoaderArgs) => readJobData(idIn(params.jobId));
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the sheet" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `Hook-up sheet ${loaderData.vehicle.plate} · Klinko` : "Hook-up sheet · Klinko" },
];

export default function SheetPage({ loaderData }: Route.ComponentProps) {
  return <HookUpSheet data={loaderData} />;
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
