import type { ClearWay } from "@core/pack/pack";

/** What begins a clear, by what is done. */
export const BEGIN: Record<ClearWay["does"], string> = {
  hold: "I hold it: start the time",
  off: "It is off: start the time",
  "step-through": "Begin with the first step",
  drive: "It begins now",
  count: "Count from now",
};

/** What is said while its time runs. What is counted has no such time: it is followed up with the proof. */
export interface Act {
  /** While the pack's time runs; @param left seconds, from 1 */
  running: (left: number) => string;
  /** Once it has passed. */
  enough: string;
  done: string;
  /** The same, where one code was wiped alone. */
  doneOf: (code: string) => string;
  /** Too short a time is the mistake here: it cannot be ended before. */
  waits: boolean;
  aside: string;
}

const TOO_SHORT = "Longer does no harm; too short is the mistake.";

export const ACTS: Record<Exclude<ClearWay["does"], "count">, Act> = {
  hold: {
    running: (left) => `Hold it for ${left} s more.`,
    enough: "Long enough. Let it go.",
    done: "Let go: done",
    doneOf: (code) => `Let go: ${code} is wiped`,
    waits: true,
    aside: TOO_SHORT,
  },
  off: {
    running: (left) => `Leave it off for ${left} s more.`,
    enough: "Long enough. Put it back.",
    done: "It is back in: done",
    doneOf: (code) => `It is back in: ${code} is wiped`,
    waits: true,
    aside: TOO_SHORT,
  },
  "step-through": {
    running: () => "Go through the steps in their order.",
    enough: "Go through the steps in their order.",
    done: "All steps done",
    doneOf: (code) => `All steps done: ${code} is wiped`,
    waits: false,
    aside: "A step left out wipes nothing.",
  },
  drive: {
    running: (left) => `About ${Math.ceil(left / 60)} min more. You can close this page.`,
    enough: "Long enough, if it was used as the steps say.",
    done: "Done as the steps say",
    doneOf: (code) => `Done: ${code} is wiped`,
    waits: false,
    aside: "It wipes by itself as the vehicle is used.",
  },
};
