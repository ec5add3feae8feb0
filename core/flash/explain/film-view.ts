import type { Away, Frames } from "../../lamp/levels";
import { foldedIndex, type Alignment } from "./align";
import type { Dialect } from "../dialect/dialect";
import { evenFilmLog } from "./even";
import { trackOf, type Track } from "../seen/evidence";
import { filmOf, pathOf, playFilm, type Played } from "./film";
import { flatten, type Flat } from "./flat";
import { FILM_OBSERVERS } from "../seen/observer";
import { placeMarks, refitTempo, spansOf } from "./placing";
import { timedView, type Setting } from "./timed-view";
import { answered } from "../seen/stopped";
import { TEMPO_MAX, tempoLog } from "../dialect/tempo";
import type { View } from "./view";

interface Prepared extends Setting {
  flat: Flat;
  /** The lamp stays away from its rest for ever after the last flash. */
  endless: boolean;
  played?: Played;
}

/**
 * Two changes of the lamp cost so much where no dialect tells when they come, nats. The poorer the film (contrast over noise), the
 * more a list may fit by chance, and the more it has to explain. Lists of the lamp's own dialect lose less than this a mark in
 * clear films, nearly all lists of other dialects more (`core/flash/foreign.test.ts`).
 */
function twoChanges(frames: Frames): number {
  const poor = 6 + 4.5 * (frames.contrast / frames.noise - 3);
  return Math.min(12 - 5 * clarity(frames, 8, 12), Math.max(5, poor));
}
/** And so much before nothing is read at all. */
const FOREIGN_CHANGES = 18;

/** From 0 for a film in which the lamp hardly shows to 1 for a clear one. */
const clarity = ({ contrast, noise }: Frames, from: number, to: number): number =>
  Math.min(1, Math.max(0, (contrast / noise - from) / (to - from)));

/**
 * Changes that follow the noise explain a poor film better than any lamp does: of what they explain, so much has to be explained
 * by a list.
 */
const shareToExplain = (frames: Frames): number => 0.7 + 0.3 * clarity(frames, 3.2, 5);

/** In a poor film the daylight is taken for lamp and lamp for daylight, over many frames alike: each of them says less. */
const temper = (frames: Frames): number => 1 / (2.5 - 1.5 * clarity(frames, 3.5, 6));

const SAME_TEMPO = 0.006;

/**
 * The brightness of a lamp: lists are held against the frames themselves; marks taken out of them only serve to propose.
 * @param gaps stretches in which the lamp was not seen
 */
export function filmView(
  dialect: Dialect,
  all: Frames,
  watched: number,
  gaps: readonly (readonly [number, number])[] = [],
): View<Setting, Prepared> {
  // A shorter stretch without pictures may be a rest in which nothing changed.
  const unseen = gaps.filter(([from, to]) => to - from > longestRest(dialect) * TEMPO_MAX);
  const seen = { mode: "edges" as const, edges: edgesOf(all), until: watched, pauses: unseen };
  const marks = answered(dialect, trackOf(seen, dialect));
  const until = Math.min(watched, marks.stopped ?? watched);
  const frames = until < watched ? framesUntil(all, until) : all;
  const timed = timedView(dialect, marks, FILM_OBSERVERS);
  const film = filmOf(frames, dialect.rest, until, marks.stopped !== undefined, unseen);
  const away = dialect.rest === "lit" ? 0 : 1;
  const o = FILM_OBSERVERS[1];
  const play = (p: Prepared): Played => (p.played ??= playFilm(film, p.flat, p.tempo, p.endless));
  /** The path as marks with an alignment, as other views have them. */
  const placed = (p: Prepared): { track: Track; alignment: Alignment } => {
    const path = pathOf(play(p));
    return {
      track: {
        mode: "edges",
        onset: Float64Array.from(path, (x) => x.at),
        length: Float64Array.from(path, (x) => p.flat.length[foldedIndex(p.flat, x.flash).index] * p.tempo),
        said: new Uint8Array(path.length),
        until,
        pause: path.map((x, i) => gaps.find(([from, to]) => from < x.at && to > (path[i - 1]?.at ?? 0)) ?? null),
        litAtEnd: marks.litAtEnd,
      },
      alignment: { flash: Int32Array.from(path, (x) => x.flash), logLik: 0 },
    };
  };
  const weight = temper(frames);
  const free = litEvidence(frames, away);
  return {
    settings: beginnings(timed.settings),
    readings: timed.readings,
    prepare: (show, setting) => ({
      ...setting,
      flat: flatten(show, "edges"),
      endless: show.ends === "opposite" && !show.loop,
    }),
    score: (p, against) => {
      const played = playFilm(film, p.flat, p.tempo, p.endless, against);
      if (played.logLik > -Infinity) p.played = played;
      return { ...played, logLik: played.logLik + tempoLog(p.tempo) };
    },
    weigh: (p) => {
      const at = (tempo: number) => playFilm(film, p.flat, tempo, p.endless).logLik;
      return weight * Math.max(play(p).logLik, at(p.tempo * 0.99), at(p.tempo * 1.01)) + tempoLog(p.tempo);
    },
    refit: (p) => {
      const { track, alignment } = placed(p);
      if (track.onset.length < 3) return null;
      const tempo = refitTempo(track, p.flat, alignment, o);
      return Math.abs(tempo / p.tempo - 1) < SAME_TEMPO ? null : { tempo, observer: p.observer };
    },
    spans: (p) => {
      const { track, alignment } = placed(p);
      return spansOf(dialect, track, p.flat, alignment, p.tempo, o);
    },
    place: (p) => {
      const { track, alignment } = placed(p);
      return placeMarks(dialect, track, p.flat, alignment, p.tempo);
    },
    settingOf: ({ tempo, observer }) => ({ tempo, observer }),
    anyList: () => -Infinity,
    tempoOf: (p) => p.tempo,
    noise: weight * (shareToExplain(frames) * (free - twoChanges(frames) * marks.onset.length) - 5),
    foreign: weight * (free - FOREIGN_CHANGES * marks.onset.length - 5),
    even: evenFilmLog(marks, film, weight),
    litAtEnd: marks.litAtEnd,
    count: Math.max(1, film.onsets.length),
    breadth: 1,
  };
}

/** Marks taken out of a film err more than they seem to: each tempo is also read with a more forgiving kind of observer. */
function beginnings(settings: readonly Setting[]): Setting[] {
  const forgiving = FILM_OBSERVERS[FILM_OBSERVERS.length - 1];
  const more = settings.map((s) => ({ ...s, observer: forgiving }));
  return [...settings, ...more].filter(
    (s, i, all) => all.findIndex((x) => x.tempo === s.tempo && x.observer === s.observer) === i,
  );
}

/** A bulb glows on for about so long, ms: frames at the end of a mark are not held against a list that has it dark already. */
const COOLING_MS = 70;

/** What the frames say for a lamp that is away from its rest where it seems so, whatever the list. */
function litEvidence({ t, lit, llr }: Frames, away: 0 | 1): number {
  let sum = 0;
  let dark = Infinity;
  for (let i = t.length - 1; i >= 0; i--) {
    if (lit[i] !== away) dark = t[i];
    else if (dark - t[i] > COOLING_MS) sum += away ? llr[i] : -llr[i];
  }
  return sum;
}

function framesUntil({ t, llr, lit, ...rest }: Frames, until: number): Frames {
  const n = t.findIndex((x) => x > until);
  return n < 0
    ? { t, llr, lit, ...rest }
    : { t: t.subarray(0, n), llr: llr.subarray(0, n), lit: lit.subarray(0, n), ...rest };
}

/** The likeliest states as edges, each half way between the frames around it. */
export function edgesOf({ t, lit }: Frames): [number, 0 | 1][] {
  const edges: [number, 0 | 1][] = [[0, lit[0] as 0 | 1]];
  for (let i = 1; i < t.length; i++) if (lit[i] !== lit[i - 1]) edges.push([(t[i] + t[i - 1]) / 2, lit[i] as 0 | 1]);
  return edges;
}

/** The longest time between two flashes that a dialect knows, nominal ms. */
function longestRest({ gaps, phases, empty }: Dialect): number {
  const waits = [...phases, ...(empty ? [empty] : [])].map((p) =>
    p.kind === "group" ? Math.max(p.beforeMs, p.afterMs) : p.kind === "steady" ? p.ms : 0,
  );
  return Math.max(gaps.flash, gaps.digit, gaps.repeat, gaps.code, gaps.pass, ...waits);
}

/** The state that is not the rest of a dialect, and how long its marks last at most. */
export function awayOf(dialect: Dialect): Away {
  const phases = dialect.empty ? [...dialect.phases, dialect.empty] : dialect.phases;
  const rest = dialect.rest === "lit" ? 1 : 0;
  const steady = phases.flatMap((p) => (p.kind === "steady" && (p.lamp === "lit") !== (rest === 1) ? [p.ms] : []));
  const even = phases.flatMap((p) => (p.kind === "even" ? [p.onMs] : []));
  const longest = Math.max(dialect.marks.short, dialect.marks.long ?? 0, ...steady, ...even) * TEMPO_MAX * 1.1 + 100;
  return { lit: rest ? 0 : 1, longest, endless: steady.includes(0) };
}
