import type { Dialect } from "./dialect";
import { possibleFaults } from "./digits";
import type { Hypothesis } from "./propose";

/** Share of the prior that stays with codes outside the table. */
const OUTSIDE_TABLE = 0.08;
/** Each further code in a list costs this factor. */
const ONE_MORE = 0.5;
/** A memory is empty so often. */
const EMPTY = 0.15;

export interface Prior {
  /** Log prior of a list: its length, and each code's share; ascending lists have one order, stored ones all. */
  of: (h: Hypothesis) => number;
  /** Log of how many times likelier "one code more, or several" is than just one more. */
  more: number;
}

export function priorOf(dialect: Dialect, table?: readonly string[]): Prior {
  const possible = possibleFaults(dialect);
  const known = new Set(table?.filter((c) => possible.includes(c)));
  const outside = Math.max(1, possible.length - known.size);
  const log = (code: string) =>
    known.size
      ? Math.log(known.has(code) ? (1 - OUTSIDE_TABLE) / known.size : OUTSIDE_TABLE / outside)
      : -Math.log(possible.length);
  return {
    of: (h) => {
      let sum = h.cylinders ? Math.log([4, 6, 8].includes(h.cylinders) ? 0.3 : 0.02) : 0;
      for (const list of Object.values(h.faults)) {
        sum += list.length ? Math.log((1 - EMPTY) * (1 - ONE_MORE)) + (list.length - 1) * Math.log(ONE_MORE) : Math.log(EMPTY); // prettier-ignore
        for (const [i, code] of list.entries())
          sum += log(code) + (dialect.order === "ascending" ? Math.log(i + 1) : 0);
      }
      return sum;
    },
    more: -Math.log(1 - ONE_MORE),
  };
}
