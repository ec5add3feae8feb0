import type { Entry } from "../pack/pack";

/** What is wrong with a signal, as a code says it. */
export type Signal = "low" | "high" | "absent" | "range" | "differs" | "lean" | "rich" | "slow" | "current" | "lost";

/** Words by which a table says it, the narrower before the wider. */
const WORDS: readonly (readonly [Signal, RegExp])[] = [
  ["lean", /\blean\b/i],
  ["rich", /\brich\b/i],
  ["lost", /learned values|memory lost|had no power/i],
  ["slow", /\bslow\b|fewer than/i],
  ["range", /out of range|too rich or lean|at its limit|outside|open or shorted|wide range/i],
  ["low", /\blow\b|\bdark\b/i],
  ["high", /\bhigh\b|\bhot\b/i],
  ["differs", /differ|does not follow|does not agree|does not reach|not open|flow|too long|stuck|erratic/i],
  ["current", /current|relay circuit|solenoid circuit|valve circuit|injector circuit|coil|heater|clutch|feed|driver/i],
  ["absent", /\bno\b|missing|silent|does not change|not seen|breaks off|broken|tripped|switch/i],
];

/** What a code says is wrong with its signal, by its title, and by what sets it where the title leaves it open. */
export function signalOf({ title, sets }: Pick<Entry, "title" | "sets">): Signal {
  const found = (text: string) => WORDS.find(([, words]) => words.test(text))?.[0];
  return found(title) ?? found(sets ?? "") ?? "range";
}
