import { useEffect, useRef } from "react";
import { useFetcher, useOutletContext, useParams } from "react-router";
import type { StepId } from "@core/record/types";
import { holds, type Of, type Rule } from "@core/schema/rule";
import { StoreProblem } from "./box";
import { nowIso } from "./clock";
import { readJobData, type JobData } from "./job-data";
import { idIn, jobPath } from "./paths";

export const useJob = () => useOutletContext<JobData>();

/** What is known where an intent is carried out. */
export interface Doing {
  id: string;
  now: string;
  /** The job with all that belongs to it, where that is needed. */
  data: () => Promise<JobData>;
}

/** Something that can be done to a job: what it needs, and what it does. */
interface Intent<R extends Rule<object>> {
  needs: R;
  run: (what: Of<R>, doing: Doing) => Promise<unknown>;
}
export const intent = <R extends Rule<object>>(needs: R, run: Intent<R>["run"]): Intent<R> => ({ needs, run });

// What an intent needs differs from one to the next: the table holds them all.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Intents = Record<string, Intent<any>>;
type Sent<I extends Intents> = { [K in keyof I & string]: { intent: K } & Of<I[K]["needs"]> }[keyof I & string];

/** What went wrong, in words that stand beside what was done. */
export interface Trouble {
  problem: string;
  /** It may be asked once more, and is done then. */
  ask?: true;
}

/** Carries out what a page of a job asks for. What cannot be stored comes back as words; nothing that was typed is lost. */
export const jobAction =
  (intents: Intents) =>
  async ({ request, params }: { request: Request; params: { jobId: string } }): Promise<unknown> => {
    const { intent: name, ...given } = (await request.json()) as { intent?: unknown };
    if (typeof name !== "string" || !Object.hasOwn(intents, name))
      throw new Response("This page does not know what it was asked to do.", { status: 400 });
    const own = intents[name] as Intent<Rule<object>>;
    const held = holds(own.needs, given);
    if ("faults" in held) return { problem: `Not saved: ${held.faults[0].message}.` } satisfies Trouble;
    const id = idIn(params.jobId);
    try {
      return (await own.run(held.value, { id, now: nowIso(), data: () => readJobData(id) })) ?? null;
    } catch (error) {
      if (error instanceof StoreProblem) return { problem: error.message } satisfies Trouble;
      throw error;
    }
  };

/**
 * Sends what is to be done to the action of a step, or of the job as a whole; the pages follow when it is stored.
 * @param done called when it is, and not where it failed
 */
export function useIntents<I extends Intents>(step: StepId | null, done?: () => void) {
  const { jobId } = useParams();
  const fetcher = useFetcher<Trouble | null>();
  const { state, data } = fetcher;
  const problem = state === "idle" ? (data?.problem ?? null) : null;
  const asked = useRef(false);
  useEffect(() => {
    if (state !== "idle") asked.current = true;
    else if (asked.current) {
      asked.current = false;
      if (!problem) done?.();
    }
  });
  return {
    send: (what: Sent<I>): void =>
      void fetcher.submit(what, {
        method: "post",
        action: jobPath(idIn(jobId!), step ?? undefined),
        encType: "application/json",
      }),
    busy: state !== "idle",
    problem,
    /** What was asked last is done if it is asked once more. */
    asks: problem !== null && data?.ask === true,
  };
}
