import { redirect } from "react-router";
import { toCount } from "@core/clearing/counting";
import { wipes } from "@core/clearing/plan";
import { wasCleared } from "@core/job/epochs";
import { lower } from "@core/job/say";
import { abandonClear, abandonCount, beginClear, beginCount, endClear } from "@core/record/job";
import { list, object, oneOf, optional, pattern, text, word } from "@core/schema/rule";
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
  immobiliser: intent(
    object({ immobiliser: oneOf("none", "keys-here", "keys-missing") }),
    async ({ immobiliser }, { data }) => {
      await changeVehicle((await data()).vehicle.id, (v) => ({ ...v, immobiliser }));
    },
  ),
  begin: intent(
    object({ way: word(120), despite: list(text(400), { max: 10 }) }),
    async ({ way, despite }, { id, now, data }) => {
      const known = (await data()).pack.clears.find((c) => c.id === way);
      const title = known?.title ?? way;
      const count = known && toCount(known);
      if (!count) return changeJob(id, (j) => beginClear(j, way, title, now, despite));
      await changeJob(id, (j) => beginCount(j, { way, ...count }, title, now, despite));
      return redirect(jobPath(id, "prove"));
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
      const done = endClear(j, { ...wiped, ...(code !== undefined && { code }) }, name, now);
      // What was to wipe itself is wiped already.
      const counted = pack.clears.find((c) => c.id === j.counting?.way);
      const moot = counted && code === undefined && wipes(pack, counted).every((m) => wiped.wiped?.includes(m));
      return moot ? abandonCount(done, now) : done;
    });
    // Where each code is wiped alone, the next one comes first.
    return code === undefined || wasCleared(await data(), access.memory) ? redirect(jobPath(id, "prove")) : null;
  }),
  abandon: intent(object({}), (_, { id, now }) => changeJob(id, (j) => abandonClear(j, now))),
};
export type ClearIntents = typeof clearIntents;
