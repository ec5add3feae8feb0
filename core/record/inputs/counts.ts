import { calledOf } from "../../flash/called";
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
    reads: () => true,
    anyLamp: false,
    lengths: false,
    pad: [],
    evidence: (seen, _until, dialect) => ({
      mode: "counts",
      counts: calledOf(seen.counts ?? "", dialect).counts,
      ...(seen.keyOn && { withKey: true }),
    }),
  },
};
