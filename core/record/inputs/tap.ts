import { untilLast, type InputKind, type PadKey } from "./input";

export const ONE_KEY: readonly PadKey[] = [{ code: "Space", label: "Tap with every flash", keyName: "Space" }];

/** One key for each flash; long and short cannot be told apart. */
export const tap: InputKind = {
  known: "seen",
  said: "by tapping",
  short: "tapped",
  lamp: {
    label: "Tap",
    start: "Tap with every flash.",
    by: "hand",
    reads: ({ advance, digits }) => advance === "self" && digits.style !== "long-short",
    anyLamp: true,
    lengths: false,
    pad: () => ONE_KEY,
    evidence: ({ marks, pauses }, until) => ({
      mode: "taps",
      taps: marks.map((m) => m.t),
      until: untilLast(marks, until),
      pauses,
    }),
  },
};
