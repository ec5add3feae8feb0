/** Index of an item drawn in proportion to its weight; -1 for an empty list. */
export function choose<T>(list: readonly T[], weight: (item: T) => number, random: () => number): number {
  let sum = 0;
  for (const item of list) sum += weight(item);
  let u = random() * sum;
  for (let i = 0; i < list.length; i++) {
    u -= weight(list[i]);
    if (u <= 0) return i;
  }
  return list.length - 1;
}
