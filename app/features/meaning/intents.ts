import { redirect } from "react-router";
import { stepDone } from "@core/record/job";
import { object } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const meaningIntents = {
  meaning: intent(object({}), async (_, { id }) => {
    await changeJob(id, (j) => stepDone(j, "meaning"));
    return redirect(jobPath(id, "checks"));
  }),
};
export type MeaningIntents = typeof meaningIntents;
