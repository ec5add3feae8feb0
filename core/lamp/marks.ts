import type { Frames } from "./levels";

/** A stretch in which the lamp is away from its rest, with the probability that it was a real one. */
export interface LampMark {
  t: number;
  up: number;
  p: number;
}

/** Neighbouring frames err alike, so what they say together counts for less than its sum. */
const TEMPER = 0.5;

/**
 * The marks of a lamp from what its frames say; each change is placed half way between the frames around it.
 * @param away the state that is not the lamp's rest
 */
export function marksOf({ t, lit, llr }: Frames, away: 0 | 1): LampMark[] {
  const marks: LampMark[] = [];
  const sign = away ? 1 : -1;
  let sum = 0;
  let from = -1;
  const close = (up: number): void => {
    const start = from > 0 ? (t[from] + t[from - 1]) / 2 : t[0];
    marks.push({ t: start, up, p: 1 / (1 + Math.exp(-TEMPER * sum)) });
    from = -1;
  };
  for (let i = 0; i < t.length; i++) {
    if (lit[i] === away) {
      if (from < 0) [from, sum] = [i, 0];
      sum += sign * llr[i];
    } else if (from >= 0) close((t[i] + t[i - 1]) / 2);
  }
  if (from >= 0) close(t[t.length - 1]);
  return marks;
}
