import type { ReadinessLamp } from "../pack/way";

/** What somebody saw who watched the lamp after the key went on. */
export interface LampWatched {
  /** Taps or flashes, ms from key-on. */
  flashes: readonly number[];
  /** Was the lamp lit, dark or blinking at the end? */
  atEnd: "lit" | "dark";
  /** How long it was watched, ms from key-on. */
  watched: number;
  /** Stretches in which nobody watched (the page was closed or hidden), ms from key-on. */
  unseen?: readonly (readonly [number, number])[];
}

export interface ReadinessVerdict {
  state: "complete" | "not-complete" | "too-early" | "unclear";
  headline: string;
  reason: string;
}

/** A tap within this time is the lamp lighting up as the key goes on, ms. */
const KEY_ON_MS = 2000;
/** A blink so long before the lamp tells is before its time, ms. */
const EARLY_MS = 3000;

/** A blink takes longer than this, ms: what was missed of the watch may not be more. */
const MISSED_MS = 200;

/** Stretches with one more behind them; those that touch are one. */
export function withUnseen(
  unseen: readonly [number, number][],
  [from, to]: readonly [number, number],
): [number, number][] {
  const last = unseen.at(-1);
  return last && last[1] >= from ? [...unseen.slice(0, -1), [last[0], to]] : [...unseen, [from, to]];
}

/** How much of a stretch nobody watched, ms. */
const unwatched = (unseen: readonly (readonly [number, number])[], from: number, to: number): number =>
  unseen.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(b, to) - Math.max(a, from)), 0);

/** Verdict on the readiness monitors from what the lamp did; a watch that was too short, or saw a blink before its time, says nothing. */
export function readinessVerdict(way: ReadinessLamp, seen: LampWatched): ReadinessVerdict {
  const told = way.waitSeconds * 1000;
  const flashes = seen.flashes.filter((t) => t > KEY_ON_MS);
  const blinks = flashes.filter((t) => t > told - EARLY_MS).length;
  const early = flashes.length - blinks;
  // One or two may be taps by mistake; half of the blinks that the lamp gives are no mistake.
  if (early < 2 && blinks >= Math.max(2, way.blinks / 2))
    return {
      state: "not-complete",
      headline: "Not ready: the monitors are not complete.",
      reason: `The lamp blinked ${blinks} times after the wait. An inspection now would fail for readiness.`,
    };
  const left = Math.ceil((told + way.watchSeconds * 1000 - seen.watched) / 1000);
  if (left > 0)
    return {
      state: "too-early",
      headline: `Watch ${left} s more.`,
      reason: `The lamp tells only after ${way.waitSeconds} s with the key on.`,
    };
  if (early)
    return {
      state: "unclear",
      headline: "It blinked before its time: watch once more.",
      reason: `The lamp tells ${way.waitSeconds} s after key-on, and not before. Either the key was on already when the time began, or it is another lamp. Key off for ten seconds, then begin as the key goes on.`,
    };
  const missed = unwatched(seen.unseen ?? [], told - EARLY_MS, told + way.watchSeconds * 1000);
  if (missed > MISSED_MS)
    return {
      state: "unclear",
      headline: "Nobody watched when it tells: watch once more.",
      reason: `For ${Math.ceil(missed / 1000)} s of it this page was closed or out of sight, or the camera could not make the lamp out. Key off for ten seconds, then begin as the key goes on.`,
    };
  const expected = way.complete === "steady" ? "lit" : "dark";
  if (blinks === 0 && seen.atEnd === expected)
    return {
      state: "complete",
      headline: "Ready, as the lamp shows it.",
      reason: `It ${way.complete === "steady" ? "stayed lit" : "went out"} through the whole watch. That counts only if the time began as the key went on: later the lamp tells nothing more.`,
    };
  return {
    state: "unclear",
    headline: "Not clear: watch once more.",
    reason: blinks
      ? `${blinks === 1 ? "One blink" : `${blinks} blinks`} is too few for "not complete" and too many for "complete". Key off, and again.`
      : "The lamp did neither of what it does here. Is it the right lamp, and the key fully on?",
  };
}
