import { framesOf } from "../lamp/levels";
import { marksOf, type LampMark } from "../lamp/marks";
import { blankAnswer, type Decoded } from "./answer";
import { decide } from "./judge/decide";
import type { Dialect, Memory } from "./dialect/dialect";
import { trackOf, type Evidence, type Filmed, type Track } from "./seen/evidence";
import { awayOf, filmView } from "./explain/film-view";
import { priorOf } from "./search/prior";
import { search } from "./search/search";
import { LIKELY } from "./judge/sureness";
import { showOf } from "./dialect/show";
import { gapsIn, marksRead, viewed, type Watched } from "./explain/viewed";

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
 * The same evidence gives the same answer, however it arrived. Of more than 20,000 marks the first 20,000 are read. Never throws on evidence of any shape.
 */
export function decode(dialect: Dialect, evidence: Watched, options: DecodeOptions = {}): Decoded {
  const conclude = (onsets: readonly number[] = []) =>
    viewed(dialect, evidence, (view) =>
      decide(dialect, view, search(dialect, view, priorOf(dialect, options.table)), onsets),
    );
  if (evidence.mode === "levels") return readFilm(dialect, evidence, options).decoded;
  if (evidence.mode === "button") return conclude() ?? blankAnswer([], 1);
  if (evidence.mode === "counts") {
    const decoded = conclude();
    if (decoded)
      return {
        ...decoded,
        called: dialect.advance === "button" || dialect.digits.style === "total" ? "runs" : "digits",
      };
    return evidence.counts.length ? blankAnswer([], 1) : nothingSeen(dialect, noMarks(dialect, 0));
  }
  const track = marksRead(dialect, evidence);
  const decoded = conclude([...track.onset]);
  return decoded ? wholeDespite(evidence.pauses, decoded) : nothingSeen(dialect, track);
}

const noMarks = (dialect: Dialect, until: number): Track => trackOf({ mode: "taps", taps: [], until }, dialect);

/** What was shown in a pause nobody saw: only a round without one proves that a list is whole. */
function wholeDespite(pauses: Evidence["pauses"], d: Decoded): Decoded {
  return !pauses?.length || d.wholeRound || !d.complete
    ? d
    : { ...d, complete: false, completeness: Math.min(d.completeness, LIKELY), over: false };
}

export interface FilmRead {
  decoded: Decoded;
  /** What was seen of the lamp, each stretch with its probability; `decoded` assigns these. */
  marks: LampMark[];
}

/** As {@link decode}, of a lamp's brightness, with the marks that were seen in it. */
export function readFilm(dialect: Dialect, { levels, until }: Filmed, options: DecodeOptions = {}): FilmRead {
  const frames = framesOf(levels, awayOf(dialect));
  if (!frames)
    return {
      decoded: nothingSeen(dialect, noMarks(dialect, until)),
      marks: [],
    };
  const gaps = gapsIn(levels.t);
  const view = filmView(dialect, frames, until, gaps);
  const decoded = decide(dialect, view, search(dialect, view, priorOf(dialect, options.table), FILM_EFFORT), []);
  const marks = marksOf(frames, dialect.rest === "lit" ? 0 : 1);
  // The pictures keep their time: a code between the two pauses that part it from its neighbours takes longer than one pause.
  const hiding = gaps.filter(([from, to]) => to - from >= dialect.gaps.code * decoded.tempo);
  return { decoded: wholeDespite(hiding, placedOn(marks, decoded, gaps)), marks };
}

/** A flash and a mark are the same when they begin within this time, ms. */
const SAME_MS = 250;

/** Brings the places of flashes in a film to the marks seen in it; a flash without a mark was missed. */
function placedOn(marks: readonly LampMark[], decoded: Decoded, gaps: readonly (readonly [number, number])[]): Decoded {
  const assignment: Decoded["assignment"] = marks.map(() => null);
  const missed = [...decoded.missed];
  for (const [i, at] of decoded.onsets.entries()) {
    const place = decoded.assignment[i];
    if (!place) continue;
    let best = -1;
    for (const [k, m] of marks.entries())
      if (!assignment[k] && Math.abs(m.t - at) < Math.min(SAME_MS, best < 0 ? Infinity : Math.abs(marks[best].t - at)))
        best = k;
    if (best >= 0) assignment[best] = place;
    else missed.push({ ...place, at, ms: MISSED_MS });
  }
  const placed = { ...decoded, onsets: marks.map((m) => m.t), assignment, missed };
  return { ...placed, ...withoutSlip(placed, gaps) };
}

/** What of a film was marked without a slip: a list is found in the pictures themselves, and no mark may be missing or left over. */
function withoutSlip(
  { assignment, missed, exactShown, wholeRound }: Decoded,
  gaps: readonly (readonly [number, number])[],
): Pick<Decoded, "exactShown" | "wholeRound"> {
  const spoilt = new Set(missed.map((m) => m.showing));
  for (const [i, a] of assignment.entries())
    if (!a) for (const beside of [assignment[i - 1], assignment[i + 1]]) if (beside) spoilt.add(beside.showing);
  // What was not seen breaks a round where it is; it spoils none elsewhere.
  const slips = missed.some((m) => !gaps.some(([from, to]) => m.at > from && m.at < to)) || assignment.includes(null);
  const good = new Map<string, Set<number>>();
  for (const a of assignment)
    if (a?.unit.kind === "code" && !spoilt.has(a.showing)) {
      const key = `${a.unit.memory} ${a.unit.code}`;
      good.set(key, (good.get(key) ?? new Set()).add(a.showing));
    }
  const fewer: Decoded["exactShown"] = {};
  for (const [memory, codes] of Object.entries(exactShown) as [Memory, Record<string, number>][])
    fewer[memory] = Object.fromEntries(
      Object.entries(codes).map(([code, n]) => [code, Math.min(n, good.get(`${memory} ${code}`)?.size ?? 0)]),
    );
  return { exactShown: fewer, wholeRound: wholeRound && !slips };
}

/** Length drawn for a flash that a film only hints at, ms. */
const MISSED_MS = 300;

/** A list is held against every frame, which is dear: so much of the usual effort. */
const FILM_EFFORT = 0.5;

/** How long a lamp must have rested before that means anything, ms. */
const RESTED = 12_000;

function nothingSeen(dialect: Dialect, track: Track): Decoded {
  const opposite = showOf(dialect, {}).ends === "opposite";
  const lit = track.litAtEnd ?? (dialect.rest === "lit") !== opposite;
  return { ...blankAnswer([], 1), state: lit ? "steady" : "dark", confidence: track.until > RESTED ? 0.95 : 0.5 };
}
