import { list, object, optional, pair, whole, type Of } from "../schema/rule";
import { line } from "./words";

export const year = whole(1950, 2035);

export const scopeRule = object({
  years: optional(pair(year, year)),
  engines: optional(list(line, { min: 1, max: 60 })),
  markets: optional(list(line, { min: 1, max: 60 })),
});
/** Where something holds. What is absent holds everywhere. Years are model years, both ends included. */
export type Scope = Of<typeof scopeRule>;
