import { redirect } from "react-router";
import { note, stepDone } from "@core/record/job";
import { flag, object, text, whole, word } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const hookUpIntents = {
  "hook-up": intent(object({ step: whole(0, 100), done: flag }), async ({ step, done }, { id, now }) => {
    await changeJob(id, (j) => {
      const next = { ...j, hookUpStep: step, stepTimer: null };
      return done ? stepDone(note(next, "hook-up", "Hooked up, as the steps say.", now), "hook-up") : next;
    });
    return done ? redirect(jobPath(id, "read")) : null;
  }),
  "rule-out": intent(
    object({ way: word(120), cause: word(120), text: text(4000), out: flag }),
    ({ way, cause, text, out }, { id, now }) =>
      changeJob(id, (j) => {
        const ruled = new Set(j.ruledOut?.[way]);
        if (out) ruled.add(cause);
        else ruled.delete(cause);
        const next = { ...j, ruledOut: { ...j.ruledOut, [way]: [...ruled] } };
        return out ? note(next, "hook-up", `Looked at, and not it: ${text}`, now) : next;
      }),
  ),
};
export type HookUpIntents = typeof hookUpIntents;
