import { align, foldedIndex, logAdd, score, type Alignment } from "./align";
import type { Assigned } from "./answer";
import type { Dialect } from "./dialect";
import type { Track } from "./evidence";
import { flatten, type Flat } from "./flat";
import { INTERVAL_JITTER, OBSERVERS, type Observer } from "./observer";
import { seeded } from "./encode";
import { grammarOf, type Grammar } from "./grammar";
import { readingOf } from "./reading";
import { walksOf } from "./walks";
import type { Unit } from "./show";
import { TEMPO_MAX, TEMPO_MIN } from "./tempo";
import type { Placed, Span, View } from "./view";

/** A change of tempo below this share is no change. */
const SAME_TEMPO = 0.002;

/** What has to be assumed to play a show against marks. */
export interface Setting {
  tempo: number;
  observer: Observer;
}

/** A show under a setting. The alignment is made when first asked for. */
interface Prepared extends Setting {
  flat: Flat;
  alignment?: Alignment;
}

/** Marks with times (taps, held keys, edges): the view that aligns onsets with a show played at a tempo. */
export function timedView(dialect: Dialect, track: Track): View<Setting, Prepared> {
  const observers = OBSERVERS[track.mode];
  const grammar = grammarOf(dialect, INTERVAL_JITTER);
  const alignment = (p: Prepared): Alignment => (p.alignment ??= align(track, p.flat, p.tempo, p.observer));
  return {
    settings: likeliestSettings(grammar, track),
    readings: ({ tempo, observer }) => {
      const walks = walksOf(grammar, track, tempo, observer, READ_MARKS);
      const random = seeded(1);
      return Array.from({ length: DRAWS }, () => readingOf(dialect, walks.draw(random)));
    },
    prepare: (show, setting) => ({ ...setting, flat: flatten(show, track.mode) }),
    score: ({ flat, tempo, observer }, against) => score(track, flat, tempo, observer, against),
    weigh: (p) => weigh(track, p),
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
    litAtEnd: track.litAtEnd,
    count: track.onset.length,
  };
}

/** Half the width of the stretch of tempo that is weighed in. */
const TEMPO_STEP = 0.01;

/** Log probability with all kinds of observer and the tempi near the prepared one weighed in. */
function weigh(track: Track, { flat, tempo, observer }: Prepared): number {
  const observers = OBSERVERS[track.mode];
  const at = (t: number) => score(track, flat, t, observer).logLik;
  const sum = observers.reduce((s, o) => logAdd(s, score(track, flat, tempo, o).logLik), -Infinity);
  const [before, here, after] = [at(tempo * (1 - TEMPO_STEP)), at(tempo), at(tempo * (1 + TEMPO_STEP))];
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
function likeliestSettings(grammar: Grammar, track: Track): Setting[] {
  const observers = OBSERVERS[track.mode];
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

/** Least squares of the steps between marks on the show's own, along the best alignment. The prior pulls a little. */
function refitTempo(track: Track, flat: Flat, { flash }: Alignment, o: Observer): number {
  const at = unrolledTimes(
    flat,
    flash.reduce((m, f) => Math.max(m, f), 0),
  );
  const weight = 1 / 0.15 ** 2;
  let xy = weight;
  let xx = weight;
  let previous = -1;
  for (let m = 0; m < flash.length; m++) {
    if (flash[m] < 0) continue;
    if (previous >= 0 && !track.pause[m]) {
      const x = at[flash[m]] - at[flash[previous]];
      const variance = 2 * o.onsetSd ** 2 + (0.022 * x) ** 2;
      xy += ((track.onset[m] - track.onset[previous]) * x) / variance;
      xx += (x * x) / variance;
    }
    previous = m;
  }
  return Math.min(TEMPO_MAX, Math.max(TEMPO_MIN, xy / xx));
}

/** Nominal times of the flashes of the unrolled show, from its start. */
function unrolledTimes(flat: Flat, upTo: number): number[] {
  const at = [flat.first];
  for (let u = 1; u <= upTo; u++) at.push(at[u - 1] + flat.step[foldedIndex(flat, u - 1).index]);
  return at;
}

/** The time of a flash of the unrolled show: carried over from the nearest mark before it, or the first one. */
function timer(track: Track, flash: Int32Array, at: number[], tempo: number): (u: number) => number {
  const marks: { u: number; t: number }[] = [];
  for (let m = 0; m < flash.length; m++) if (flash[m] >= 0) marks.push({ u: flash[m], t: track.onset[m] });
  return (u) => {
    let lo = 0;
    let hi = marks.length - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if (marks[mid].u <= u) lo = mid;
      else hi = mid - 1;
    }
    return marks[lo].t + ((at[u] ?? Infinity) - at[marks[lo].u]) * tempo;
  };
}

/** The showings within the time of watching; full ones lay in it whole, with half the rest around that ends a code. */
function spansOf(dialect: Dialect, track: Track, flat: Flat, { flash }: Alignment, tempo: number, o: Observer): Span[] {
  const firstMark = flash.findIndex((f) => f >= 0);
  if (firstMark < 0) return [];
  const { gaps } = dialect;
  const between = Math.min(gaps.code || Infinity, gaps.repeat || Infinity);
  const restNeeded = Number.isFinite(between) ? ((gaps.digit + between) / 2) * tempo : gaps.digit * tempo;
  const spread = Math.hypot(o.onsetSd, o.reactionSd, 0.03 * restNeeded);
  const at = unrolledTimes(flat, flash[flash.findLastIndex((f) => f >= 0)] + 60).filter(Number.isFinite);
  const timeOf = timer(track, flash, at, tempo);
  const begin = Math.max(0, flash[firstMark] - 40);
  const spans: (Span & { from: number; to: number })[] = [];
  for (let u = begin; u < at.length; u++) {
    const { index, round } = foldedIndex(flat, u);
    const { unit } = flat.flashes[index];
    const last = spans.at(-1);
    if (last && last.unit === unit && last.pass === round) last.to = u;
    else spans.push({ unit, pass: round, full: 0, from: u, to: u });
  }
  for (const s of spans) {
    const start = timeOf(s.from) - o.reaction;
    const end = timeOf(s.to) - o.reaction + flat.length[foldedIndex(flat, s.to).index] * tempo;
    const whole = s.from > begin || begin === 0 || timeOf(begin) < -restNeeded;
    s.full = whole ? chance((start - restNeeded) / spread) * chance((track.until - end - restNeeded) / spread) : 0;
  }
  return spans.filter((s) => timeOf(s.to) > 0 && timeOf(s.from) < track.until);
}

/** Probability that a standard normal deviate is below z (logistic approximation). */
function chance(z: number): number {
  return 1 / (1 + Math.exp(-1.702 * z));
}

function placeMarks(dialect: Dialect, track: Track, flat: Flat, { flash }: Alignment, tempo: number): Placed {
  const onsets = [...track.onset];
  const used = flash.filter((f) => f >= 0);
  if (!used.length) return { onsets, assignment: onsets.map(() => null), missed: [] };
  const [first, last] = [used[0], used[used.length - 1]];
  const firstRound = foldedIndex(flat, first).round;
  const timeOf = timer(track, flash, unrolledTimes(flat, last), tempo);
  const counted = dialect.digits.style === "counted";
  const assigned: Assigned[] = [];
  let showing = -1;
  let before: Unit | null = null;
  let beforeRound = -1;
  for (let u = first; u <= last; u++) {
    const { index, round } = foldedIndex(flat, u);
    const { unit, digit } = flat.flashes[index];
    if (unit !== before || round !== beforeRound) showing++;
    before = unit;
    beforeRound = round;
    let k = 0;
    for (let i = index - 1; i >= 0 && flat.flashes[i].unit === unit && flat.flashes[i].digit === digit; i--) k++;
    assigned.push({ unit, digit, counted, flash: k, pass: round - firstRound, showing });
  }
  const seen = new Set(used);
  const missed = assigned.flatMap((a, i) => {
    const u = first + i;
    const at = timeOf(u);
    const unwatched = track.pause.some((p) => p && at > p[0] && at < p[1]);
    return seen.has(u) || unwatched ? [] : [{ ...a, at, ms: flat.length[foldedIndex(flat, u).index] * tempo }];
  });
  return { onsets, assignment: Array.from(flash, (f) => (f < 0 ? null : assigned[f - first])), missed };
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
