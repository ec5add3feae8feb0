import { blankAnswer, type Decoded } from "./answer";
import { decide } from "./decide";
import type { Dialect } from "./dialect";
import type { Run } from "./digits";
import { trackOf, type Called, type Evidence, type Track } from "./evidence";
import { priorOf } from "./prior";
import { runsView } from "./runs-view";
import { search } from "./search";
import { showOf } from "./show";
import { timedView } from "./timed-view";

export type { Assigned, Decoded, State } from "./answer";

export interface DecodeOptions {
  /** Codes that exist on this vehicle: likelier than others, never required. */
  table?: readonly string[];
}

/**
 * Decodes what was seen of a lamp: analysis by synthesis. Lists are proposed from a first reading and from their
 * neighbours; each is played through the dialect's own grammar and aligned with the marks; certainty is the posterior
 * probability over all that were tried.
 *
 * The same evidence gives the same answer, however it arrived. Never throws on evidence of any shape.
 */
export function decode(dialect: Dialect, evidence: Evidence | Called, options: DecodeOptions = {}): Decoded {
  if (evidence.mode === "counts") return decodeCounts(dialect, evidence, options);
  const track = trackOf(evidence, dialect.rest);
  if (track.onset.length === 0) return nothingSeen(dialect, track);
  const view = timedView(dialect, track);
  return decide(dialect, view, search(dialect, view, priorOf(dialect, options.table)), [...track.onset]);
}

function decodeCounts(dialect: Dialect, { counts }: Called, options: DecodeOptions): Decoded {
  const called = counts.map((c): Run => (typeof c === "number" ? { long: 0, short: c } : { long: c[0], short: c[1] }));
  if (!called.length)
    return nothingSeen(dialect, { ...trackOf({ mode: "taps", taps: [], until: RESTED + 1 }, dialect.rest) });
  const view = runsView(dialect, called);
  return decide(dialect, view, search(dialect, view, priorOf(dialect, options.table)), []);
}

/** How long a lamp must have rested before that means anything, ms. */
const RESTED = 12_000;

function nothingSeen(dialect: Dialect, track: Track): Decoded {
  const opposite = showOf(dialect, {}).ends === "opposite";
  const lit = track.litAtEnd ?? (dialect.rest === "lit") !== opposite;
  return { ...blankAnswer([], 1), state: lit ? "steady" : "dark", confidence: track.until > RESTED ? 0.95 : 0.5 };
}
