import type { Dialect } from "../dialect/dialect";
import type { Track } from "./evidence";
import { TEMPO_MAX } from "../dialect/tempo";

/** Beyond the longest rest a lamp may be missed for so long before the show is taken to have stopped, ms. */
const SLACK_MS = 3000;
/** An empty memory that rests for ever shows a lamp test at most: with more marks than this it was not empty. */
const LAMP_TEST_MARKS = 3;

/** The longest that the lamp rests in a show that goes round for ever, ms; null where a show ends by itself. */
function longestRest(dialect: Dialect, marks: number): number | null {
  if (dialect.loopFrom === null || dialect.advance === "button") return null;
  const phases = dialect.empty ? [...dialect.phases, dialect.empty] : dialect.phases;
  let longest = Math.max(...Object.values(dialect.gaps));
  for (const p of phases) {
    if (p.kind === "group") longest = Math.max(longest, p.beforeMs, p.afterMs);
    if (p.kind === "even") longest = Math.max(longest, p.offMs);
    if (p.kind !== "steady") continue;
    if (p.ms > 0) longest = Math.max(longest, p.ms + dialect.gaps.code);
    else if (marks <= LAMP_TEST_MARKS) return null;
  }
  return longest * TEMPO_MAX;
}

/**
 * The track of a list that goes round, up to when it was last shown: a lamp that rests for longer than its dialect ever does has
 * stopped answering (key off, wire out) while somebody watched on. `stopped` is when watching is taken to have ended then, ms.
 */
export function answered(dialect: Dialect, track: Track): Track & { stopped?: number } {
  const last = track.onset.length - 1;
  const rest = longestRest(dialect, track.onset.length);
  if (rest === null || last < 0) return track;
  const until = track.onset[last] + (track.length[last] || 0) + rest;
  return until + SLACK_MS < track.until ? { ...track, until, stopped: until, litAtEnd: null } : track;
}
