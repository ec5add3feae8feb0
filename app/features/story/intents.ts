import { redirect } from "react-router";
import { mergeStory, note, withStory } from "@core/record/job";
import { LIMITS, toldRule } from "@core/record/types";
import { flag, list, object, pattern, word } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob, changeVehicle } from "~/store/records";
import { intent, type Trouble } from "~/store/use-job";
import { dropDraft } from "~/store/drafts";

const code = pattern(/^\d{1,4}$/);

export const storyIntents = {
  /** `base`: what the form began with; `sure`: what both have changed was told of, and what stands here counts. */
  story: intent(object({ mine: toldRule, base: toldRule, sure: flag }), async ({ mine, base, sure }, { id, now }) => {
    let both: string[] = [];
    await changeJob(id, (j) => {
      const merged = mergeStory(base, j, mine);
      both = sure ? [] : merged.both;
      return both.length ? j : withStory(j, merged.story, merged.handOver, now);
    });
    if (both.length)
      return {
        problem: `Not saved yet: another tab has changed ${both.join(" and ")} as well. Send it again, and what stands here counts.`,
        ask: true,
      } satisfies Trouble;
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
