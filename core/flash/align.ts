import { extraDensity, FIRST, gauss, tick, type Clock } from "./density";
import type { Track } from "./evidence";
import type { Flat } from "./flat";
import type { Observer } from "./observer";
import type { Score } from "./view";

/** How far a hidden state may fall behind the best one before it is dropped. */
const BEAM = 1e-5;
/** So many positions are followed by the best path; at the start, all, since nothing tells them apart yet. */
const VITERBI_BEAM = 40;
/** At most so many marks in a row are taken for spurious. */
const MAX_EXTRA = 3;
/** The key is usually turned on within this time from the start of watching, ms. */
const KEY_ON_WITHIN = 2500;

/** A watch that somebody begins by asking begins so exactly, ms; and so often it does not at all. */
const ASKED_SD = 40;
const UNTIMELY = 0.03;

/** The hidden positions still alive after a mark, with their weights; the factor taken out of them is kept as a log. */
interface State {
  index: Int32Array;
  weight: Float64Array;
  /** The unit's clock, given this position: see {@link Clock}. */
  late: Float64Array;
  variance: Float64Array;
  size: number;
  scale: number;
}

/** Probability of what was said of a mark, given that it is flash `j`. */
function named(track: Track, m: number, flat: Flat, j: number, o: Observer): number {
  const said = track.said[m];
  if (!said) return 1;
  return (said === 2) === (flat.long[j] === 1) ? 1 - o.misnamed : o.misnamed;
}

/** Takes mark `m` in as flash `j`; see {@link tick}. */
function tickAs(
  clock: Clock,
  track: Track,
  m: number,
  flat: Flat,
  j: number,
  tempo: number,
  o: Observer,
  late: number,
  variance: number,
): void {
  const next = flat.next[j];
  const merged = next < 0 ? NaN : (flat.step[j] + flat.length[next]) * tempo;
  tick(clock, late, variance, o, track.length[m], flat.length[j] * tempo, merged);
}

/** Flashes that should have been seen in `ms` before flash `j`, and were not: probability of that. */
function missedBefore(flat: Flat, j: number, ms: number, tempo: number, o: Observer): number {
  let p = 1;
  let left = ms - o.lag;
  let i = j;
  for (let k = 0; k < 40; k++) {
    const before = i === flat.loopAt && flat.loopAt < flat.n ? flat.n - 1 : i - 1;
    if (before < 0) break;
    left -= flat.step[before] * tempo;
    if (left < 0) break;
    p *= o.miss;
    i = before;
  }
  return p;
}

/** Flashes that should have been seen in the `ms` after flash `j`. */
function missedAfter(flat: Flat, j: number, ms: number, tempo: number, o: Observer): number {
  let p = 1;
  let left = ms - o.lag;
  const factor = o.miss;
  let i = j;
  for (let k = 0; k < 40; k++) {
    const slack = 3 * Math.sqrt(flat.stepVar[i]) * tempo + 2 * o.onsetSd;
    left -= flat.step[i] * tempo;
    if (flat.next[i] < 0 || left < slack) break;
    p *= factor;
    i = flat.next[i];
  }
  return p;
}

/**
 * Probability of a track, given what the unit shows: the forward algorithm over the hidden position in the show,
 * with flashes missed and marks invented (Rabiner 1989, III; durations enter as densities of onset-to-onset
 * times, so the time that a missed flash took is not lost).
 *
 * @param tempo factor on all times of the show
 * @param against a better hypothesis; this one is given up (-Infinity) once it is `margin` nats behind
 */
// eslint-disable-next-line max-lines-per-function -- one loop over the marks: its parts share a dozen rows that are written in place
export function score(track: Track, flat: Flat, tempo: number, o: Observer, against?: Score, margin = 22): Score {
  const marks = track.onset.length;
  const prefix = new Float64Array(marks);
  if (marks === 0) {
    const p = flat.n ? missedAfterStart(flat, track.until, tempo, o) : 1;
    return { logLik: Math.log(p), prefix, cost: 0 };
  }
  if (flat.n === 0) {
    let log = 0;
    for (let m = 0; m < marks; m++) prefix[m] = log += Math.log(extraDensity(track, m, o));
    return { logLik: log, prefix, cost: 0 };
  }
  const { n, next } = flat;
  const steps = new Float64Array(n);
  const stepVars = new Float64Array(n);
  for (let j = 0; j < n; j++) {
    steps[j] = flat.step[j] * tempo;
    stepVars[j] = flat.stepVar[j] * tempo * tempo;
  }
  const ring: State[] = Array.from({ length: MAX_EXTRA + 2 }, () => ({
    index: new Int32Array(n),
    weight: new Float64Array(n),
    late: new Float64Array(n),
    variance: new Float64Array(n),
    size: 0,
    scale: -Infinity,
  }));
  const after = (m: number): State => ring[m % ring.length];
  const logExtraAt = new Float64Array(marks);
  for (let m = 0; m < marks; m++) logExtraAt[m] = Math.log(extraDensity(track, m, o));
  const dense = new Float64Array(n);
  const touched = new Int32Array(n);
  /** Sums by which the clocks of ways that meet in one position are merged. */
  const lateSum = new Float64Array(n);
  const squareSum = new Float64Array(n);
  const clock: Clock = { p: 0, late: 0, variance: 0 };
  const noise = o.onsetSd ** 2;
  let extrasSoFar = 0;
  for (let m = 0; m < marks; m++) {
    let size = 0;
    const add = (j: number, w: number, late: number, variance: number) => {
      tickAs(clock, track, m, flat, j, tempo, o, late, variance);
      w *= clock.p * named(track, m, flat, j, o);
      if (w <= 0) return;
      if (dense[j] === 0) touched[size++] = j;
      dense[j] += w;
      lateSum[j] += w * clock.late;
      squareSum[j] += w * (clock.variance + clock.late * clock.late);
    };
    let reference = -Infinity;
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m && reference === -Infinity; back++)
      reference = after(m - back).scale;
    if (reference === -Infinity) reference = extrasSoFar;
    const pause = track.pause[m];
    if (pause && m > 0) {
      // Nobody watched: the show went on to anywhere.
      const from = after(m - 1);
      const factor = FIRST * Math.exp(from.scale - reference);
      let until = 0;
      for (let s = 0; s < from.size; s++)
        until += from.weight[s] * missedAfter(flat, from.index[s], pause[0] - track.onset[m - 1], tempo, o);
      for (let j = 0; j < n; j++) {
        const before = missedBefore(flat, j, track.onset[m] - pause[1], tempo, o);
        add(j, (until * factor * before) / n, 0, Infinity);
      }
    }
    let extras = 0;
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m && !pause; back++) {
      const from = after(m - back);
      const relative = from.scale - reference + extras;
      extras += logExtraAt[m - back];
      if (from.size === 0 || relative < -60) continue;
      const factor = Math.exp(relative) * (1 - o.miss);
      const dt = track.onset[m] - track.onset[m - back];
      for (let s = 0; s < from.size; s++) {
        let j = from.index[s];
        let late = from.late[s] - dt;
        let variance = from.variance[s];
        let w = from.weight[s] * factor;
        const least = w * 1e-6;
        const missFactor = o.miss;
        while (next[j] >= 0 && w > least) {
          late += steps[j];
          variance += stepVars[j];
          const square = late * late;
          const sum = variance + noise;
          if (late > 0 && square > 100 * sum) break;
          j = next[j];
          if (square <= 150 * sum) add(j, w, late, variance);
          w *= missFactor;
        }
      }
    }
    if (m <= MAX_EXTRA) {
      // Watching begins at this mark; those before it were spurious.
      const relative = Math.exp(extrasSoFar - reference) * FIRST;
      if (relative > 0)
        for (let j = 0; j < n; j++) {
          const w = relative * beginning(flat, j, track.onset[m], tempo, o);
          if (w > 0) add(j, w, 0, Infinity);
        }
    }
    extrasSoFar += logExtraAt[m];
    let max = 0;
    for (let k = 0; k < size; k++) max = Math.max(max, dense[touched[k]]);
    const state = after(m);
    state.size = 0;
    state.scale = -Infinity;
    let sum = 0;
    for (let k = 0; k < size; k++) {
      const j = touched[k];
      if (dense[j] > max * BEAM) {
        const late = lateSum[j] / dense[j];
        state.index[state.size] = j;
        state.late[state.size] = late;
        state.variance[state.size] = squareSum[j] / dense[j] - late * late;
        state.weight[state.size++] = dense[j];
        sum += dense[j];
      }
      dense[j] = 0;
      lateSum[j] = 0;
      squareSum[j] = 0;
    }
    if (max > 0) {
      state.scale = reference + Math.log(sum);
      for (let k = 0; k < state.size; k++) state.weight[k] /= sum;
    }
    let best = Math.max(state.scale, extrasSoFar);
    for (let back = 1, e = 0; back <= MAX_EXTRA && back <= m; back++) {
      e += logExtraAt[m - back + 1];
      best = Math.max(best, after(m - back).scale + e);
    }
    prefix[m] = best;
    if (against && best < against.prefix[m] - margin) return { logLik: -Infinity, prefix, cost: m + 1 };
  }
  // The end: what should still have come, and trailing spurious marks.
  let total = extrasSoFar + Math.log(missedAfterStart(flat, track.until, tempo, o));
  for (let back = 1, e = 0; back <= MAX_EXTRA + 1 && back <= marks; back++) {
    const state = after(marks - back);
    let sum = 0;
    const left = track.until - track.onset[marks - back];
    for (let s = 0; s < state.size; s++) sum += state.weight[s] * missedAfter(flat, state.index[s], left, tempo, o);
    if (sum > 0) total = logAdd(total, state.scale + Math.log(sum) + e);
    e += logExtraAt[marks - back];
  }
  // That no further marks were made where they might have been: the same for every show, but not for every observer.
  total += marks * Math.log1p(-Math.min(0.5, o.double)) - track.until * o.extra;
  return { logLik: total, prefix, cost: prefix.length };
}

/**
 * Probability that the first mark, at `t`, is flash `j`: watching began with the show (the first flashes may have been
 * missed), or somewhere in it, and then what came before within the watch was missed.
 */
function beginning(flat: Flat, j: number, t: number, tempo: number, o: Observer): number {
  const middle = ((1 - flat.fromStart) / flat.n) * missedBefore(flat, j, t, tempo, o);
  if (j > 5) return middle;
  let at = flat.first;
  for (let i = 0; i < j; i++) at += flat.step[i];
  if (flat.usual !== undefined) {
    // Both of the two times that are compared were seen by the same eyes.
    const sd = Math.SQRT2 * o.onsetSd + ASKED_SD;
    const off = t - flat.usual - (at - flat.first) * tempo;
    return (UNTIMELY + ((1 - UNTIMELY) * gauss(off, sd * sd)) / FIRST) * o.miss ** j;
  }
  // The show begins soon after watching does; later only where the key was turned late.
  const wait = t - at * tempo;
  const timely = wait < -400 ? 0 : wait < KEY_ON_WITHIN ? 1 : 0.1;
  const missed = o.miss ** j;
  return middle + flat.fromStart * timely * missed;
}

function missedAfterStart(flat: Flat, until: number, tempo: number, o: Observer): number {
  if (!flat.n) return 1;
  const wait = flat.first * tempo + KEY_ON_WITHIN;
  return until < wait ? 1 : o.miss * missedAfter(flat, 0, until - wait, tempo, o);
}

export function logAdd(a: number, b: number): number {
  if (a === -Infinity) return b;
  if (b === -Infinity) return a;
  return a > b ? a + Math.log1p(Math.exp(b - a)) : b + Math.log1p(Math.exp(a - b));
}

/** The single best explanation of a track by a show. */
export interface Alignment {
  /** For each mark, the index of its flash in the unrolled show (round after round), or -1 where it is spurious. */
  flash: Int32Array;
  logLik: number;
}

/**
 * The most probable assignment of marks to flashes (Viterbi). Unrolled index: `u < flat.n` is flash `u`; beyond,
 * the loop goes round: see {@link foldedIndex}.
 */
// eslint-disable-next-line max-lines-per-function -- one loop over the marks, as in score
export function align(track: Track, flat: Flat, tempo: number, o: Observer): Alignment {
  const marks = track.onset.length;
  const flash = new Int32Array(marks).fill(-1);
  if (!marks || !flat.n) return { flash, logLik: 0 };
  interface Node {
    j: number;
    /** Steps forward in the show since the path began. */
    travelled: number;
    log: number;
    from: Node | null;
    m: number;
    begin: number;
    late: number;
    variance: number;
  }
  const clock: Clock = { p: 0, late: 0, variance: 0 };
  const nodes: Node[][] = [];
  let before = 0;
  const keep = (map: Map<number, Node>, node: Node) => {
    const old = map.get(node.j);
    if (!old || old.log < node.log) map.set(node.j, node);
  };
  for (let m = 0; m < marks; m++) {
    const map = new Map<number, Node>();
    let extras = 0;
    const pause = track.pause[m];
    const from = pause && m > 0 ? nodes[m - 1].at(0) : undefined;
    if (pause && from)
      for (let j = 0; j < flat.n; j++) {
        const steps = stepsTo(flat, from.j, j);
        const missed =
          missedAfter(flat, from.j, pause[0] - track.onset[m - 1], tempo, o) *
          missedBefore(flat, j, track.onset[m] - pause[1], tempo, o);
        tickAs(clock, track, m, flat, j, tempo, o, 0, Infinity);
        const p = (FIRST * missed * clock.p * named(track, m, flat, j, o)) / flat.n;
        const { late, variance } = clock;
        if (steps > 0 && p > 0)
          keep(map, {
            j,
            travelled: from.travelled + steps,
            log: from.log + Math.log(p),
            from,
            m,
            begin: from.begin,
            late,
            variance,
          });
      }
    for (let back = 1; back <= MAX_EXTRA + 1 && back <= m && !pause; back++) {
      const dt = track.onset[m] - track.onset[m - back];
      for (const from of nodes[m - back]) {
        let j = from.j;
        let late = from.late - dt;
        let variance = from.variance;
        let log = from.log + extras + Math.log(1 - o.miss);
        const missLog = Math.log(o.miss);
        let steps = 0;
        while (flat.next[j] >= 0 && steps < 60) {
          late += flat.step[j] * tempo;
          variance += flat.stepVar[j] * tempo * tempo;
          const sum = variance + o.onsetSd ** 2;
          if (late > 0 && late * late > 100 * sum) break;
          j = flat.next[j];
          steps++;
          if (late * late <= 150 * sum) {
            tickAs(clock, track, m, flat, j, tempo, o, late, variance);
            const here = log + Math.log(clock.p * named(track, m, flat, j, o));
            if (here > -Infinity)
              keep(map, {
                j,
                travelled: from.travelled + steps,
                log: here,
                from,
                m,
                begin: from.begin,
                late: clock.late,
                variance: clock.variance,
              });
          }
          log += missLog;
        }
      }
      extras += Math.log(extraDensity(track, m - back, o));
    }
    if (m <= MAX_EXTRA)
      for (let j = 0; j < flat.n; j++) {
        tickAs(clock, track, m, flat, j, tempo, o, 0, Infinity);
        const p = FIRST * beginning(flat, j, track.onset[m], tempo, o) * clock.p * named(track, m, flat, j, o);
        const { late, variance } = clock;
        if (p > 0) keep(map, { j, travelled: 0, log: before + Math.log(p), from: null, m, begin: j, late, variance });
      }
    before += Math.log(extraDensity(track, m, o));
    const list = [...map.values()].sort((a, b) => b.log - a.log);
    nodes.push(list.filter((node, i) => node.log > list[0].log - 25 && (i < VITERBI_BEAM || m < 12)));
  }
  let end: Node | null = null;
  let endLog = before;
  for (let back = 1, e = 0; back <= MAX_EXTRA + 1 && back <= marks; back++) {
    for (const node of nodes[marks - back]) {
      const left = track.until - track.onset[marks - back];
      const log = node.log + e + Math.log(missedAfter(flat, node.j, left, tempo, o));
      if (log > endLog) {
        endLog = log;
        end = node;
      }
    }
    e += Math.log(extraDensity(track, marks - back, o));
  }
  for (let node = end; node; node = node.from) flash[node.m] = node.begin + node.travelled;
  return { flash, logLik: endLog };
}

/** Steps forward from flash `a` to flash `b`, at least one; 0 where the show never comes to `b` again. */
export function stepsTo(flat: Flat, a: number, b: number): number {
  if (b > a) return b - a;
  return b >= flat.loopAt ? flat.n - a + b - flat.loopAt : 0;
}

/** Index in `flat` of an unrolled index, and how often the loop has gone round before it. */
export function foldedIndex(flat: Flat, unrolled: number): { index: number; round: number } {
  if (unrolled < flat.n || flat.loopAt >= flat.n) return { index: unrolled, round: 0 };
  const length = flat.n - flat.loopAt;
  const beyond = unrolled - flat.loopAt;
  return { index: flat.loopAt + (beyond % length), round: Math.floor(beyond / length) };
}
