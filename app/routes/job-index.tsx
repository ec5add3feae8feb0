import { redirect } from "react-router";
import { askedOf, nextStep } from "@core/job/gates";
import { readJobData } from "~/store/job-data";
import { Soft } from "~/ui/bits";
import type { Route } from "./+types/job-index";

/** A job opens where it stands. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { job, readings, access, systems } = await readJobData(params.jobId);
  throw redirect(`/jobs/${job.id}/${nextStep(job, readings, askedOf(access, systems))}`);
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Soft>Opening the job …</Soft>;
}

export default function JobIndex() {
  return null;
}
