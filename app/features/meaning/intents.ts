import { redirect } from "react-router";
import { stepDone } from "@core/record/job";
import { object, text, word } from "@core/schema/rule";
import { writeCodeNote } from "~/store/code-notes";
import { jobPath } from "~/store/paths";
import { changeJob } from "~/store/records";
import { intent } from "~/store/use-job";

export const meaningIntents = {
  note: intent(object({ key: word(200), text: text(1000) }), ({ key, text: said }) => writeCodeNote(key, said)),
  meaning: intent(object({}), async (_, { id }) => {
    await changeJob(id, (j) => stepDone(j, "meaning"));
    return redirect(jobPath(id, "checks"));
  }),
};
export type MeaningIntents = typeof meaningIntents;
