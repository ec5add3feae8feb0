import { clearness, type WatchedLamp } from "./lamp";

/** What keeps a lamp from being seen well, the first that applies. */
export type Advice = "elsewhere" | "hold-still" | "shade" | "closer" | "weak" | null;

/** Lit and dark lie so many deviations apart in what can be read well. */
const APART = 4.5;
/** Movement from picture to picture that a hand can avoid, in raster pixels. */
const TREMBLING = 6;
/** Brightness of the surroundings from which on glare drowns a lamp, 0 to 255. */
const GLARE = 190;
/** A lamp of fewer cells than this is far away. */
const SMALL = 3;
/** A lamp that has not been told from its surroundings in so many pictures hardly shows. */
const PICTURES = 300;

/** What a person should do so that the lamp is seen; null where it is seen well enough. */
export function adviceOf(lamp: WatchedLamp | null, seen: { lost: boolean; trembling: number }): Advice {
  if (seen.lost) return "elsewhere";
  if (seen.trembling > TREMBLING) return "hold-still";
  // Too early to tell.
  if (!lamp || (!lamp.discriminant && lamp.t.length < PICTURES)) return null;
  const { apart, around } = clearness(lamp);
  if (apart >= APART) return null;
  if (around > GLARE) return "shade";
  return lamp.patch.cells.length < SMALL ? "closer" : "weak";
}
