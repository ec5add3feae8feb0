import type { ClearWay, CostId, Relearn } from "../pack";

/** What a clear can cost, as one would tell it. */
export const COST_WORDS: Record<CostId, string> = {
  "radio-code": "The radio asks for its code.",
  immobiliser: "The immobiliser forgets its keys: it wants all of them at hand.",
  clock: "Clock and presets go.",
  "learned-idle": "What it learned of its idle goes.",
  readiness: "Readiness monitors start from nothing: an inspection soon after fails.",
  time: "It takes its time.",
};

/** Where no source gives a time, this one is long enough for all, s: off too briefly wipes nothing, longer does no harm. */
const LONGEST = { fuse: 60, battery: 600, button: 7, rides: 900, starts: 60, adapter: 60 } as const;

export type ClearKind = keyof typeof LONGEST;

/** So often it takes where no source says: too few wipe nothing, more do no harm. */
const OFTENEST = { starts: 50, rides: 5 } as const;

/** What is mostly learned anew after a clear. */
export const USUAL_RELEARN: Relearn = {
  id: "idle",
  title: "Idle",
  how: "Start it and let it idle untouched, in neutral, all consumers off.",
  seconds: 300,
};

const costs = (...ids: CostId[]): ClearWay["costs"] => ids.map((id) => ({ id, text: COST_WORDS[id] }));

type At = Pick<ClearWay, "id" | "system" | "seconds">;

const byButton = (at: At): ClearWay => ({
  ...at,
  title: "Hold the button after a code has shown",
  each: "code",
  kind: "button",
  does: "hold",
  what: "Hold the same button as for reading, for longer. It wipes the code that was shown last.",
  costs: [],
  steps: [
    "Show the code that you want to wipe.",
    "Hold the button as long as the time below says, let go.",
    "Show it again: the next code comes, or the sign for nothing stored.",
  ],
  afterwards: [],
});

const byCount = (at: At, kind: "rides" | "starts"): ClearWay => ({
  ...at,
  title: kind === "rides" ? "Rides without the fault" : "Starts without the fault",
  kind,
  does: "count",
  ...(kind === "rides" ? { ride: { seconds: at.seconds, rides: OFTENEST.rides } } : { starts: OFTENEST.starts }),
  what: `The unit forgets a code by itself after so many ${kind} in a row without its fault.`,
  trap:
    kind === "rides"
      ? "A ride that is too short or too slow does not count."
      : "The fault once more, and it counts from the beginning.",
  costs: costs("time"),
  steps: [
    "Mend the fault first: it has to stay away.",
    `Use it as you always do, and note each ${kind === "rides" ? "ride" : "start"}.`,
    "After the last one: read again.",
  ],
  afterwards: [],
});

const byAdapter = (at: At): ClearWay => ({
  ...at,
  title: "Scan adapter",
  kind: "adapter",
  does: "step-through",
  what: "A scan adapter that fits this socket and speaks to this unit.",
  costs: costs("readiness"),
  steps: [
    "Key off, wire out. Plug the adapter in.",
    "Key on, engine off. Have it read once more, and hold that against what you wrote down.",
    "Choose its clear, say yes. Key off for ten seconds.",
  ],
  afterwards: [],
  relearn: [USUAL_RELEARN],
});

const byBattery = (at: At): ClearWay => ({
  ...at,
  title: "Battery negative off",
  kind: "battery",
  does: "off",
  what: "Take the negative lead off the battery.",
  costs: costs("radio-code", "clock", "learned-idle"),
  steps: [
    "Key off, wire out of the connector. Note the radio code.",
    "Negative lead off. Count the time below. Longer does no harm; too short is the mistake.",
    "Negative lead on last.",
  ],
  afterwards: ["Radio code, clock, presets."],
  relearn: [USUAL_RELEARN],
  caution:
    "Negative first off, last on. No tool across the posts, rings off, no sparks near a battery that was charging.",
});

const byFuse = (at: At): ClearWay => ({
  ...at,
  title: "Pull the memory fuse",
  kind: "fuse",
  does: "off",
  what: "The fuse that keeps the unit's memory alive.",
  trap: "Its label may name something else, such as the clock. The ignition feed's fuse wipes nothing.",
  costs: costs("clock", "learned-idle"),
  steps: ["Key off, wire out of the connector.", "Pull the fuse. Count the time below.", "Put it back."],
  afterwards: [],
  relearn: [USUAL_RELEARN],
});

/** A clear of a kind with nothing known but the kind. */
export function usualClear(kind: ClearKind, system: string, id: string): ClearWay {
  const at: At = { id, system, seconds: LONGEST[kind] };
  switch (kind) {
    case "button":
      return byButton(at);
    case "rides":
    case "starts":
      return byCount(at, kind);
    case "adapter":
      return byAdapter(at);
    case "battery":
      return byBattery(at);
    case "fuse":
      return byFuse(at);
  }
}
