/** A figure as somebody types it, with a point or a comma. */
export const figure = (typed: string): number => (typed.trim() === "" ? NaN : Number(typed.trim().replace(",", ".")));

/** Faults of a figure as somebody types it, or null. */
export const between =
  (from: number, to: number) =>
  (typed: string): string | null =>
    figure(typed) >= from && figure(typed) <= to ? null : `Between ${from} and ${to}.`;

export const wholeBetween =
  (from: number, to: number) =>
  (typed: string): string | null =>
    /^\d+$/.test(typed.trim()) ? between(from, to)(typed) : `A whole number between ${from} and ${to}.`;
