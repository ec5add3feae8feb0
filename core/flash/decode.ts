import { framesOf } from "../lamp/levels";
import { marksOf, type LampMark } from "../lamp/marks";
import { blankAnswer, type Decoded } from "./answer";
import { decide } from "./decide";
import type { Dialect, Memory } from "./dialect";
import type { Run } from "./digits";
import { firstOf, trackOf, type Called, type Evidence, type Filmed, type Pressed, type Track } from "./evidence";
import { calledPressView, pressView } from "./press-view";
import { awayOf, filmView } from "./film-view";
import { priorOf } from "./prior";
import { runsView } from "./runs-view";
import { search } from "./search";
import { LIKELY } from "./sureness";
import { showOf } from "./show";
import { timedView } from "./timed-view";
import type { View } from "./view";

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
export function decode(
  dialect: Dialect,
  evidence: Evidence | Filmed | Called | Pressed,
  options: DecodeOptions = {},
): Decoded {
  const conclude = <S, P>(view: View<S, P>, onsets: readonly number[] = []): Decoded =>
    decide(dialect, view, search(dialect, view, priorOf(dialect, options.table)), onsets);
  if (evidence.mode === "button")
    // Presses that showed nothing were too short, or the unit does not answer: an empty memory would have told itself.
    return evidence.presses.some(showsSomething) ? conclude(pressView(dialect, evidence.presses)) : blankAnswer([], 1);
  if (evidence.mode === "counts") {
    const called = evidence.counts.map((c): Run =>
      typeof c === "number" ? { long: 0, short: c } : { long: c[0], short: c[1] },
    );
    if (!called.length) return nothingSeen(dialect, trackOf({ mode: "taps", taps: [], until: 0 }, dialect));
    // One number a press tells a code only where the run is the code.
    if (dialect.advance === "button" && dialect.digits.style !== "total") return blankAnswer([], 1);
    if (dialect.advance === "button")
      return {
        ...conclude(
          calledPressView(
            dialect,
            called.map((r) => r.short),
          ),
        ),
        called: "runs",
      };
    const by = dialect.digits.style === "total" ? "runs" : "digits";
    return { ...conclude(runsView(dialect, called, evidence.withKey)), called: by };
  }
  if (evidence.mode === "levels") return readFilm(dialect, evidence, options).decoded;
  const track = firstOf(trackOf(evidence, dialect), MOST_MARKS);
  if (track.onset.length === 0) return nothingSeen(dialect, track);
  return wholeDespite(evidence.pauses, conclude(timedView(dialect, track), [...track.onset]));
}

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
      decoded: nothingSeen(dialect, trackOf({ mode: "taps", taps: [], until }, dialect)),
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

/** Pictures further apart than this have a stretch between them in which the lamp was not seen, ms. */
const UNSEEN_MS = 600;

/** Stretches in which the lamp was not seen: the camera looked elsewhere, or something stood between. They are pauses, no rest of the lamp. */
function gapsIn(t: readonly number[]): [from: number, to: number][] {
  const gaps: [number, number][] = [];
  for (let i = 1; i < t.length; i++) if (t[i] - t[i - 1] > UNSEEN_MS) gaps.push([t[i - 1], t[i]]);
  return gaps;
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

const showsSomething = ({ taps, edges }: Pressed["presses"][number]) =>
  Boolean(taps?.length || (edges && edges.length > 1));

/** Length drawn for a flash that a film only hints at, ms. */
const MISSED_MS = 300;

/** Hours of flashing; whoever has not told a list by then does not tell it later, and the cost stays in hand. */
const MOST_MARKS = 20_000;

/** A list is held against every frame, which is dear: so much of the usual effort. */
const FILM_EFFORT = 0.5;

/** How long a lamp must have rested before that means anything, ms. */
const RESTED = 12_000;

function nothingSeen(dialect: Dialect, track: Track): Decoded {
  const opposite = showOf(dialect, {}).ends === "opposite";
  const lit = track.litAtEnd ?? (dialect.rest === "lit") !== opposite;
  return { ...blankAnswer([], 1), state: lit ? "steady" : "dark", confidence: track.until > RESTED ? 0.95 : 0.5 };
}
