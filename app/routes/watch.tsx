import { redirect } from "react-router";
import { lockOf } from "@core/job/gates";
import { FreeWatch } from "~/features/read/FreeWatch";
import { keptLamps } from "~/store/lamps";
import { openJobs, readLoose, takeIn } from "~/store/loose";
import { readGarage } from "~/store/records";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/watch";
import { jobPath } from "~/store/paths";

export const meta: Route.MetaFunction = () => [{ title: "Watch a lamp · Klinko" }];

export async function clientLoader() {
  const [stored, lamps, { vehicles, faces }] = await Promise.all([readLoose(), keptLamps(), readGarage()]);
  return { stored, lamps, vehicles, jobs: [...faces].flatMap(([vehicle, { open }]) => openJobs(vehicle, open)) };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the watch" />;
}

/** Takes the reading into a job. */
export async function clientAction({ request }: Route.ClientActionArgs) {
  const { vehicle, system } = (await request.json()) as { vehicle: string; system: string };
  const taken = await takeIn(vehicle, system).catch((error: unknown) => {
    if (error instanceof Response) throw error;
    return null;
  });
  if (!taken) return { failed: true };
  const { job, opened } = taken;
  // Its unit must pass the lamp check before anything is read of it.
  const step = opened ? "story" : lockOf(job, [], "read") ? "lamp-check" : "read";
  return redirect(jobPath(job.id, step));
}

export default function WatchLamp({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <FreeWatch {...loaderData} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
