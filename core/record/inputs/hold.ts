import { seenWhole, untilLast, type InputKind } from "./input";

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
    evidence: (seen, until) => {
      const held = seenWhole(seen.marks, until);
      return {
        mode: "holds",
        holds: held.marks.map((m) => [m.t, m.up!] as const),
        until: untilLast(held.marks, held.until),
        pauses: seen.pauses,
      };
    },
  },
};
