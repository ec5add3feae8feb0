import { framesOf } from "../../lamp/levels";
import type { Dialect } from "../dialect/dialect";
import type { Run } from "../dialect/digits";
import { firstOf, trackOf, type Called, type Evidence, type Filmed, type Pressed } from "../seen/evidence";
import { awayOf, filmView } from "./film-view";
import { calledPressView, pressView } from "./press-view";
import { runsView } from "./runs-view";
import { timedView } from "./timed-view";
import type { View } from "./view";

/** Any way in which a lamp was watched. */
export type Watched = Evidence | Filmed | Called | Pressed;

/** Hours of flashing; whoever has not told a list by then does not tell it later, and the cost stays in hand. */
const MOST_MARKS = 20_000;

/** Pictures further apart than this have a stretch between them in which the lamp was not seen, ms. */
const UNSEEN_MS = 600;

/** Stretches in which the lamp was not seen: the camera looked elsewhere, or something stood between. They are pauses, no rest of the lamp. */
export function gapsIn(t: readonly number[]): [from: number, to: number][] {
  const gaps: [number, number][] = [];
  for (let i = 1; i < t.length; i++) if (t[i] - t[i - 1] > UNSEEN_MS) gaps.push([t[i - 1], t[i]]);
  return gaps;
}

/** Of marks in time, as many as are read. */
export const marksRead = (dialect: Dialect, evidence: Evidence) => firstOf(trackOf(evidence, dialect), MOST_MARKS);

/**
 * What was seen, as the view that a lamp of this dialect is judged by. Null where nothing was seen that a list could explain.
 * @param look called with the view, once
 */
export function viewed<R>(dialect: Dialect, evidence: Watched, look: <S, P>(view: View<S, P>) => R): R | null {
  if (evidence.mode === "button")
    // Presses that showed nothing were too short, or the unit does not answer: an empty memory would have told itself.
    return evidence.presses.some(showsSomething) ? look(pressView(dialect, evidence.presses)) : null;
  if (evidence.mode === "levels") {
    const frames = framesOf(evidence.levels, awayOf(dialect));
    return frames ? look(filmView(dialect, frames, evidence.until, gapsIn(evidence.levels.t))) : null;
  }
  if (evidence.mode === "counts") {
    const runs = evidence.counts.map((c): Run =>
      typeof c === "number" ? { long: 0, short: c } : { long: c[0], short: c[1] },
    );
    if (!runs.length) return null;
    if (dialect.advance !== "button") return look(runsView(dialect, runs, evidence.withKey));
    // One number a press tells a code only where the run is the code.
    if (dialect.digits.style !== "total") return null;
    return look(
      calledPressView(
        dialect,
        runs.map((r) => r.short),
      ),
    );
  }
  const track = marksRead(dialect, evidence);
  return track.onset.length ? look(timedView(dialect, track)) : null;
}

const showsSomething = ({ taps, edges }: Pressed["presses"][number]) =>
  Boolean(taps?.length || (edges && edges.length > 1));
