import { redirect } from "react-router";
import { LIMITS, repairToldRule } from "@core/record/types";
import { stepDone, withCheck, withoutDone, withRepair } from "@core/record/job";
import { object, oneOf, optional, text, time, word } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const checksIntents = {
  check: intent(
    object({
      check: word(LIMITS.name),
      title: word(LIMITS.text),
      outcome: oneOf("good", "bad"),
      measured: optional(text(LIMITS.text)),
    }),
    ({ measured, ...done }, { id, now }) =>
      changeJob(id, (j) => withCheck(j, { ...done, ...(measured && { measured }) }, now)),
  ),
  "take-back": intent(object({ what: oneOf("checks", "repairs"), at: time }), ({ what, at }, { id, now }) =>
    changeJob(id, (j) => withoutDone(j, what, at, now)),
  ),
  repair: intent(repairToldRule, (told, { id, now }) => changeJob(id, (j) => withRepair(j, told, now))),
  done: intent(object({}), async (_, { id }) => {
    await changeJob(id, (j) => stepDone(j, "checks"));
    return redirect(jobPath(id, "clear"));
  }),
};
export type ChecksIntents = typeof checksIntents;
