import { edgesOf, type InputKind } from "./input";

/** A file with the times at which the lamp went on and off. */
export const trace: InputKind = {
  known: "seen",
  said: "from a trace",
  short: "from a trace",
  lamp: {
    label: "Trace file",
    start: "Bring a trace of the lamp.",
    by: "file",
    reads: ({ advance }) => advance === "self",
    anyLamp: true,
    lengths: true,
    pad: () => [],
    evidence: edgesOf,
  },
};
