import { useOutletContext, useParams } from "react-router";
import type { StepId } from "@core/record/types";
import { nowIso } from "./clock";
import { actionFor, intentFor, useSending, type Intents } from "./intents";
import { readJobData, type JobData } from "./job-data";
import { idIn, jobPath } from "./paths";

export type { Trouble } from "./intents";

export const useJob = () => useOutletContext<JobData>();

/** What is known where an intent is carried out. */
export interface Doing {
  id: string;
  now: string;
  /** The job with all that belongs to it, where that is needed. */
  data: () => Promise<JobData>;
}

/** Something that can be done to a job. */
export const intent = intentFor<Doing>();

/** Carries out what a page of a job asks for. */
export const jobAction = actionFor(({ jobId }: { jobId: string }): Doing => {
  const id = idIn(jobId);
  return { id, now: nowIso(), data: () => readJobData(id) };
});

/**
 * Sends what is to be done to the action of a step, or of the job as a whole.
 * @param done called when it is stored, and not where it failed
 */
export function useIntents<I extends Intents<Doing>>(step: StepId | null, done?: () => void) {
  const { jobId } = useParams();
  return useSending<I>(jobPath(idIn(jobId!), step ?? undefined), done);
}
