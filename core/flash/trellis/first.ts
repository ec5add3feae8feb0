/** Index of the first of ascending numbers that is at least `least`; their count where there is none. */
export function firstFrom(ascending: Float64Array, least: number): number {
  let lo = 0;
  let hi = ascending.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (ascending[mid] < least) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}
