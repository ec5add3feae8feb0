import type { Dialect } from "../dialect/dialect";
import { possibleFaults } from "../dialect/digits";
import type { Hypothesis } from "./propose";

/** Share of the prior that stays with codes outside the table. */
const OUTSIDE_TABLE = 0.08;
/** Each further code in a list costs this factor. */
const ONE_MORE = 0.5;
/** A memory is empty so often. */
const EMPTY = 0.15;

/** Share of the codes of a second memory that stand in the first one as well. */
const IN_BOTH = 0.4;

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
  // A fault that is there now has often been stored too, and one that was stored is often there now.
  const named = (code: string, before: readonly string[]) => {
    const own = Math.exp(log(code));
    if (!before.length) return Math.log(own);
    return Math.log((1 - IN_BOTH) * own + (before.includes(code) ? IN_BOTH / before.length : 0));
  };
  return {
    of: (h) => {
      let sum = h.cylinders ? Math.log([4, 6, 8].includes(h.cylinders) ? 0.3 : 0.02) : 0;
      const before: string[] = [];
      for (const list of Object.values(h.faults)) {
        sum += list.length
          ? Math.log((1 - EMPTY) * (1 - ONE_MORE)) + (list.length - 1) * Math.log(ONE_MORE)
          : Math.log(EMPTY);
        for (const [i, code] of list.entries())
          sum += named(code, before) + (dialect.order === "ascending" ? Math.log(i + 1) : 0);
        before.push(...list);
      }
      return sum;
    },
    more: -Math.log(1 - ONE_MORE),
  };
}
