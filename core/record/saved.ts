/** What a garage holds that a file does not, so that somebody is reminded to save it. */
export interface Unsaved {
  /** Whole days since it was saved as a file; null where it never was. */
  days: number | null;
  /** Vehicles with something newer than that. */
  vehicles: number;
}

const DAY = 86_400_000;
/** So long nobody is reminded: of what was saved once, and of a garage that is new. */
const AFTER_DAYS = 30;
const NEW_DAYS = 7;

/**
 * @param savedAt when all was saved as a file last; null where it never was
 * @param vehicles when each was put in, and when it was touched last (empty where it never was)
 * @returns null where there is no need
 */
export function unsaved(
  savedAt: string | null,
  vehicles: readonly { createdAt: string; touched: string }[],
  now: number,
): Unsaved | null {
  const newer = vehicles.filter((v) => [v.createdAt, v.touched].some((at) => at > (savedAt ?? "")));
  if (!newer.length) return null;
  const since = savedAt ?? newer.map((v) => v.createdAt).sort()[0];
  const days = Math.floor((now - Date.parse(since)) / DAY);
  if (days < (savedAt === null ? NEW_DAYS : AFTER_DAYS)) return null;
  return { days: savedAt === null ? null : days, vehicles: newer.length };
}
