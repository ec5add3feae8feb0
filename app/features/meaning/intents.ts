import { redirect } from "react-router";
import { note, stepDone } from "@core/record/job";
import { object, pattern, text, word } from "@core/schema/rule";
import { writeCodeNote } from "~/store/code-notes";
import { jobPath } from "~/store/paths";
import { changeJob, changeVehicle } from "~/store/records";
import { intent } from "~/store/use-job";

export const meaningIntents = {
  expect: intent(
    object({ change: word(200), code: pattern(/^\d{1,4}$/) }),
    async ({ change, code }, { id, now, data }) => {
      await changeVehicle((await data()).vehicle.id, (v) => ({
        ...v,
        changes: [...v.changes, { text: change, codes: [code] }],
      }));
      await changeJob(id, (j) => note(j, "meaning", `Changed on the vehicle: ${change}. ${code} is expected.`, now));
    },
  ),
  note: intent(object({ key: word(200), text: text(1000) }), ({ key, text: said }) => writeCodeNote(key, said)),
  meaning: intent(object({}), async (_, { id }) => {
    await changeJob(id, (j) => stepDone(j, "meaning"));
    return redirect(jobPath(id, "checks"));
  }),
};
export type MeaningIntents = typeof meaningIntents;
