import type { Doc } from "@core/record/types";
import { box, type Box } from "./box";
import { inTurn } from "./in-turn";

/** Where everything was kept before each kind had a store of its own, by `kind/id`. */
const OLD = "klinko";
export const DONE = "moved";

/**
 * Moves what is in the store of old into those of today, once, whichever tab comes first. A page that dies over it loses nothing:
 * what was moved is there twice until the end.
 */
export async function move(boxes: Record<Doc["kind"], Box>, values: Box): Promise<void> {
  if ((await values.get(DONE)) === 1) return;
  await inTurn("move", async () => {
    if ((await values.get(DONE)) === 1) return;
    const old = box(OLD);
    const found: [key: string, value: unknown][] = [];
    await old.each((value, key) => void found.push([key, value]));
    const gone: string[] = [];
    for (const [key, value] of found) {
      const slash = key.indexOf("/");
      const [kind, id] = [key.slice(0, slash), key.slice(slash + 1)];
      const { job } = (value ?? {}) as { job?: unknown };
      const [to, name] =
        kind === "value"
          ? [values, id]
          : kind === "vehicle" || kind === "job"
            ? [boxes[kind], id]
            : kind === "reading"
              ? [boxes.reading, typeof job === "string" ? `${job}/${id}` : id]
              : [null, ""];
      // What is of no known kind stays where it is.
      if (!to) continue;
      if ((await to.get(name)) === null) await to.set(name, value);
      gone.push(key);
    }
    await values.set(DONE, 1);
    for (const key of gone) await old.remove(key);
  });
}
