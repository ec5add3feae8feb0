import { FIRST, newClock, tick, type Lengths } from "../seen/density";
import type { Track } from "../seen/evidence";
import { lengthsInto, type Flat } from "./flat";
import { beginning, missedAfter, missedBefore } from "./missed";
import type { Observer } from "../seen/observer";
import { logExtras, MAX_EXTRA } from "../seen/spurious";

/** So many positions are followed by the best path; at the start, all, since nothing tells them apart yet. */
const VITERBI_BEAM = 40;

/** Probability of what was said of a mark, given that it is flash `j`. */
function named(track: Track, m: number, flat: Flat, j: number, o: Observer): number {
  const said = track.said[m];
  if (!said) return 1;
  return (said === 2) === (flat.long[j] === 1) ? 1 - o.misnamed : o.misnamed;
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
  const clock = newClock();
  const lengths: Lengths = { alone: new Float64Array(flat.n), merged: new Float64Array(flat.n) };
  lengthsInto(lengths, flat, tempo);
  /** Takes mark `m` in as flash `j`; see {@link tick}. */
  const take = (m: number, j: number, late: number, variance: number) => {
    clock.late = late;
    clock.variance = variance;
    tick(clock, o, track.length, m, lengths, j);
  };
  const nodes: Node[][] = [];
  const logExtra = logExtras(track, o);
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
        take(m, j, 0, Infinity);
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
            take(m, j, late, variance);
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
      extras += logExtra[m - back];
    }
    if (m <= MAX_EXTRA)
      for (let j = 0; j < flat.n; j++) {
        take(m, j, 0, Infinity);
        const p = FIRST * beginning(flat, j, track.onset[m], tempo, o) * clock.p * named(track, m, flat, j, o);
        const { late, variance } = clock;
        if (p > 0) keep(map, { j, travelled: 0, log: before + Math.log(p), from: null, m, begin: j, late, variance });
      }
    before += logExtra[m];
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
    e += logExtra[marks - back];
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
