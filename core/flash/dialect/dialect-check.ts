import { also, type Rule } from "../../schema/rule";
import { dialectRule, type Dialect } from "./dialect";
import { runsOf } from "./digits";

/** A dialect of a file whose parts fit together: it shows the list, and can show what it says it shows. */
export const dialectCheck: Rule<Dialect> = also(dialectRule, (dialect) => {
  if (dialect.digits.style === "long-short" && !dialect.marks.long) return "shows long flashes: give marks.long";
  if (!dialect.phases.some((p) => p.kind === "stored"))
    return "never shows the list of faults: add a phase of kind stored";
  if (dialect.loopFrom !== null && dialect.loopFrom >= dialect.phases.length)
    return `returns to phase ${dialect.loopFrom}, but the last one is ${dialect.phases.length - 1}`;
  if (dialect.advance === "self" && dialect.digits.style !== "total" && dialect.gaps.code <= dialect.gaps.digit)
    return "cannot be read: gaps.code must be longer than gaps.digit";
  for (const p of [...dialect.phases, ...(dialect.empty ? [dialect.empty] : [])])
    if (p.kind === "code" && !runsOf(dialect, p.code)) return `cannot show its own fixed code ${p.code}`;
  return null;
});
