import { anythingLog } from "../explain/anything";
import { firstOf } from "../seen/evidence";
import type { Marks } from "./marks";

/** Log probability of all watches, or of their first marks, if there is no list in them. */
export function nothing(taken: readonly (readonly Marks[])[], most = Infinity): number {
  return taken.reduce(
    (sum, ways) => sum + (ways.length ? Math.max(...ways.map(({ track }) => anythingLog(firstOf(track, most)))) : 0),
    0,
  );
}
