import { redirect } from "react-router";
import { note, withStory } from "@core/record/job";
import { LIMITS, storyRule } from "@core/record/types";
import { flag, list, object, pattern, word } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob, changeVehicle } from "~/store/records";
import { intent } from "~/store/use-job";
import { dropValue } from "~/store/values";

const code = pattern(/^\d{1,4}$/);

export const storyIntents = {
  story: intent(object({ story: storyRule, handOver: flag }), async ({ story, handOver }, { id, now }) => {
    await changeJob(id, (j) => withStory(j, story, handOver, now));
    await dropValue(`draft/${id}/story`);
    return redirect(jobPath(id, "way-in"));
  }),
  change: intent(
    object({ text: word(200), codes: list(code, { max: LIMITS.codes }) }),
    async ({ text, codes }, { id, now, data }) => {
      await changeVehicle(data.vehicle.id, (v) => ({ ...v, changes: [...v.changes, { text, codes }] }));
      await changeJob(id, (j) => note(j, "story", `Changed on the vehicle: ${text}.`, now));
    },
  ),
};
export type StoryIntents = typeof storyIntents;
