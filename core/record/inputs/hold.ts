import { untilLast, type InputKind } from "./input";

/** A key that is held as long as the lamp is away from its rest. */
export const hold: InputKind = {
  known: "seen",
  said: "with a held key",
  short: "held",
  lamp: {
    label: "Hold",
    start: "Hold while the lamp is lit.",
    by: "hand",
    reads: ({ advance }) => advance === "self",
    anyLamp: true,
    lengths: true,
    pad: () => [{ code: "Space", label: "Hold while the lamp is lit", keyName: "Space" }],
    evidence: ({ marks, pauses }, until) => ({
      mode: "holds",
      holds: marks.filter((m) => m.up !== undefined).map((m) => [m.t, m.up!] as const),
      until: untilLast(marks, until),
      pauses,
    }),
  },
};
