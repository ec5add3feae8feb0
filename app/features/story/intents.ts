import { redirect } from "react-router";
import { mergeStory, note, withStory } from "@core/record/job";
import { LIMITS, storyRule } from "@core/record/types";
import { flag, list, object, pattern, word } from "@core/schema/rule";
import { StoreProblem } from "~/store/box";
import { jobPath } from "~/store/paths";
import { changeJob, changeVehicle } from "~/store/records";
import { intent } from "~/store/use-job";
import { dropDraft } from "~/store/drafts";

const code = pattern(/^\d{1,4}$/);

export const storyIntents = {
  /** `base`: what the form began with. */
  story: intent(object({ story: storyRule, base: storyRule, handOver: flag }), async (what, { id, now }) => {
    await changeJob(id, (j) => {
      const { story, both } = mergeStory(what.base, j.story, what.story);
      if (both.length)
        throw new StoreProblem("refused", `Not saved yet: another tab has changed ${both.join(" and ")} as well. Send it again, and what stands here counts.`); // prettier-ignore
      return withStory(j, story, what.handOver, now);
    });
    await dropDraft(`${id}/story`);
    return redirect(jobPath(id, "way-in"));
  }),
  change: intent(
    object({ text: word(200), codes: list(code, { max: LIMITS.codes }) }),
    async ({ text, codes }, { id, now, data }) => {
      await changeVehicle((await data()).vehicle.id, (v) => ({ ...v, changes: [...v.changes, { text, codes }] }));
      await changeJob(id, (j) => note(j, "story", `Changed on the vehicle: ${text}.`, now));
    },
  ),
};
export type StoryIntents = typeof storyIntents;
