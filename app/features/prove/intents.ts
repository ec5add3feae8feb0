import { countedOf, countedText } from "@core/clearing/counting";
import { wipes } from "@core/clearing/plan";
import { rideToldRule, type Job } from "@core/record/types";
import {
  abandonCount,
  countAnew,
  endCount,
  note,
  withoutDone,
  withoutStart,
  withRelearned,
  withRides,
  withStart,
} from "@core/record/job";
import { flag, list, object, optional, time, whole, word } from "@core/schema/rule";
import { changeJob } from "~/store/records";
import { dropFixes } from "~/store/ride-record";
import { intent } from "~/store/use-job";

/** A second tap this soon is of the same finger, however slow the page was to show the first: no engine starts twice so fast, ms. */
const SAME_PRESS_MS = 900;
const isSamePress = ({ counting }: Job, now: string): boolean => {
  const last = counting?.starts.at(-1);
  return last !== undefined && Date.parse(now) - Date.parse(last) < SAME_PRESS_MS;
};

export const proveIntents = {
  /** @param recorded they are what this phone recorded: once they are noted it is not needed any more, and never before */
  rides: intent(
    object({ rides: list(rideToldRule, { min: 1, max: 100 }), recorded: optional(flag) }),
    async ({ rides, recorded }, { id, now }) => {
      await changeJob(id, (j) => withRides(j, rides, now));
      if (recorded) await dropFixes(id);
    },
  ),
  "take-back": intent(object({ at: time }), ({ at }, { id, now }) =>
    changeJob(id, (j) => withoutDone(j, "rides", at, now)),
  ),
  /** `seen`: how many stood there when it was pressed, so that pressed twice it is one. */
  start: intent(object({ seen: whole(0) }), ({ seen }, { id, now }) =>
    changeJob(id, (j) => (j.counting?.starts.length === seen && !isSamePress(j, now) ? withStart(j, now) : j)),
  ),
  "no-start": intent(object({}), (_, { id }) => changeJob(id, withoutStart)),
  "count-anew": intent(object({}), (_, { id, now }) => changeJob(id, (j) => countAnew(j, now))),
  "count-no-more": intent(object({}), (_, { id, now }) => changeJob(id, (j) => abandonCount(j, now))),
  counted: intent(object({ early: flag }), async ({ early }, { id, now, data }) => {
    const { pack } = await data();
    await changeJob(id, (j) => {
      const way = pack.clears.find((w) => w.id === j.counting?.way);
      const counted = countedOf(j);
      if (!way || !counted || (counted.have < counted.need && !early)) return j;
      const past = early ? note(j, "prove", "All the same: noted as wiped before the count was full.", now) : j;
      return endCount(past, { system: way.system, wiped: wipes(pack, way) }, way.title, countedText(counted), now);
    });
  }),
  relearned: intent(object({ way: word(120), what: word(120) }), async ({ way, what }, { id, now, data }) => {
    const { pack } = await data();
    const of = pack.clears.find((w) => w.id === way)?.relearn?.find((r) => r.id === what);
    await changeJob(id, (j) => {
      const from = j.stepTimer?.step === `relearn ${what}` ? Date.parse(j.stepTimer.startedAt) : NaN;
      const seconds = Math.round((Date.parse(now) - from) / 1000);
      // Too short a time is no learning, whatever is pressed.
      return of && seconds >= of.seconds ? withRelearned(j, { way, what, seconds }, of.title, now) : j;
    });
  }),
};
export type ProveIntents = typeof proveIntents;
