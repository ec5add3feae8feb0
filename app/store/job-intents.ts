import { endText } from "@core/job/end";
import { closeJob, note, reopenJob, withCorrection } from "@core/record/job";
import { dayRule, drivesRule, JOB_ENDS, STEP_IDS } from "@core/record/types";
import { withTold } from "@core/record/vehicle";
import { list, nullable, object, oneOf, optional, word } from "@core/schema/rule";
import { redirect } from "react-router";
import { dropFilms } from "./films";
import { dropPhotos } from "./photos";
import { jobPath, vehiclePath } from "./paths";
import { changeJob, changeVehicle, removeJob } from "./records";
import { intent } from "./use-job";
import { dropDraft } from "./drafts";

const name = word(120);

/** What can be done to a job from any of its pages. */
export const jobIntents = {
  /** @param to the step that it is chosen for, where that is another one */
  system: intent(object({ system: name, to: optional(oneOf(...STEP_IDS)) }), async ({ system, to }, { id }) => {
    await changeJob(id, (j) => ({ ...j, system, hookUpStep: 0, stepTimer: null }));
    return to && redirect(jobPath(id, to));
  }),
  /** What the proof and the clear have to know of the vehicle; null takes it back. */
  vehicle: intent(
    object({ inspection: optional(nullable(dayRule)), drivesAWeek: optional(nullable(drivesRule)) }),
    async (told, { data }) => {
      await changeVehicle((await data()).vehicle.id, (v) => withTold(v, told));
    },
  ),
  "step-timer": intent(object({ step: nullable(name) }), ({ step }, { id, now }) =>
    changeJob(id, (j) => ({ ...j, stepTimer: step ? { step, startedAt: now } : null })),
  ),
  note: intent(
    object({ step: oneOf(...STEP_IDS), text: word(1000), photos: optional(list(name, { max: 12 })) }),
    ({ step, text, photos }, { id, now }) => changeJob(id, (j) => note(j, step, text, now, "person", photos)),
  ),
  /** A line of the person put right, as it was seen. */
  correct: intent(object({ at: word(40), was: word(4000), text: word(1000) }), ({ at, was, text }, { id, now }) =>
    changeJob(id, (j) => withCorrection(j, { at, text: was }, text, now)),
  ),
  close: intent(object({ end: oneOf(...JOB_ENDS) }), async ({ end }, { id, now, data }) => {
    const text = endText(await data(), end);
    await changeJob(id, (j) => closeJob(j, end, text, now));
  }),
  reopen: intent(object({}), (_, { id, now }) => changeJob(id, (j) => reopenJob(j, now))),
  delete: intent(object({}), async (_, { id, data }) => {
    const { job, vehicle } = await data();
    for (const reading of await removeJob(job)) await dropFilms({ reading });
    await dropPhotos({ job: id });
    await dropDraft(`${id}/story`);
    return redirect(vehiclePath(vehicle.id));
  }),
};
export type JobIntents = typeof jobIntents;
