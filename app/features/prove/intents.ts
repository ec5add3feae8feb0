import { rideToldRule } from "@core/record/types";
import { withoutDone, withRides } from "@core/record/job";
import { list, object, time } from "@core/schema/rule";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const proveIntents = {
  rides: intent(object({ rides: list(rideToldRule, { min: 1, max: 100 }) }), ({ rides }, { id, now }) =>
    changeJob(id, (j) => withRides(j, rides, now)),
  ),
  "take-back": intent(object({ at: time }), ({ at }, { id, now }) =>
    changeJob(id, (j) => withoutDone(j, "rides", at, now)),
  ),
};
export type ProveIntents = typeof proveIntents;
