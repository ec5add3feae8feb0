import { foldedIndex, type Alignment } from "./align";
import type { Assigned } from "../answer";
import type { Dialect } from "../dialect/dialect";
import type { Track } from "../seen/evidence";
import type { Flat } from "./flat";
import type { Observer } from "../seen/observer";
import type { Unit } from "../dialect/show";
import { TEMPO_MAX, TEMPO_MIN } from "../dialect/tempo";
import type { Placed, Span } from "./view";

/** So many marks, within this time, tell when a flash was. */
const FEW = 5;
const NEAR_MS = 7000;

/** Least squares of the steps between marks on the show's own, along the best alignment. The prior pulls a little. */
export function refitTempo(track: Track, flat: Flat, { flash }: Alignment, o: Observer): number {
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
    // One mark may be late: the mean of what the last few say.
    let sum = 0;
    let n = 0;
    for (let k = lo; k >= 0 && n < FEW && marks[lo].t - marks[k].t < NEAR_MS; k--, n++)
      sum += marks[k].t + ((at[u] ?? Infinity) - at[marks[k].u]) * tempo;
    return sum / n;
  };
}

/** The showings within the time of watching; full ones lay in it whole and in no pause, with half the rest around that ends a code. */
export function spansOf(
  dialect: Dialect,
  track: Track,
  flat: Flat,
  { flash }: Alignment,
  tempo: number,
  o: Observer,
): Span[] {
  const firstMark = flash.findIndex((f) => f >= 0);
  if (firstMark < 0) return [];
  const { gaps } = dialect;
  const between = Math.min(gaps.code || Infinity, gaps.repeat || Infinity);
  const restNeeded = Number.isFinite(between) ? ((gaps.digit + between) / 2) * tempo : gaps.digit * tempo;
  const spread = Math.hypot(o.onsetSd / 2, o.reactionSd, 0.03 * restNeeded);
  const once = flat.loopAt >= flat.n;
  const at = unrolledTimes(flat, flash[flash.findLastIndex((f) => f >= 0)] + 60).filter(Number.isFinite);
  const timeOf = timer(track, flash, at, tempo);
  const begin = Math.max(0, flash[firstMark] - 40);
  const marked = new Set(flash);
  const slips = slipsOf(track, flat, flash);
  const pauses = [...new Set(track.pause.filter((p) => p !== null))];
  const spans: (Span & { from: number; to: number })[] = [];
  for (let u = begin; u < at.length; u++) {
    const { index, round } = foldedIndex(flat, u);
    const { unit } = flat.flashes[index];
    const last = spans.at(-1);
    if (last && last.unit === unit && last.pass === round) {
      last.to = u;
      last.marked ||= marked.has(u);
      last.exact &&= marked.has(u) && !slips.has(u);
    } else
      spans.push({
        unit,
        pass: round,
        full: 0,
        marked: marked.has(u),
        exact: marked.has(u) && !slips.has(u),
        from: u,
        to: u,
      });
  }
  for (const s of spans) {
    const start = timeOf(s.from) - o.reaction;
    const end = timeOf(s.to) - o.reaction + flat.length[foldedIndex(flat, s.to).index] * tempo;
    // Of what came by while nobody watched, the part that was seen fits many codes.
    const hidden = pauses.some(([from, to]) => start < to && end > from);
    const whole = !hidden && (s.from > begin || begin === 0 || timeOf(begin) < -restNeeded);
    // A show that comes once begins with its first flash: nothing came before it that could belong to it.
    const begins = s.from === 0 && once ? 1 : chance((start - restNeeded) / spread);
    s.full = whole ? begins * chance((track.until - end - restNeeded) / spread) : 0;
  }
  return spans.filter((s) => timeOf(s.to) > 0 && timeOf(s.from) < track.until);
}

/** Flashes of the unrolled show beside which a mark was put in that belongs to nothing, or that were called by the wrong length. */
function slipsOf(track: Track, flat: Flat, flash: Int32Array): Set<number> {
  const slips = new Set<number>();
  for (let m = 0; m < flash.length; m++) {
    // A pause breaks the row: what came in it was not seen.
    if (track.pause[m] && flash[m] >= 0) slips.add(flash[m]);
    if (flash[m] < 0) {
      const before = flash.subarray(0, m).findLast((f) => f >= 0);
      const after = flash.subarray(m + 1).find((f) => f >= 0);
      if (before !== undefined) slips.add(before);
      if (after !== undefined) slips.add(after);
    } else if (track.said[m] && (track.said[m] === 2) !== (flat.long[foldedIndex(flat, flash[m]).index] === 1))
      slips.add(flash[m]);
  }
  return slips;
}

/** Probability that a standard normal deviate is below z (logistic approximation). */
function chance(z: number): number {
  return 1 / (1 + Math.exp(-1.702 * z));
}

/** Where each mark belongs, and what was missed between the first and the last. */
export function placeMarks(dialect: Dialect, track: Track, flat: Flat, { flash }: Alignment, tempo: number): Placed {
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
