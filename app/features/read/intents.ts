import { lower } from "@core/job/say";
import { withWithdrawn } from "@core/record/job";
import { object, word } from "@core/schema/rule";
import { shortTime } from "~/store/format";
import { writeReading } from "~/store/records";
import { intent } from "~/store/use-job";

export const readIntents = {
  withdraw: intent(object({ reading: word(120) }), async (what, { now, data }) => {
    const { readings, systems } = await data();
    const reading = readings.find((r) => r.id === what.reading);
    if (!reading || reading.withdrawnAt) return;
    const name = systems.find((s) => s.system === reading.system)?.name ?? reading.system;
    await writeReading({ ...reading, withdrawnAt: now }, (j) =>
      withWithdrawn(j, `${lower(name)} of ${shortTime(reading.startedAt)}`, now),
    );
  }),
};
export type ReadIntents = typeof readIntents;
