import { redirect } from "react-router";
import { nextStep } from "@core/record/job";
import { readJobData } from "~/store/job-data";
import { Soft } from "~/ui/bits";
import type { Route } from "./+types/job-index";

/** A job opens where it stands. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { job, readings } = await readJobData(params.jobId);
  throw redirect(`/jobs/${job.id}/${nextStep(job, readings)}`);
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Soft>Opening the job …</Soft>;
}

export default function JobIndex() {
  return null;
}
