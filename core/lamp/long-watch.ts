/**
 * A watch may go on for hours. What a list says it says in minutes, so a long one keeps its beginning, where what is shown once was
 * shown, and its newest part; what lies between counts as a stretch in which nobody watched. So neither what is kept nor what is
 * worked out grows with the hours.
 */
const BEGINNING_MS = 10 * 60_000;
const NEWEST_MS = 10 * 60_000;
/** So much is left out at a time, ms: one pass over all now and then, and not with every picture. */
const AT_ONCE_MS = 60_000;

/**
 * The part of a row of times that is left out now, as indices `from` (inclusive) to `to` (exclusive), or null.
 * @param t ms, ascending
 */
export function leftOut(t: ArrayLike<number>): { from: number; to: number } | null {
  const n = t.length;
  if (!n || t[n - 1] - t[0] < BEGINNING_MS + NEWEST_MS + AT_ONCE_MS) return null;
  const from = firstAfter(t, t[0] + BEGINNING_MS);
  const to = firstAfter(t, t[n - 1] - NEWEST_MS);
  // A stretch that was left out before lies between already.
  return to > from && t[to] - t[from] >= AT_ONCE_MS ? { from, to } : null;
}

/** Index of the first time that is not before `ms`. */
function firstAfter(t: ArrayLike<number>, ms: number): number {
  let [low, high] = [0, t.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (t[middle] < ms) low = middle + 1;
    else high = middle;
  }
  return low;
}
