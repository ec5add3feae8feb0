import { redirect } from "react-router";
import { stepDone } from "@core/record/job";
import { object } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const wayInIntents = {
  "way-in": intent(object({}), async (_, { id }) => {
    await changeJob(id, (j) => stepDone(j, "way-in"));
    return redirect(jobPath(id, "lamp-check"));
  }),
};
export type WayInIntents = typeof wayInIntents;
