import { redirect } from "react-router";
import { wipes } from "@core/clearing/plan";
import { wasCleared } from "@core/job/epochs";
import { lower } from "@core/job/say";
import { dayRule } from "@core/record/types";
import { abandonClear, beginClear, endClear } from "@core/record/job";
import { list, nullable, object, oneOf, optional, pattern, text, word } from "@core/schema/rule";
import { jobPath } from "~/store/paths";
import { changeJob, changeVehicle } from "~/store/records";
import { intent } from "~/store/use-job";

export const clearIntents = {
  radio: intent(
    object({ radio: oneOf("none", "code-known", "code-unknown", "not-asked") }),
    async ({ radio }, { data }) => {
      await changeVehicle((await data()).vehicle.id, (v) => ({ ...v, radio }));
    },
  ),
  inspection: intent(object({ on: nullable(dayRule) }), async ({ on }, { data }) => {
    await changeVehicle((await data()).vehicle.id, ({ inspection: _, ...v }) => (on ? { ...v, inspection: on } : v));
  }),
  begin: intent(
    object({ way: word(120), despite: list(text(400), { max: 10 }) }),
    async ({ way, despite }, { id, now, data }) => {
      const title = (await data()).pack.clears.find((c) => c.id === way)?.title ?? way;
      await changeJob(id, (j) => beginClear(j, way, title, now, despite));
    },
  ),
  end: intent(object({ code: optional(pattern(/^\d{1,4}$/)) }), async ({ code }, { id, now, data }) => {
    const { pack, access } = await data();
    await changeJob(id, (j) => {
      const way = pack.clears.find((c) => c.id === j.clearing?.way);
      const wiped: { system: string; wiped?: string[] } = way
        ? { system: way.system, wiped: wipes(pack, way) }
        : { system: j.system };
      const units = pack.systems.filter((s) => wiped.wiped?.includes(s.id)).map((s) => lower(s.name));
      const name = `${way?.title ?? ""}${way?.each && code ? `, code ${code}` : ""} (${units.join(", ") || j.system})`;
      return endClear(j, { ...wiped, ...(code !== undefined && { code }) }, name, now);
    });
    // Where each code is wiped alone, the next one comes first.
    return code === undefined || wasCleared(await data(), access.memory) ? redirect(jobPath(id, "prove")) : null;
  }),
  abandon: intent(object({}), (_, { id, now }) => changeJob(id, (j) => abandonClear(j, now))),
};
export type ClearIntents = typeof clearIntents;
