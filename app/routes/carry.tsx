import { CarryPage } from "~/features/carry/CarryPage";
import { readJobData } from "~/store/job-data";
import { idIn } from "~/store/paths";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/carry";

export const clientLoader = ({ params }: Route.ClientLoaderArgs) => readJobData(idIn(params.jobId));
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the job" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `Carry over ${loaderData.vehicle.plate} · Klinko` : "Carry over · Klinko" },
];

export default function Carry({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <CarryPage data={loaderData} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
