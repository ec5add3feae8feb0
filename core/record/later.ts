/** A moment as records have it. */
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/;

/** The same data with all its moments (ISO 8601, UTC) so many ms later. */
export function laterBy<T>(data: T, ms: number): T {
  const later = (value: unknown): unknown => {
    if (typeof value === "string") return MOMENT.test(value) ? new Date(Date.parse(value) + ms).toISOString() : value;
    if (Array.isArray(value)) return value.map(later);
    if (value && typeof value === "object")
      return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, later(inner)]));
    return value;
  };
  return later(data) as T;
}
