import { FIRST, newClock, peakEnd, peakOnset, tick, type Clock, type Lengths } from "../seen/density";
import type { Track } from "../seen/evidence";
import { lengthsInto, type Flat } from "./flat";
import { beginning, missedAfter, missedAfterStart, missedBefore } from "./missed";
import type { Observer } from "../seen/observer";
import { logExtras, MAX_EXTRA } from "../seen/spurious";
import { arrive, column, positions, settle, type Column, type Positions } from "../trellis/column";
import { logAdd } from "../trellis/log";
import type { Score } from "./view";

/** How far a hidden position may fall behind the best one before it is dropped. */
const BEAM = 1e-5;
/** What adds less than this share of the best one's weight to a position is left out. */
const NEGLIGIBLE = BEAM / 10;
/** A position whose flash should have begun so many standard deviations ago is past; one so far off is not thought of, squared. */
const PAST = 100;
const FAR = 150;

/** Rows that every run needs anew. Hundreds of lists of a watch are scored: making them took as long as some lists. */
interface Rows {
  room: number;
  /** After each of the latest marks. */
  ring: Positions[];
  column: Column;
  /** Of each flash, at the tempo, ms: step to the next and its variance. */
  step: Float64Array;
  stepVar: Float64Array;
  lengths: Lengths;
}

let rows: Rows | null = null;

function rowsFor(flat: Flat, tempo: number): Rows {
  const { n } = flat;
  if (!rows || rows.room < n) {
    const room = Math.max(256, 2 * n);
    const row = () => new Float64Array(room);
    const ring = Array.from({ length: MAX_EXTRA + 2 }, () => positions(room));
    rows = { room, ring, column: column(room), step: row(), stepVar: row(), lengths: { alone: row(), merged: row() } };
  }
  for (let j = 0; j < n; j++) {
    rows.step[j] = flat.step[j] * tempo;
    rows.stepVar[j] = flat.stepVar[j] * tempo * tempo;
  }
  lengthsInto(rows.lengths, flat, tempo);
  for (const state of rows.ring) {
    state.size = 0;
    state.scale = -Infinity;
  }
  return rows;
}

/** What is held against what, and how. */
interface Run extends Rows {
  track: Track;
  flat: Flat;
  tempo: number;
  o: Observer;
  clock: Clock;
}

/** Mark `m` is flash `j`, by a way of weight `w`, where the clock stands as `clock` tells. */
function take(run: Run, m: number, j: number, w: number): void {
  const { track, flat, o, clock, column } = run;
  clock.least = (column.max * NEGLIGIBLE) / w;
  tick(clock, o, track.length, m, run.lengths, j);
  const said = track.said[m];
  if (said) clock.p *= (said === 2) === (flat.long[j] === 1) ? 1 - o.misnamed : o.misnamed;
  clock.p *= w;
  if (clock.p > 0) arrive(column, j, clock);
}

/** Mark `m` is a later flash than mark `m - back` was, those between them missed. */
function goOn(run: Run, from: Positions, m: number, back: number, factor: number): void {
  const { track, o, flat, step, stepVar, column, clock } = run;
  const { next } = flat;
  const noise = o.onsetSd * o.onsetSd;
  // What would be dropped with the beam anyway is not gone into.
  const floor = (column.max * NEGLIGIBLE) / (peakOnset(o) * peakEnd(o, track.length[m]));
  if (factor < floor) return;
  const dt = track.onset[m] - track.onset[m - back];
  for (let s = 0; s < from.size; s++) {
    let w = from.weight[s] * factor;
    if (w < floor) continue;
    const least = Math.max(w * 1e-6, floor);
    let j = from.index[s];
    let late = from.late[s] - dt;
    let variance = from.variance[s];
    while (next[j] >= 0 && w > least) {
      late += step[j];
      variance += stepVar[j];
      const square = late * late;
      const sum = variance + noise;
      if (late > 0 && square > PAST * sum) break;
      j = next[j];
      if (square <= FAR * sum) {
        clock.late = late;
        clock.variance = variance;
        take(run, m, j, w);
      }
      w *= o.miss;
    }
  }
}

/** Nobody watched before mark `m`: the show went on to anywhere. */
function goOnUnseen(
  run: Run,
  from: Positions,
  m: number,
  [begin, end]: readonly [number, number],
  factor: number,
): void {
  const { track, flat, tempo, o } = run;
  let until = 0;
  for (let s = 0; s < from.size; s++)
    until += from.weight[s] * missedAfter(flat, from.index[s], begin - track.onset[m - 1], tempo, o);
  for (let j = 0; j < flat.n; j++) {
    const before = missedBefore(flat, j, track.onset[m] - end, tempo, o);
    run.clock.variance = Infinity;
    take(run, m, j, (until * factor * before) / flat.n);
  }
}

/** Watching begins at mark `m`; those before it were spurious. */
function beginAt(run: Run, m: number, factor: number): void {
  const { track, flat, tempo, o, column } = run;
  if (!(factor * peakEnd(o, track.length[m]) > column.max * NEGLIGIBLE)) return;
  for (let j = 0; j < flat.n; j++) {
    const w = factor * beginning(flat, j, track.onset[m], tempo, o);
    if (!(w > 0)) continue;
    run.clock.variance = Infinity;
    take(run, m, j, w);
  }
}

/** The end: what should still have come, and trailing spurious marks. */
function endOf({ track, flat, tempo, o, ring }: Run, allExtra: number): number {
  const marks = track.onset.length;
  const logExtra = logExtras(track, o);
  let total = allExtra + Math.log(missedAfterStart(flat, track.until, tempo, o));
  for (let back = 1, e = 0; back <= MAX_EXTRA + 1 && back <= marks; back++) {
    const state = ring[(marks - back) % ring.length];
    let sum = 0;
    const left = track.until - track.onset[marks - back];
    for (let s = 0; s < state.size; s++) sum += state.weight[s] * missedAfter(flat, state.index[s], left, tempo, o);
    if (sum > 0) total = logAdd(total, state.scale + Math.log(sum) + e);
    e += logExtra[marks - back];
  }
  // That no further marks were made where they might have been: the same for every show, but not for every observer.
  return total + marks * Math.log1p(-Math.min(0.5, o.double)) - track.until * o.extra;
}

/**
 * Probability of a track, given what the unit shows: the forward algorithm over the hidden position in the show,
 * with flashes missed and marks invented (Rabiner 1989, III; durations enter as densities of onset-to-onset
 * times, so the time that a missed flash took is not lost).
 *
 * @param tempo factor on all times of the show
 * @param against a better hypothesis; this one is given up (-Infinity) once it is `margin` nats behind
 */
export function score(track: Track, flat: Flat, tempo: number, o: Observer, against?: Score, margin = 22): Score {
  const marks = track.onset.length;
  const prefix = new Float64Array(marks);
  if (marks === 0)
    return { logLik: Math.log(flat.n ? missedAfterStart(flat, track.until, tempo, o) : 1), prefix, cost: 0 };
  const logExtra = logExtras(track, o);
  if (flat.n === 0) {
    for (let m = 0; m < marks; m++) prefix[m] = (prefix[m - 1] ?? 0) + logExtra[m];
    return { logLik: prefix[marks - 1], prefix, cost: 0 };
  }
  const run: Run = { ...rowsFor(flat, tempo), track, flat, tempo, o, clock: newClock() };
  const after = (m: number): Positions => run.ring[m % run.ring.length];
  /** Log probability that all marks so far were spurious. */
  let allExtra = 0;
  for (let m = 0; m < marks; m++) {
    const last = Math.min(m, MAX_EXTRA + 1);
    let reference = -Infinity;
    for (let back = 1; back <= last && reference === -Infinity; back++) reference = after(m - back).scale;
    if (reference === -Infinity) reference = allExtra;
    const pause = track.pause[m];
    if (pause && m > 0) goOnUnseen(run, after(m - 1), m, pause, FIRST * Math.exp(after(m - 1).scale - reference));
    for (let back = 1, extra = 0; back <= last && !pause; back++) {
      const from = after(m - back);
      if (from.size) goOn(run, from, m, back, Math.exp(from.scale - reference + extra) * (1 - o.miss));
      extra += logExtra[m - back];
    }
    if (m <= MAX_EXTRA) beginAt(run, m, FIRST * Math.exp(allExtra - reference));
    settle(run.column, after(m), BEAM, reference);
    allExtra += logExtra[m];
    let best = Math.max(after(m).scale, allExtra);
    for (let back = 1, extra = 0; back <= MAX_EXTRA && back <= m; back++) {
      extra += logExtra[m - back + 1];
      best = Math.max(best, after(m - back).scale + extra);
    }
    prefix[m] = best;
    if (against && best < against.prefix[m] - margin) return { logLik: -Infinity, prefix, cost: m + 1 };
  }
  return { logLik: endOf(run, allExtra), prefix, cost: marks };
}
