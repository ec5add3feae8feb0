import { align, type Alignment } from "./align";
import { score } from "./score";
import { logAdd } from "../trellis/log";
import type { Dialect } from "../dialect/dialect";
import { evenLog } from "./even";
import type { Track } from "../seen/evidence";
import { flatten, type Flat } from "./flat";
import { OBSERVERS, type Observer } from "../seen/observer";
import { seeded } from "../dialect/encode";
import { grammarOf, type Grammar } from "../walk/grammar";
import { readingOf } from "../walk/reading";
import { answered } from "../seen/stopped";
import { walksOf } from "../walk/walks";
import { TEMPO_MAX, TEMPO_MIN, tempoLog } from "../dialect/tempo";
import type { Score, View } from "./view";
import { placeMarks, refitTempo, spansOf } from "./placing";

/** A change of tempo below this share is no change. */
const SAME_TEMPO = 0.006;

/** What has to be assumed to play a show against marks. */
export interface Setting {
  tempo: number;
  observer: Observer;
}

/** A show under a setting. The alignment is made when first asked for. */
interface Prepared extends Setting {
  flat: Flat;
  alignment?: Alignment;
  /** How well it explains the marks, where that was worked out to the end; without the prior of the tempo. */
  own?: Score;
}

/** Marks with times (taps, held keys, edges): the view that aligns onsets with a show played at a tempo. */
export function timedView(
  dialect: Dialect,
  watched: Track,
  observers: readonly Observer[] = OBSERVERS[watched.mode],
): View<Setting, Prepared> {
  const track = answered(dialect, watched);
  const grammar = grammarOf(dialect);
  const alignment = (p: Prepared): Alignment => (p.alignment ??= align(track, p.flat, p.tempo, p.observer));
  return {
    settings: likeliestSettings(grammar, track, observers),
    readings: ({ tempo, observer }) => {
      const walks = walksOf(grammar, track, tempo, observer, READ_MARKS);
      const random = seeded(1);
      return Array.from({ length: DRAWS }, () => readingOf(dialect, walks.draw(random)));
    },
    prepare: (show, setting) => ({ ...setting, flat: flatten(show, track.mode) }),
    score: (p, against) => {
      const own = score(track, p.flat, p.tempo, p.observer, against);
      if (own.logLik > -Infinity) p.own = own;
      return { ...own, logLik: own.logLik + tempoLog(p.tempo) };
    },
    weigh: (p) => weigh(track, observers, p) + tempoLog(p.tempo),
    refit: (p) => {
      const tempo = refitTempo(track, p.flat, alignment(p), p.observer);
      const logs = observers.map((observer) => ({ observer, log: score(track, p.flat, tempo, observer).logLik }));
      const { observer } = logs.reduce((a, b) => (b.log > a.log ? b : a));
      return Math.abs(tempo / p.tempo - 1) < SAME_TEMPO && observer === p.observer ? null : { tempo, observer };
    },
    spans: (p) => spansOf(dialect, track, p.flat, alignment(p), p.tempo, p.observer),
    place: (p) => placeMarks(dialect, track, p.flat, alignment(p), p.tempo),
    settingOf: ({ tempo, observer }) => ({ tempo, observer }),
    anyList: ({ tempo, observer }, { logLik, prefix }) => {
      const upTo = Math.min(READ_MARKS, track.onset.length);
      return walksOf(grammar, track, tempo, observer, READ_MARKS, false).logLik + logLik - prefix[upTo - 1];
    },
    tempoOf: (p) => p.tempo,
    noise: noiseLog(track),
    foreign: noiseLog(track),
    even: evenLog(track, observers),
    litAtEnd: track.litAtEnd,
    count: track.onset.length,
    breadth: 1,
  };
}

/** Half the width of the stretch of tempo that is weighed in. */
const TEMPO_STEP = 0.01;

/** A kind of observer that falls so far behind on the way adds nothing, nats. */
const LEFT_BEHIND = 60;

/** Log probability with all kinds of observer and the tempi near the prepared one weighed in. */
function weigh(track: Track, observers: readonly Observer[], { flat, tempo, observer, own }: Prepared): number {
  const whole = own ?? score(track, flat, tempo, observer);
  const here = whole.logLik;
  const other = (o: Observer) => score(track, flat, tempo, o, whole, LEFT_BEHIND).logLik;
  const sum = observers.reduce((s, o) => (o === observer ? s : logAdd(s, other(o))), here);
  const at = (t: number) => score(track, flat, t, observer).logLik;
  const [before, after] = [at(tempo * (1 - TEMPO_STEP)), at(tempo * (1 + TEMPO_STEP))];
  // The top of the parabola through the three.
  const bend = 2 * here - before - after;
  const top = bend > 0 ? Math.min((after - before) ** 2 / (8 * bend), Math.max(before, after, here) - here + 3) : 0;
  return sum - Math.log(observers.length) + (Number.isFinite(top) ? top : 0);
}

/** Tempi that the grammar is held against, and how many of them (apart enough) are proposed from. */
const TEMPI = 12;
const BEGINNINGS = 2;
/** So many marks tell the tempo, and so many are read at first. */
const TEMPO_MARKS = 50;
const READ_MARKS = 400;
const DRAWS = 30;

/** The tempi, and kinds of observer, under which the grammar explains most, whatever the list. */
function likeliestSettings(grammar: Grammar, track: Track, observers: readonly Observer[]): Setting[] {
  const middle = observers[observers.length >> 1];
  const fits = (tempo: number, o: Observer) =>
    walksOf(grammar, track, tempo, o, TEMPO_MARKS, false).logLik - 0.5 * (Math.log(tempo) / 0.15) ** 2;
  const grid = Array.from({ length: TEMPI }, (_, i) => TEMPO_MIN * (TEMPO_MAX / TEMPO_MIN) ** ((i + 0.5) / TEMPI));
  const tempi = grid.map((tempo) => ({ tempo, log: fits(tempo, middle) })).sort((a, b) => b.log - a.log);
  const apart = tempi.filter((a, i) => tempi.slice(0, i).every((b) => Math.abs(Math.log(a.tempo / b.tempo)) > 0.05));
  return apart.slice(0, BEGINNINGS).map(({ tempo }) => {
    const kinds = observers.map((observer) => ({ observer, log: fits(tempo, observer) }));
    return { tempo, observer: kinds.reduce((a, b) => (b.log > a.log ? b : a)).observer };
  });
}

/** Marks without any dialect: intervals of any length, scale-free. A show that explains less than this explains nothing. */
export function noiseLog(track: Track): number {
  let log = Math.log(1e-4);
  for (let m = 0; m < track.onset.length; m++) {
    log += m ? -Math.log(Math.max(60, track.onset[m] - track.onset[m - 1]) * Math.log(200)) : -Math.log(5000);
    if (track.length[m] === track.length[m]) log -= Math.log(Math.max(60, track.length[m]) * Math.log(50));
    if (track.said[m]) log += Math.log(0.5);
  }
  return log;
}
