import { emptySums, sumsOf, THIN, type Picture, type Raster, type Sums } from "./picture";

/** How a picture's brightness runs across and down: the sums of its columns and rows, differentiated. */
export interface Profile {
  across: Float32Array;
  down: Float32Array;
}

/** Where a picture lies against the one that watching began with, raster pixels, and how well the two agree, -1 to 1. */
export interface Shift {
  dx: number;
  dy: number;
  agrees: number;
}

/** The camera moves hardly, and may move, so far from one picture to the next, and from where it began, raster pixels. */
const NEARBY = 3;
const STEP = 14;
const RANGE = 90;
/** Below this agreement no movement is believed: something passes, or the camera looks elsewhere. */
const LOST = 0.35;
/** A profile with less than this (mean square) has nothing in it to follow: a dark shed, or a lens that is covered. */
const FEATURELESS = 0.01;
/** From this agreement on nothing better is looked for further off. */
const SURE = 0.65;
/** The reference follows the light so fast. */
const FOLLOW = 0.02;
/** How steep the brightness may be to count in full; lamps and glare are steep, the dashboard is many small steps. */
const STEEP = 6;

export function emptyProfile({ width, height }: Raster): Profile {
  return { across: new Float32Array(width), down: new Float32Array(height) };
}

/** @param sums,into room for what is worked out; `into` is filled and returned */
export function profileOf(
  picture: Picture,
  raster: Raster,
  sums: Sums = emptySums(raster),
  into = emptyProfile(raster),
): Profile {
  const { across, down } = sumsOf(picture, raster, sums);
  steps(across, raster.height, into.across);
  steps(down, raster.width, into.down);
  return into;
}

/** @param length of the columns (or rows) that were summed, of which one in {@link THIN} pixels was taken */
function steps(sums: Int32Array, length: number, out: Float32Array): void {
  const unit = THIN / length;
  for (let i = 2; i < sums.length - 2; i++) {
    const d = unit * (sums[i + 1] + sums[i + 2] - sums[i - 1] - sums[i - 2]);
    out[i] = d / (1 + Math.abs(d) / STEEP);
  }
}

/** Follows the shaking of a camera by the profiles of its pictures: a state that is moved on with each of them. */
export interface Follower {
  reference: Profile;
  last: Shift;
  /** How many pictures in a row did not agree. */
  lost: number;
}

export function follower(first: Profile): Follower {
  return { reference: first, last: { dx: 0, dy: 0, agrees: 1 }, lost: 0 };
}

/** @returns the state after this picture; its `last` is where the picture lies */
export function follow(state: Follower, profile: Profile): Follower {
  const x = match(state.reference.across, profile.across, state.last.dx, state.lost);
  const y = match(state.reference.down, profile.down, state.last.dy, state.lost);
  // Where there is nothing to follow, the camera is taken to stand still.
  if (x.agrees === null && y.agrees === null) return { ...state, lost: 0 };
  const agrees = Math.min(x.agrees ?? 1, y.agrees ?? 1);
  if (agrees < LOST) return { ...state, last: { ...state.last, agrees }, lost: state.lost + 1 };
  blend(state.reference.across, profile.across, x.at);
  blend(state.reference.down, profile.down, y.at);
  return { reference: state.reference, last: { dx: x.at, dy: y.at, agrees }, lost: 0 };
}

/** Normalized cross-correlation over whole shifts around the last one; further off only where it is not to be found nearby. */
function match(
  reference: Float32Array,
  now: Float32Array,
  last: number,
  lost: number,
): { at: number; agrees: number | null } {
  const [own, other] = [energy(reference), energy(now)];
  const least = FEATURELESS * reference.length;
  if (own < least || other < least) return { at: last, agrees: null };
  const most = Math.min(RANGE, reference.length >> 2);
  let best = -Infinity;
  let at = last;
  let [from, to] = [last, last - 1];
  const widen = (by: number): void => {
    const [a, b] = [Math.max(-most, last - by), Math.min(most, last + by)];
    for (let s = a; s <= b; s++) {
      if (s >= from && s <= to) continue;
      const r = correlation(reference, now, s, own, other);
      if (r > best) [best, at] = [r, s];
    }
    [from, to] = [a, b];
  };
  widen(NEARBY);
  if (best < SURE || Math.abs(at - last) === NEARBY) widen(STEP);
  if (lost > 3) widen(RANGE);
  return { at, agrees: best };
}

/** Sum of the squares of a stretch. */
function energy(profile: Float32Array, from = 0, to = profile.length): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += profile[i] * profile[i];
  return sum;
}

/** Correlation where both overlap. @param own,other energies of the whole, of which what does not overlap is taken off */
function correlation(reference: Float32Array, now: Float32Array, s: number, own: number, other: number): number {
  const n = reference.length;
  const [from, to] = s < 0 ? [-s, n] : [0, n - s];
  let xy = 0;
  for (let i = from; i < to; i++) xy += reference[i] * now[i + s];
  const xx = own - energy(reference, 0, from) - energy(reference, to, n);
  const yy = other - energy(now, 0, from + s) - energy(now, to + s, n);
  return xy / Math.sqrt((Math.max(0, xx) + 1e-3) * (Math.max(0, yy) + 1e-3));
}

function blend(reference: Float32Array, now: Float32Array, s: number): void {
  for (let i = Math.max(0, -s), end = Math.min(reference.length, reference.length - s); i < end; i++)
    reference[i] += FOLLOW * (now[i + s] - reference[i]);
}
