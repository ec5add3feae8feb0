/** A probability as people read it; nothing is ever quite sure. */
export function percent(p: number): string {
  if (p > 0.99) return "over 99 %";
  if (p < 0.01) return "below 1 %";
  return `${Math.round(100 * p)} %`;
}
