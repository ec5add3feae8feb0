import { Outlet, redirect, useLocation } from "react-router";
import { lower } from "@core/job/say";
import styled from "styled-components";
import {
  abandonClear,
  beginClear,
  closeJob,
  endClear,
  note,
  reopenJob,
  stepDone,
  withLampCheck,
  withStory,
  withWithdrawn,
} from "@core/record/job";
import { wipes } from "@core/clearing/plan";
import { endText } from "@core/job/end";
import { wasCleared } from "@core/job/epochs";
import { STEP_IDS, type StepId } from "@core/record/types";
import { JobMenu } from "~/features/path/JobMenu";
import { JobPath } from "~/features/path/JobPath";
import { Notebook } from "~/features/notebook/Notebook";
import { nowIso } from "~/store/clock";
import { changeJob, changeVehicle, dropValue, remove, write } from "~/store/db";
import { dropFilms } from "~/store/films";
import { shortTime } from "~/store/format";
import { readJobData } from "~/store/job-data";
import type { JobIntent } from "~/store/use-job";
import { Plate } from "~/ui/bits";
import { Opening, TopBar } from "~/ui/Frame";
import { useFocusOn } from "~/ui/use-focus-on";
import { wide } from "~/ui/theme";
import type { Route } from "./+types/job";

export const clientLoader = ({ params }: Route.ClientLoaderArgs) => readJobData(params.jobId);
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the job" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.vehicle.plate}: ${loaderData.job.title} · Klinko` : "Job · Klinko" },
];

/** Every change of a job goes through here: read, change by a pure function of the core, write. */
export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const what = (await request.json()) as JobIntent;
  const id = params.jobId;
  const now = nowIso();
  const data = await readJobData(id);
  const { pack } = data;
  const title = (way: string) => pack.clears.find((c) => c.id === way)?.title ?? way;
  switch (what.intent) {
    case "story":
      await changeJob(id, (j) => withStory(j, what.story, what.handOver, now));
      await dropValue(`draft/${id}/story`);
      return redirect(`/jobs/${id}/way-in`);
    case "way-in":
      await changeJob(id, (j) => stepDone(j, "way-in"));
      return redirect(`/jobs/${id}/lamp-check`);
    case "lamp-check":
      return void (await changeJob(id, (j) =>
        withLampCheck(j, what.seen, what.others, now, what.units, what.headline),
      ));
    case "system":
      return void (await changeJob(id, (j) => ({ ...j, system: what.system, hookUpStep: 0, stepTimer: null })));
    case "hook-up":
      await changeJob(id, (j) => {
        const next = { ...j, hookUpStep: what.step, stepTimer: null };
        return what.done ? stepDone(note(next, "hook-up", "Hooked up, as the steps say.", now), "hook-up") : next;
      });
      return what.done ? redirect(`/jobs/${id}/read`) : null;
    case "step-timer":
      return void (await changeJob(id, (j) => ({
        ...j,
        stepTimer: what.step ? { step: what.step, startedAt: now } : null,
      })));
    case "rule-out":
      return void (await changeJob(id, (j) => {
        const out = new Set(j.ruledOut?.[what.way]);
        if (what.out) out.add(what.cause);
        else out.delete(what.cause);
        const next = { ...j, ruledOut: { ...j.ruledOut, [what.way]: [...out] } };
        return what.out ? note(next, "hook-up", `Looked at, and not it: ${what.text}`, now) : next;
      }));
    case "note":
      return void (await changeJob(id, (j) => note(j, what.step, what.text, now, "person")));
    case "meaning":
      await changeJob(id, (j) => stepDone(j, "meaning"));
      return redirect(`/jobs/${id}/clear`);
    case "radio": {
      const { vehicle } = data;
      return void (await changeVehicle(vehicle.id, (v) => ({ ...v, radio: what.radio })));
    }
    case "change": {
      const { vehicle } = data;
      const change = { text: what.text, codes: what.codes };
      await changeVehicle(vehicle.id, (v) => ({ ...v, changes: [...v.changes, change] }));
      return void (await changeJob(id, (j) => note(j, "story", `Changed on the vehicle: ${what.text}.`, now)));
    }
    case "clear-begin":
      return void (await changeJob(id, (j) => beginClear(j, what.way, title(what.way), now)));
    case "clear-end":
      await changeJob(id, (j) => {
        const way = pack.clears.find((c) => c.id === j.clearing?.way);
        const wiped: { system: string; wiped?: string[] } = way ? { system: way.system, wiped: wipes(pack, way) } : { system: j.system }; // prettier-ignore
        const units = pack.systems.filter((s) => wiped.wiped?.includes(s.id)).map((s) => lower(s.name));
        const name = `${way?.title ?? ""}${way?.each && what.code ? `, code ${what.code}` : ""} (${units.join(", ") || j.system})`;
        return endClear(j, { ...wiped, ...(what.code !== undefined && { code: what.code }) }, name, now);
      });
      // Where each code is wiped alone, the next one comes first.
      return what.code === undefined || wasCleared(await readJobData(id), data.access.memory)
        ? redirect(`/jobs/${id}/prove`)
        : null;
    case "clear-abandon":
      return void (await changeJob(id, (j) => abandonClear(j, now)));
    case "withdraw": {
      const reading = data.readings.find((r) => r.id === what.reading);
      if (!reading || reading.withdrawnAt) return null;
      await write({ ...reading, withdrawnAt: now });
      const name = data.systems.find((s) => s.system === reading.system)?.name ?? reading.system;
      return void (await changeJob(id, (j) =>
        withWithdrawn(j, `${lower(name)} of ${shortTime(reading.startedAt)}`, now),
      ));
    }
    case "close":
      return void (await changeJob(id, (j) => closeJob(j, what.end, endText(data, what.end), now)));
    case "delete":
      for (const r of data.readings) {
        await remove(r);
        await dropFilms({ reading: r.id });
      }
      await dropValue(`draft/${id}/story`);
      await remove(data.job);
      return redirect(`/vehicles/${data.vehicle.id}`);
    case "reopen":
      return void (await changeJob(id, (j) => reopenJob(j, now)));
  }
}

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
