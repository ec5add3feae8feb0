/** How a key cycle went: the times (ms) at which the key was said to come on. */
export interface BeatVerdict {
  good: boolean;
  /** From the first to the last, ms. */
  took: number;
  says: string;
}

/** Judges whether the key came on so often within the time. Shorter than this between two, no key is turned off and on. */
const QUICKEST_MS = 250;

export function judgeBeat(
  turns: readonly number[],
  beat: { times: number; withinSeconds: number },
): BeatVerdict | null {
  if (turns.length < beat.times) return null;
  const last = turns.slice(-beat.times);
  const took = last[last.length - 1] - last[0];
  const seconds = (took / 1000).toFixed(1);
  const hasty = last.some((t, i) => i > 0 && t - last[i - 1] < QUICKEST_MS);
  if (hasty) return { good: false, took, says: "Two came at once: turn the key fully off in between." };
  if (took / 1000 > beat.withinSeconds)
    return { good: false, took, says: `${seconds} s: too slow. Key off for ten seconds, then again.` };
  return { good: true, took, says: `${seconds} s: in time. Leave the key on and watch the lamp.` };
}

/** The beat of the metronome: when the key goes on (1) and off (0), ms from the start; well inside the time. */
export function beatOf({
  times,
  withinSeconds,
}: {
  times: number;
  withinSeconds: number;
}): { at: number; on: 0 | 1 }[] {
  const half = Math.min(900, (withinSeconds * 1000 * 0.8) / (2 * (times - 1)));
  return Array.from({ length: 2 * times - 1 }, (_, i) => ({ at: Math.round(i * half), on: i % 2 === 0 ? 1 : 0 }));
}
