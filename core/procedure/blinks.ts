import { framesOf, type Levels } from "../lamp/levels";
import { marksOf } from "../lamp/marks";
import { withUnseen } from "./readiness";

/** What pictures of a lamp tell of a watch that began as the key went on. */
export interface BlinksSeen {
  /** ms from key-on. */
  flashes: number[];
  /** Stretches of which there is no picture of the lamp, or in which a blink could not have been told, ms from key-on. */
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
 * Blinks of a lamp that is lit otherwise, off its brightness in pictures. Only of a lamp that was seen to change (as the key goes on it
 * lights) is it known that a blink would have shown: of any other, in the sun or out of the box, nothing was seen.
 * @param keyOn when the key went on, on the axis of the pictures, ms
 * @param until up to when is asked, on the same axis
 */
export function blinksSeen(levels: Levels, keyOn: number, until: number): BlinksSeen {
  const frames = framesOf(levels, { lit: 0, longest: LONGEST_MS, endless: true });
  const told = frames !== null && frames.contrast > STANDS_OUT * frames.noise;
  if (!told && !litThroughout(levels, keyOn))
    return { flashes: [], unseen: [[0, until - keyOn]], until: until - keyOn };
  const flashes = (told ? marksOf(frames, 0) : [])
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

/** A lamp that lights with the key is dark so long before, and lit so long after, at least, ms; between the two it may be either. */
const BEFORE_MS = [2500, 400] as const;
const AFTER_MS = [1500, 4000] as const;
/** So many pictures of each are needed. */
const ENOUGH = 20;

/** Did it light up with the key, and was it never half as dark again? One change alone could be the light of the day; one at that moment is the lamp. */
function litThroughout({ t, y }: Levels, keyOn: number): boolean {
  const within = (from: number, to: number) => y.filter((_, i) => t[i] >= from && t[i] <= to).sort((a, b) => a - b);
  const dark = within(keyOn - BEFORE_MS[0], keyOn - BEFORE_MS[1]);
  const lit = within(keyOn + AFTER_MS[0], keyOn + AFTER_MS[1]);
  if (dark.length < ENOUGH || lit.length < ENOUGH) return false;
  const at = (v: readonly number[], share: number) => v[Math.floor(share * (v.length - 1))];
  const [low, high] = [at(dark, 0.5), at(lit, 0.5)];
  // Half the width of the middle two thirds is about a standard deviation.
  const noise = Math.max(...[dark, lit].map((v) => (at(v, 5 / 6) - at(v, 1 / 6)) / 2), 0.5);
  return high - low > 2 * STANDS_OUT * noise && !t.some((x, i) => x > keyOn + AFTER_MS[0] && y[i] < (low + high) / 2);
}
