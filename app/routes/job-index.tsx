import { redirect } from "react-router";
import { askedOf, nextStep } from "@core/job/gates";
import { readJobData } from "~/store/job-data";
import { Soft } from "~/ui/bits";
import type { Route } from "./+types/job-index";
import { idIn, jobPath } from "~/store/paths";

/** A job opens where it stands. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { job, readings, access, systems } = await readJobData(idIn(params.jobId));
  throw redirect(jobPath(job.id, nextStep(job, readings, askedOf(access, systems))));
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Soft>Opening the job …</Soft>;
}

export default function JobIndex() {
  return null;
}
