import { untilLast, type InputKind, type PadKey } from "./input";

export const TWO_KEYS: readonly PadKey[] = [
  { code: "KeyF", kind: "s", label: "Short", keyName: "F" },
  { code: "KeyJ", kind: "l", label: "Long", keyName: "J" },
];

/** Two keys: one for the short flashes, one for the long ones. */
export const keys: InputKind = {
  known: "seen",
  said: "with two keys",
  short: "tapped",
  lamp: {
    label: "Two keys",
    start: "Short or long: one key each.",
    by: "hand",
    reads: ({ advance, digits }) => advance === "self" && digits.style === "long-short",
    anyLamp: false,
    lengths: false,
    pad: () => TWO_KEYS,
    evidence: ({ marks, pauses }, until) => ({
      mode: "taps",
      taps: marks.map((m) => [m.t, m.kind === "l" ? "l" : "s"] as const),
      until: untilLast(marks, until),
      pauses,
    }),
  },
};
