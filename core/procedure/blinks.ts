import { framesOf, type Levels } from "../lamp/levels";
import { marksOf } from "../lamp/marks";
import { withUnseen } from "./readiness";

/** What pictures of a lamp tell of a watch that began as the key went on. */
export interface BlinksSeen {
  /** ms from key-on. */
  flashes: number[];
  /** Stretches of which there is no picture of the lamp, ms from key-on. */
  unseen: [number, number][];
  /** Up to when it was looked at, ms from key-on. */
  until: number;
}

/** A lamp that is out for longer does not blink, ms. */
const LONGEST_MS = 3000;
/** Pictures further apart may hide a blink between them, ms. */
const APART_MS = 400;
/** A blink stands out of the noise of a picture by so much at least: a shadow, or a lamp that flickers, is none. */
const STANDS_OUT = 5;
/** What is less likely was none. */
const LIKELY = 0.9;

/**
 * Blinks of a lamp that is lit otherwise, off its brightness in pictures.
 * @param keyOn when the key went on, on the axis of the pictures, ms
 * @param until up to when is asked, on the same axis
 */
export function blinksSeen(levels: Levels, keyOn: number, until: number): BlinksSeen {
  const frames = framesOf(levels, { lit: 0, longest: LONGEST_MS, endless: true });
  const marks = frames && frames.contrast > STANDS_OUT * frames.noise ? marksOf(frames, 0) : [];
  const flashes = marks
    .filter((m) => m.t > keyOn && m.up - m.t < LONGEST_MS && m.up < until && m.p > LIKELY)
    .map((m) => Math.round(m.t - keyOn));
  let unseen: [number, number][] = [];
  let last = keyOn;
  for (const t of [...levels.t.filter((x) => x > keyOn && x < until), until]) {
    if (t - last > APART_MS) unseen = withUnseen(unseen, [last - keyOn, t - keyOn]);
    last = t;
  }
  return { flashes, unseen, until: until - keyOn };
}
