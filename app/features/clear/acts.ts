import type { ClearWay } from "@core/pack/pack";

/** What is said while a clear is done, by what is done. */
export interface Act {
  begin: string;
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

export const ACTS: Record<ClearWay["does"], Act> = {
  hold: {
    begin: "I hold it: start the time",
    running: (left) => `Hold it for ${left} s more.`,
    enough: "Long enough. Let it go.",
    done: "Let go: done",
    doneOf: (code) => `Let go: ${code} is wiped`,
    waits: true,
    aside: TOO_SHORT,
  },
  off: {
    begin: "It is off: start the time",
    running: (left) => `Leave it off for ${left} s more.`,
    enough: "Long enough. Put it back.",
    done: "It is back in: done",
    doneOf: (code) => `It is back in: ${code} is wiped`,
    waits: true,
    aside: TOO_SHORT,
  },
  "step-through": {
    begin: "Begin with the first step",
    running: () => "Go through the steps in their order.",
    enough: "Go through the steps in their order.",
    done: "All steps done",
    doneOf: (code) => `All steps done: ${code} is wiped`,
    waits: false,
    aside: "A step left out wipes nothing.",
  },
  drive: {
    begin: "It begins now",
    running: (left) => `About ${Math.ceil(left / 60)} min more. You can close this page.`,
    enough: "Long enough, if it was used as the steps say.",
    done: "Done as the steps say",
    doneOf: (code) => `Done: ${code} is wiped`,
    waits: false,
    aside: "It wipes by itself as the vehicle is used.",
  },
};
