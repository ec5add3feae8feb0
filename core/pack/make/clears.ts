import type { ClearWay, CostId } from "../pack";

/** What a clear can cost, as one would tell it. */
export const COST_WORDS: Record<CostId, string> = {
  "radio-code": "The radio asks for its code.",
  clock: "Clock and presets go.",
  "learned-idle": "What it learned of its idle goes.",
  readiness: "Readiness monitors start from nothing: an inspection soon after fails.",
  time: "It takes its time.",
};

/** Where no source gives a time, this one is long enough for all, s: off too briefly wipes nothing, longer does no harm. */
const LONGEST = { fuse: 60, battery: 600, button: 7, rides: 2700 } as const;

export type ClearKind = keyof typeof LONGEST;

const costs = (...ids: CostId[]): ClearWay["costs"] => ids.map((id) => ({ id, text: COST_WORDS[id] }));

/** A clear of a kind with nothing known but the kind. */
export function usualClear(kind: ClearKind, system: string, id: string): ClearWay {
  const seconds = LONGEST[kind];
  if (kind === "button")
    return {
      id,
      title: "Hold the button after a code has shown",
      system,
      each: "code",
      kind: "button",
      does: "hold",
      seconds,
      what: "Hold the same button as for reading, for longer. It wipes the code that was shown last.",
      costs: [],
      steps: [
        "Show the code that you want to wipe.",
        "Hold the button as long as the time below says, let go.",
        "Show it again: the next code comes, or the sign for nothing stored.",
      ],
      afterwards: [],
    };
  if (kind === "rides")
    return {
      id,
      title: "Drive until it wipes itself",
      system,
      kind: "rides",
      does: "drive",
      seconds,
      what: "Nothing is pulled: the unit forgets a code by itself once the fault stays away for so many starts or rides.",
      trap: "A ride that is too short or too slow does not count.",
      costs: costs("time"),
      steps: [
        "Mend the fault first: it has to stay away.",
        "Start and drive as often and as long as the manual says, each time with the engine warmed up.",
        "Read again.",
      ],
      afterwards: [],
    };
  if (kind === "battery")
    return {
      id,
      title: "Battery negative off",
      system,
      kind: "battery",
      does: "off",
      seconds,
      what: "Take the negative lead off the battery.",
      costs: costs("radio-code", "clock", "learned-idle"),
      steps: [
        "Key off, wire out of the connector. Note the radio code.",
        "Negative lead off. Count the time below. Longer does no harm; too short is the mistake.",
        "Negative lead on last.",
      ],
      afterwards: ["Start it and let it idle for five minutes untouched.", "Radio code, clock, presets."],
      caution:
        "Negative first off, last on. No tool across the posts, rings off, no sparks near a battery that was charging.",
    };
  return {
    id,
    title: "Pull the memory fuse",
    system,
    kind: "fuse",
    does: "off",
    seconds,
    what: "The fuse that keeps the unit's memory alive.",
    trap: "Its label may name something else, such as the clock. The ignition feed's fuse wipes nothing.",
    costs: costs("clock", "learned-idle"),
    steps: ["Key off, wire out of the connector.", "Pull the fuse. Count the time below.", "Put it back."],
    afterwards: ["Start it and let it idle for five minutes untouched."],
  };
}
