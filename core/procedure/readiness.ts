import type { ReadinessLamp } from "../pack/way";

/** What somebody saw who watched the lamp after the key went on. */
export interface LampWatched {
  /** Taps or flashes, ms from key-on. */
  flashes: readonly number[];
  /** Was the lamp lit, dark or blinking at the end? */
  atEnd: "lit" | "dark";
  /** How long it was watched, ms from key-on. */
  watched: number;
}

export interface ReadinessVerdict {
  state: "complete" | "not-complete" | "too-early" | "unclear";
  headline: string;
  reason: string;
}

/** Verdict on the readiness monitors from what the lamp did; a watch that was too short says nothing. */
export function readinessVerdict(way: ReadinessLamp, seen: LampWatched): ReadinessVerdict {
  const told = way.waitSeconds * 1000;
  const blinks = seen.flashes.filter((t) => t > told - 3000).length;
  // One or two may be taps by mistake; half of the blinks that the lamp gives are no mistake.
  if (blinks >= Math.max(2, way.blinks / 2))
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
  const expected = way.complete === "steady" ? "lit" : "dark";
  if (blinks === 0 && seen.atEnd === expected)
    return {
      state: "complete",
      headline: "Ready: all monitors are complete.",
      reason: `The lamp ${way.complete === "steady" ? "stayed lit" : "went out"} through the whole watch.`,
    };
  return {
    state: "unclear",
    headline: "Not clear: watch once more.",
    reason: blinks
      ? `${blinks === 1 ? "One blink" : `${blinks} blinks`} is too few for "not complete" and too many for "complete". Key off, and again.`
      : "The lamp did neither of what it does here. Is it the right lamp, and the key fully on?",
  };
}
