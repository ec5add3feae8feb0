import type { Dialect } from "./dialect";
import { possibleFaults } from "./digits";
import type { Hypothesis } from "./propose";

/** Share of the prior that stays with codes outside the table. */
const OUTSIDE_TABLE = 0.08;
/** Each further code in a list costs this factor. */
const ONE_MORE = 0.6;

/** Log prior of a list: its length, and each code's share; ascending lists have one order, stored ones all. */
export function priorOf(dialect: Dialect, table?: readonly string[]): (h: Hypothesis) => number {
  const possible = possibleFaults(dialect);
  const known = new Set(table?.filter((c) => possible.includes(c)));
  const outside = Math.max(1, possible.length - known.size);
  const log = (code: string) =>
    known.size
      ? Math.log(known.has(code) ? (1 - OUTSIDE_TABLE) / known.size : OUTSIDE_TABLE / outside)
      : -Math.log(possible.length);
  return (h) => {
    let sum = h.cylinders ? Math.log([4, 6, 8].includes(h.cylinders) ? 0.3 : 0.02) : 0;
    for (const list of Object.values(h.faults)) {
      sum +=
        Math.log(list.length === 0 ? 0.3 : 0.7 * (1 - ONE_MORE)) + Math.max(0, list.length - 1) * Math.log(ONE_MORE);
      for (const [i, code] of list.entries()) sum += log(code) + (dialect.order === "ascending" ? Math.log(i + 1) : 0);
    }
    return sum;
  };
}
