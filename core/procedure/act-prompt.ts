import type { Assigned } from "../flash/answer";
import type { Dialect } from "../flash/dialect/dialect";

/** What the person is to be told while the engine-running test asks for something. Times in ms from the start of watching. */
export type ActPrompt =
  /** The flashes for the cylinders are over: the one flash comes at about `at`. */
  | { kind: "soon"; at: number }
  /** It came at `since`: now. */
  | { kind: "now"; since: number; until: number }
  | null;

/** How far the flash may be off its expected time before it is taken for something else. */
const OFF = 0.35;

/** When to act: from the marks so far, what they were taken for, and the show that the dialect gives. */
export function actPrompt(
  dialect: Dialect,
  decoded: { onsets: readonly number[]; assignment: readonly (Assigned | null)[]; tempo: number },
  now: number,
  windowMs: number,
): ActPrompt {
  const group = (means: string) => dialect.phases.find((p) => p.kind === "group" && p.means === means);
  const [cylinders, act] = [group("cylinders"), group("act")];
  if (cylinders?.kind !== "group" || act?.kind !== "group") return null;
  const of = (means: string) =>
    decoded.onsets.filter((_, i) => {
      const unit = decoded.assignment[i]?.unit;
      return unit?.kind === "group" && unit.means === means;
    });
  const asked = of("act").at(-1);
  if (asked !== undefined)
    return now < asked + windowMs ? { kind: "now", since: asked, until: asked + windowMs } : null;
  const last = of("cylinders").at(-1);
  if (last === undefined) return null;
  const wait = (dialect.marks.short + Math.max(cylinders.afterMs, act.beforeMs)) * decoded.tempo;
  const at = last + wait;
  // The mark that comes when the flash should is the flash, before the decoder has made up its mind.
  const came = decoded.onsets.find((t) => t > last && Math.abs(t - at) < OFF * wait);
  if (came !== undefined) return now < came + windowMs ? { kind: "now", since: came, until: came + windowMs } : null;
  return now > last + dialect.gaps.flash * 2 && now < at + OFF * wait ? { kind: "soon", at } : null;
}
