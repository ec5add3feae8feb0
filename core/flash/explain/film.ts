import type { Frames } from "../../lamp/levels";
import { stepsTo } from "./align";
import type { Flat } from "./flat";
import { firstFrom } from "../trellis/first";
import type { Score } from "./view";

/** A film, ready to hold shows against: evidence summed up from its start, and the places where a flash may begin. */
export interface Film {
  /** Log of how much likelier the frames before `ms` are with the lamp away from its rest. Sum over frames. */
  upTo: (ms: number) => number;
  /** Times at which a flash may begin, ascending, and the sum up to each. */
  onsets: Float64Array;
  upToOnset: Float64Array;
  /** How much longer a flash seems than it was, ms (a glowing bulb; shorter where the lamp rests lit). */
  glow: number;
  /** Standard deviation of such a time, ms. */
  raster: number;
  until: number;
  /** Stretches in which nobody saw the lamp, in order, ms. */
  gaps: readonly (readonly [from: number, to: number])[];
  /** The lamp answers no more at the end: what should still have come there is not held against a list. */
  stopped: boolean;
}

/** How wide a flank is looked at, ms. */
const FLANK_MS = 200;
/** Beginnings this much worse than the best nearby are left out, nats. */
const NEARLY = 3;

export function filmOf(
  frames: Frames,
  rest: "dark" | "lit",
  until: number,
  stopped: boolean,
  gaps: Film["gaps"] = [],
): Film {
  const { t } = frames;
  const n = t.length;
  const sign = rest === "lit" ? -1 : 1;
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) sums[i + 1] = sums[i] + sign * frames.llr[i];
  const frame = (t[n - 1] - t[0]) / (n - 1);
  // Index of the first frame at or after a time, by way of a table.
  const table = new Int32Array(n + 2);
  for (let b = 0, i = 0; b < table.length; b++) {
    while (i < n && t[i] - t[0] < b * frame) i++;
    table[b] = i;
  }
  const at = (ms: number): number => {
    if (ms <= t[0]) return 0;
    if (ms > t[n - 1]) return n;
    let i = table[Math.min(table.length - 1, Math.floor((ms - t[0]) / frame))];
    while (i < n && t[i] < ms) i++;
    return i;
  };
  const upTo = (ms: number) => sums[at(ms)];
  const width = Math.max(2, Math.round(FLANK_MS / frame));
  const flank = Float64Array.from({ length: n }, (_, i) =>
    i < 2 ? 0 : sums[Math.min(n, i + width)] - 2 * sums[i] + sums[Math.max(0, i - width)],
  );
  const onsets: number[] = [];
  for (let i = 2; i < n - 2; i++) {
    let best = 0;
    for (let k = i - 2; k <= i + 2; k++) best = Math.max(best, flank[k]);
    if (flank[i] > 2 && flank[i] >= best - NEARLY) onsets.push((t[i] + t[i - 1]) / 2);
  }
  return {
    upTo,
    onsets: Float64Array.from(onsets),
    upToOnset: Float64Array.from(onsets, upTo),
    glow: sign * frames.glow,
    raster: 8 + 0.25 * frame,
    until,
    gaps,
    stopped,
  };
}

/** One place of the best path: a flash and when it began. */
interface Place {
  flash: number;
  /** Flashes forward since the path began, the blind ones with them. */
  travelled: number;
  begin: number;
  log: number;
  from: Place | null;
  at: number;
}

export interface Played extends Score {
  last: Place | null;
}

/** Positions followed at each beginning. */
const WIDEST = 6;
const BEHIND = 100;
/** Chance that a flash cannot be seen at all (a hand, a glare), and how many in a row are allowed. */
const BLIND = Math.log(0.01);
const MOST_BLIND = 2;
/** Chance that a lamp stops answering in a watch. */
const STOPPED = Math.log(1e-3);
const REACH = 4.5;
/** A flash that should begin so soon after the watch may have been on already, ms. */
const EARLY_MS = 150;
/** What shows at the beginning is looked at so finely, ms; a picture between two looks adds so much at most, nats. */
const EARLY_GRID_MS = 5;
const EARLY_SLACK = 50;
/** The watch is come upon within so many beginnings. */
const FIRST_ONSETS = 14;
/** After a stretch that nobody saw, the show is come upon within so many beginnings. */
const NEXT_ONSETS = 6;
/** Whoever looks again has seldom begun the show anew: mostly it went on, and keeps its time. */
const ANEW = Math.log(0.1);
/** In a stretch that nobody saw a show is followed as long as it is known within so much when a flash should come, ms. */
const FOLLOWED_MS = 1200;
/** Density of the first onset, log per ms, as for marks. */
const FIRST = -Math.log(5000);

/**
 * Log of how much likelier a film is with this show than with a lamp at rest: the best path through the places where flashes
 * may have begun. All frames count, those within the flashes and, by their absence, those between.
 * @param tempo factor on all times of the show
 * @param against a better hypothesis; this one is given up once it is `margin` nats behind
 */
// eslint-disable-next-line max-lines-per-function -- one picture after another from the same running state
export function playFilm(
  film: Film,
  flat: Flat,
  tempo: number,
  endless: boolean,
  against?: Score,
  margin = 60,
): Played {
  const { upTo, onsets, upToOnset, glow, raster, until, gaps } = film;
  const count = onsets.length;
  const prefix = new Float64Array(count);
  const { n, next } = flat;
  if (!n) return { logLik: 0, prefix, cost: 0, last: null };
  const lengths = flat.length.map((ms, j) => (endless && j === n - 1 ? Infinity : ms * tempo + glow));
  const within = (j: number, t: number) => upTo(Math.min(until, t + lengths[j])) - upTo(t);
  /** The same of a flash that begins at an onset. */
  const withinFrom = (j: number, k: number) => upTo(Math.min(until, onsets[k] + lengths[j])) - upToOnset[k];
  const places: Place[][] = Array.from({ length: count }, () => []);
  /** Where in an onset's list each flash stands, -1 where it does not. */
  const placeOf: Int32Array[] = [];
  /** Flash `j` begins at onset `i`, `travelled` flashes on from `from`: kept where it is likelier than what is known of it there. */
  const put = (i: number, flash: number, travelled: number, log: number, from: Place | null): void => {
    const list = places[i];
    const known = (placeOf[i] ??= new Int32Array(n).fill(-1));
    if (known[flash] < 0) known[flash] = list.length;
    else if (list[known[flash]].log >= log) return;
    const begin = from ? from.begin : flash;
    list[known[flash]] = { flash, travelled: (from?.travelled ?? 0) + travelled, begin, log, from, at: onsets[i] };
  };
  const isUnseen = (ms: number) => gaps.some(([from, to]) => ms > from && ms < to);
  /**
   * What should have been seen before the first flash that was, back to the start of the watch, or to where it went on.
   * @param hopeless what has fallen below this need not be known any better
   */
  const unseenBefore = (j: number, t: number, start = 0, hopeless = -Infinity): number => {
    let log = 0;
    let at = t;
    let i = j;
    for (let k = 0; k < 30; k++) {
      const b = i === flat.loopAt && flat.loopAt < n ? n - 1 : i - 1;
      if (b < 0) break;
      at -= flat.step[b] * tempo;
      const end = Math.min(until, at + lengths[b]);
      if (end <= start && at < start - 20_000) break;
      const seen = end > start ? upTo(end) - upTo(Math.max(start, at)) : 0;
      // One that was on when the watch began, or by the tempo's error just after, shows no beginning. It may show, or be taken
      // for daylight, since nothing was dark before it.
      log += at > start + EARLY_MS ? BLIND + Math.min(0, seen) : Math.max(seen, BLIND);
      if ((at < start && end <= start) || log < hopeless) break;
      i = b;
    }
    return log;
  };
  const begin = Math.min(count, FIRST_ONSETS);
  const early = earlyMost(upTo, EARLY_MS + lengths.reduce((a, b) => Math.max(a, b), 0), until);
  for (let i = 0; i < begin; i++) {
    let most = -Infinity;
    for (let j = 0; j < n; j++) {
      const own = FIRST + withinFrom(j, i);
      const anywhere = Math.log((1 - flat.fromStart) / n);
      const middle = anywhere + unseenBefore(j, onsets[i], 0, most - BEHIND - early - own - anywhere);
      const start = j === 0 ? Math.log(flat.fromStart) : -Infinity;
      const log = Math.max(middle, start) + own;
      most = Math.max(most, log);
      put(i, j, 0, log, null);
    }
  }
  /** What should have been seen after a flash, up to a time at which something else came. */
  const unseenAfter = (p: Place, end: number): number => {
    let unseen = 0;
    let j = p.flash;
    let at = p.at;
    for (let k = 0; k < 8 && next[j] >= 0; k++) {
      at += flat.step[j] * tempo;
      j = next[j];
      const slack = 3 * Math.sqrt(flat.stepVar[j]) + 2 * raster;
      if (at + slack > end) break;
      if (!isUnseen(at)) unseen += BLIND + Math.min(0, within(j, at));
    }
    return unseen;
  };
  /** Nobody saw the lamp from `gap[0]` to `gap[1]`: the show went on to anywhere, or began anew. */
  const resume = ([from, to]: readonly [number, number], at: number): void => {
    let before: Place | null = null;
    let most = -Infinity;
    for (let i = at - 1; i >= Math.max(0, at - NEXT_ONSETS); i--)
      for (const p of places[i]) {
        const log = p.log + unseenAfter(p, from);
        if (log > most) [before, most] = [p, log];
      }
    if (!before) return;
    for (let i = at; i < Math.min(count, at + NEXT_ONSETS); i++)
      for (let j = 0; j < n; j++) {
        const steps = stepsTo(flat, before.flash, j);
        if (!steps) continue;
        const log = most + ANEW + FIRST - Math.log(n) + unseenBefore(j, onsets[i], to) + withinFrom(j, i);
        put(i, j, steps, log, before);
      }
  };
  let best = -Infinity;
  let coming = 0;
  for (let i = 0; i < count; i++) {
    while (coming < gaps.length && gaps[coming][1] <= onsets[i]) {
      if (i > 0) resume(gaps[coming], i);
      coming++;
    }
    const keep = i < begin ? notBehind(places[i]) : likeliest(places[i]);
    places[i] = keep;
    for (const p of keep) {
      best = Math.max(best, p.log);
      let j = p.flash;
      let center = onsets[i];
      let variance = raster * raster;
      let log = p.log;
      for (let step = 1, blind = 0; blind <= MOST_BLIND && next[j] >= 0; step++) {
        center += flat.step[j] * tempo;
        variance += flat.stepVar[j] * tempo * tempo;
        j = next[j];
        if (center > until) break;
        const sum = variance + raster * raster;
        const reach = REACH * Math.sqrt(sum);
        if (step > MOST_BLIND + 1 && reach > FOLLOWED_MS) break;
        const base = log - 0.5 * Math.log(2 * Math.PI * sum);
        for (let k = firstFrom(onsets, center - reach); k < count && onsets[k] < center + reach; k++) {
          if (k <= i) continue;
          const late = onsets[k] - center;
          put(k, j, step, base - (0.5 * late * late) / sum + withinFrom(j, k), p);
        }
        if (isUnseen(center)) continue;
        blind++;
        log += BLIND + Math.min(0, within(j, center));
      }
    }
    prefix[i] = best;
    if (against && best < against.prefix[i] - margin && i > begin)
      return { logLik: -Infinity, prefix, cost: i + 1, last: null };
  }
  let last: Place | null = null;
  // The end: flashes that should still have come were not seen to.
  let total = n ? startUnseen(film, flat, tempo, lengths) : 0;
  const longest = flat.step.reduce((a, b) => (Number.isFinite(b) ? Math.max(a, b) : a), 0) * tempo;
  for (let i = count - 1; i >= 0; i--) {
    for (const p of places[i]) {
      const unseen = unseenAfter(p, until);
      const log = p.log + (film.stopped ? Math.max(STOPPED, unseen) : unseen);
      if (log > total) {
        total = log;
        last = p;
      }
    }
    if (last && onsets[i] < until - 4 * longest) break;
  }
  return { logLik: total, prefix, cost: count, last };
}

const notBehind = (list: readonly Place[]): Place[] => {
  const least = list.reduce((most, p) => Math.max(most, p.log), -Infinity) - BEHIND;
  return list.filter((p) => p.log > least).sort((a, b) => b.log - a.log);
};

/** The few likeliest, best first; the first of two that are as likely. */
function likeliest(list: readonly Place[]): Place[] {
  const few: Place[] = [];
  for (const p of list) {
    if (few.length === WIDEST && p.log <= few[WIDEST - 1].log) continue;
    let at = Math.min(few.length, WIDEST - 1);
    for (; at > 0 && few[at - 1].log < p.log; at--) few[at] = few[at - 1];
    few[at] = p;
  }
  return few;
}

/** The most that a flash may gain that was on when the watch began. */
function earlyMost(upTo: Film["upTo"], within: number, until: number): number {
  let most = 0;
  for (let ms = 0, end = Math.min(until, within); ms <= end; ms += EARLY_GRID_MS) most = Math.max(most, upTo(ms));
  return most + EARLY_SLACK;
}

/** A show of which nothing was seen to begin. */
function startUnseen(film: Film, flat: Flat, tempo: number, lengths: Float64Array): number {
  const at = flat.first * tempo + 1500;
  return at > film.until ? 0 : BLIND + film.upTo(Math.min(film.until, at + lengths[0])) - film.upTo(at);
}

/** The path, first flash first: unrolled index and time of each flash that was seen to begin. */
export function pathOf({ last }: Played): { flash: number; at: number }[] {
  const path: { flash: number; at: number }[] = [];
  for (let p = last; p; p = p.from) path.push({ flash: p.begin + p.travelled, at: p.at });
  return path.reverse();
}
