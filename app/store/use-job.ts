import { useFetcher, useOutletContext, useParams } from "react-router";
import type { LampSeen, OthersSeen } from "@core/procedure/lamp-check";
import type { UnitSeen } from "@core/procedure/unit-check";
import type { JobEnd, StepId, Story, Vehicle } from "@core/record/types";
import type { JobData } from "./job-data";

/** What can be done to a job from its pages. */
export type JobIntent =
  | { intent: "story"; story: Story; handOver: boolean }
  | { intent: "way-in" }
  | { intent: "lamp-check"; seen: LampSeen; others: OthersSeen; units?: Record<string, UnitSeen>; headline?: string }
  | { intent: "system"; system: string }
  | { intent: "hook-up"; step: number; done: boolean }
  | { intent: "step-timer"; step: string | null }
  | { intent: "rule-out"; way: string; cause: string; text: string; out: boolean }
  | { intent: "note"; step: StepId; text: string }
  | { intent: "meaning" }
  | { intent: "change"; text: string; codes: string[] }
  | { intent: "radio"; radio: Vehicle["radio"] }
  | { intent: "clear-begin"; way: string }
  | { intent: "clear-end"; code?: string }
  | { intent: "clear-abandon" }
  | { intent: "withdraw"; reading: string }
  | { intent: "close"; end: JobEnd }
  | { intent: "reopen" }
  | { intent: "delete" };

export const useJob = () => useOutletContext<JobData>();

/** Sends an intent to the job's action; the page follows when it is stored. */
export function useJobAction(): { send: (intent: JobIntent) => void; busy: boolean } {
  const { jobId } = useParams();
  const fetcher = useFetcher();
  return {
    send: (intent) =>
      void fetcher.submit(intent as never, { method: "post", action: `/jobs/${jobId}`, encType: "application/json" }),
    busy: fetcher.state !== "idle",
  };
}
