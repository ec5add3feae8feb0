import { calledOf } from "../../flash/seen/called";
import type { InputKind } from "./input";

/** Numbers that somebody called out; they have no times. */
export const counts: InputKind = {
  known: "called",
  said: "by called-out counts",
  short: "called out",
  lamp: {
    label: "Counts",
    start: "Call the counts out, and type them.",
    by: "numbers",
    // Of one code a press in digits, a number each would not tell the digits apart.
    reads: ({ advance, digits }) => advance === "self" || digits.style === "total",
    anyLamp: false,
    lengths: false,
    pad: () => [],
    evidence: (seen, _until, dialect) => ({
      mode: "counts",
      counts: calledOf(seen.counts ?? "", dialect).counts,
      ...(seen.keyOn && { withKey: true }),
    }),
  },
};
