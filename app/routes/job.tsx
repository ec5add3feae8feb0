import { Outlet, useLocation } from "react-router";
import styled from "styled-components";
import { STEP_IDS, type StepId } from "@core/record/types";
import { JobMenu } from "~/features/path/JobMenu";
import { JobPath } from "~/features/path/JobPath";
import { Notebook } from "~/features/notebook/Notebook";
import { readJobData } from "~/store/job-data";
import { jobIntents } from "~/store/job-intents";
import { idIn } from "~/store/paths";
import { jobAction } from "~/store/use-job";
import { Plate } from "~/ui/bits";
import { Opening, TopBar } from "~/ui/Frame";
import { useFocusOn } from "~/ui/use-focus-on";
import { wide } from "~/ui/theme";
import type { Route } from "./+types/job";

export const clientLoader = ({ params }: Route.ClientLoaderArgs) => readJobData(idIn(params.jobId));
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the job" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.vehicle.plate}: ${loaderData.job.title} · Klinko` : "Job · Klinko" },
];

/** What any of the pages may ask for; the rest belongs to the steps. */
export const clientAction = jobAction(jobIntents);

const Title = styled.p`
  flex: 1 1 10ch;
  font-weight: 700;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Saved = styled.p`
  color: var(--ink-soft);
  display: none;
  ${wide} {
    display: block;
  }
`;

const Grid = styled.div`
  display: grid;
  gap: 14px;
  padding: 0 clamp(12px, 2vw, 24px) 24px;
  grid-template-columns: minmax(0, 1fr);
  ${wide} {
    grid-template-columns: 150px minmax(0, 1fr) 264px;
    gap: 14px 20px;
    padding-right: 0;
    padding-bottom: 0;
    min-height: calc(100dvh - 64px);
  }
`;

const Work = styled.main`
  display: grid;
  gap: 14px;
  align-content: start;
  padding-bottom: 24px;
  min-width: 0;
`;

function useStep(): StepId {
  const last = useLocation().pathname.split("/").at(-1);
  return STEP_IDS.find((s) => s === last) ?? "story";
}

export default function JobPage({ loaderData }: Route.ComponentProps) {
  const { job, vehicle } = loaderData;
  const step = useStep();
  useFocusOn(
    `${step} ${job.hookUpStep} ${job.clearing?.startedAt}`,
    step === "hook-up" ? "#work [data-step], #work h1" : "#work h1",
  );
  return (
    <>
      <TopBar nav={false}>
        <Plate>{vehicle.plate}</Plate>
        <Title>{job.title}</Title>
        <Saved>saved on this device</Saved>
        <JobMenu data={loaderData} />
      </TopBar>
      <Grid>
        <JobPath data={loaderData} at={step} />
        <Work id="work">
          <Outlet context={loaderData} />
        </Work>
        <Notebook job={job} step={step} />
      </Grid>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
