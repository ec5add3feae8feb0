import { logAdd } from "./align";
import type { Dialect } from "./dialect";
import { trackOf, type Evidence, type Filmed } from "./evidence";
import { awayOf, filmView } from "./film-view";
import { framesOf } from "../lamp/levels";
import type { View } from "./view";
import { priorOf } from "./prior";
import { search } from "./search";
import { timedView } from "./timed-view";

export interface Ranked {
  dialect: string;
  probability: number;
}

/** A list is held against every frame of a film, which is dear; dialects lie far apart, so a fraction of the usual search will do. */
const FILM_EFFORT = 0.25;

/**
 * Which dialect a lamp speaks, when the make is not known: each is given the best it can do with the evidence, and the
 * probabilities are shared out by that. A lamp that showed nothing tells nothing: then all are alike.
 * Dialects that need a button are left out, since a lamp alone cannot show them.
 */
export function identify(dialects: readonly Dialect[], evidence: Evidence | Filmed): Ranked[] {
  const able = dialects.filter((d) => d.advance === "self");
  const explains = <S, P>(dialect: Dialect, view: View<S, P>, effort = 1): number =>
    search(dialect, view, priorOf(dialect), effort).reduce(
      (sum, c) => logAdd(sum, c.log),
      logAdd(view.noise, view.even),
    );
  const logs = able.map((dialect) => {
    if (evidence.mode === "levels") {
      const frames = framesOf(evidence.levels, awayOf(dialect));
      return frames && explains(dialect, filmView(dialect, frames, evidence.until), FILM_EFFORT);
    }
    const track = trackOf(evidence, dialect);
    return track.onset.length ? explains(dialect, timedView(dialect, track)) : null;
  });
  const told = logs.filter((l) => l !== null);
  if (!told.length) return able.map((d) => ({ dialect: d.id, probability: 1 / able.length }));
  const max = Math.max(...told);
  const weights = logs.map((l) => (l === null ? 0 : Math.exp(l - max)));
  const sum = weights.reduce((a, b) => a + b, 0);
  return able
    .map((d, i) => ({ dialect: d.id, probability: weights[i] / sum }))
    .sort((a, b) => b.probability - a.probability);
}
