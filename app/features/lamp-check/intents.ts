import { withLampCheck } from "@core/record/job";
import { lampSeenRule, othersSeenRule, unitsSeenRule } from "@core/record/types";
import { object, optional, text } from "@core/schema/rule";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const lampCheckIntents = {
  "lamp-check": intent(
    object({
      seen: lampSeenRule,
      others: othersSeenRule,
      units: optional(unitsSeenRule),
      headline: optional(text(4000)),
    }),
    ({ seen, others, units, headline }, { id, now }) =>
      changeJob(id, (j) => withLampCheck(j, seen, others, now, units, headline)),
  ),
};
export type LampCheckIntents = typeof lampCheckIntents;
