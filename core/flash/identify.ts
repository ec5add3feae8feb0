import { logAdd } from "./trellis/log";
import { anythingLog } from "./explain/anything";
import type { Dialect } from "./dialect/dialect";
import { trackOf, type Evidence, type Filmed } from "./seen/evidence";
import { awayOf, filmView } from "./explain/film-view";
import { framesOf } from "../lamp/levels";
import type { View } from "./explain/view";
import { priorOf } from "./search/prior";
import { search } from "./search/search";
import { timedView } from "./explain/timed-view";

export interface Ranked {
  dialect: string;
  probability: number;
}

/** A list is held against every frame of a film, which is dear; dialects lie far apart, so a fraction of the usual search will do. */
const FILM_EFFORT = 0.25;

/** What is believed of a lamp before anything was seen of it: that it speaks one of the dialects, none of them, or no list at all. */
const KNOWN = 0.6;
const NONE = 0.3;
const EVEN = 0.1;

/** Which dialect it is, and how likely it is none of them. All probabilities together make 1. */
export interface Identified {
  /** The likeliest first. */
  ranked: Ranked[];
  /** It speaks none of them: another lamp's list, or marks that follow nothing. */
  none: number;
  /** It only blinks in even time, as an indicator does. */
  even: number;
}

/**
 * Which dialect a lamp speaks, when the make is not known: each is given the best it can do with the evidence, "none of these" what the
 * same marks are worth without any dialect, and the probabilities are shared out by that. A lamp that showed nothing tells nothing.
 * Dialects that need a button are left out, since a lamp alone cannot show them.
 */
export function identify(dialects: readonly Dialect[], evidence: Evidence | Filmed): Identified {
  const able = dialects.filter((d) => d.advance === "self");
  const explains = <S, P>(dialect: Dialect, view: View<S, P>, effort = 1) => ({
    lists: search(dialect, view, priorOf(dialect), effort).reduce((sum, c) => logAdd(sum, c.log), -Infinity),
    noise: view.noise,
    even: view.even,
  });
  const seen = able.map((dialect) => {
    if (evidence.mode === "levels") {
      const frames = framesOf(evidence.levels, awayOf(dialect));
      return frames && explains(dialect, filmView(dialect, frames, evidence.until), FILM_EFFORT);
    }
    const track = trackOf(evidence, dialect);
    if (!track.onset.length) return null;
    const x = explains(dialect, timedView(dialect, track));
    return { ...x, noise: Math.max(x.noise, anythingLog(track)) };
  });
  const told = seen.filter((x) => x !== null);
  if (!told.length)
    return { ranked: able.map((d) => ({ dialect: d.id, probability: KNOWN / able.length })), none: NONE, even: EVEN };
  // Each dialect looks at the marks in its own way: of what is no list the best of these counts.
  const none = Math.log(NONE) + Math.max(...told.map((x) => x.noise));
  const even = Math.log(EVEN) + Math.max(...told.map((x) => x.even));
  const rows = able.map((d, i) => {
    const x = seen[i];
    const own = x ? Math.log(KNOWN / able.length) + x.lists : -Infinity;
    return { dialect: d.id, own, any: x ? logAdd(x.lists, logAdd(x.noise, x.even)) : -Infinity };
  });
  const sum = rows.reduce((all, r) => logAdd(all, r.own), logAdd(none, even));
  return {
    // Where none of their lists explains it, the one that sees best what it is instead comes first.
    ranked: rows
      .sort((a, b) => b.any - a.any)
      .map(({ dialect, own }) => ({ dialect, probability: Math.exp(own - sum) })),
    none: Math.exp(none - sum),
    even: Math.exp(even - sum),
  };
}
