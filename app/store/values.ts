import { rulesReady } from "@core/schema/rule";
import { placed, ready, values } from "./boxes";
import { inTurn } from "./in-turn";

/**
 * Loose values beside the records: settings, drafts, simulated vehicles, the reading of a lamp without a vehicle. What is changed from
 * what is stored goes in turn, in all tabs; what is written whole goes at once, so that a page that is closed in the next moment has
 * written it.
 */
const turnOf = <T>(key: string, run: () => Promise<T>): Promise<T> =>
  inTurn(`value/${key}`, async () => {
    await ready();
    return run();
  });

export async function readValue(key: string): Promise<unknown> {
  await placed();
  const value = await values.get(key);
  // Who asked for it checks it.
  if (value !== null) await rulesReady();
  return value;
}

/** Changes a value where it is stored; changes asked at once are made one after the other. */
export const changeValue = <T>(key: string, to: (value: unknown) => T): Promise<T> =>
  turnOf(key, async () => {
    const value = to(await values.get(key));
    await values.set(key, value);
    return value;
  });

export const writeValue = (key: string, value: unknown): Promise<void> => values.set(key, value);
export const dropValue = (key: string): Promise<void> => turnOf(key, () => values.remove(key));
