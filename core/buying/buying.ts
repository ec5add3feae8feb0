import { readMinutes } from "../minutes";
import { list, object, oneOf, text, type Of } from "../schema/rule";
import { listOf } from "../wording";

/** Signs of a memory that was wiped not long ago. None of them proves it. */
export const SIGNS = [
  "The radio asks for its code or lost its stations",
  "The clock is wrong",
  "The trip counter is at zero",
  "It idles unevenly at first, then settles",
  "Fresh marks at the battery or the fuses",
] as const;

export const buyingRule = object({
  /** What is looked at, as somebody writes it. */
  vehicle: text(200),
  /** The trouble lamp with the key on, engine off; and with the engine running. */
  keyOn: oneOf("lit", "dark", "not-looked"),
  running: oneOf("out", "on", "flashes", "not-looked"),
  codes: oneOf("none", "some", "not-read", "not-looked"),
  /** The codes, as somebody writes them. */
  list: text(200),
  readiness: oneOf("complete", "not-complete", "unknown", "not-looked"),
  signs: list(text(80), { max: 10 }),
  /** Minutes that it was driven, as they are typed, and whether the lamp came on. */
  minutes: text(10),
  cameOn: oneOf("yes", "no", ""),
});
/** What was seen of a stranger's vehicle. What nobody looked at is empty. */
export type Buying = Of<typeof buyingRule>;

export const NOTHING_SEEN: Buying = {
  vehicle: "",
  keyOn: "not-looked",
  running: "not-looked",
  codes: "not-looked",
  list: "",
  readiness: "not-looked",
  signs: [],
  minutes: "",
  cameOn: "",
};

export interface BuyingResult {
  /** `against`: something was found; `open`: what was seen leaves room for a fault; `quiet`: nothing was found where it was looked. */
  is: "against" | "open" | "quiet" | "nothing";
  headline: string;
  /** What was seen, a sentence each; and what was not looked at. */
  seen: string[];
  unseen: string[];
  /** What to ask the seller, or to do before money changes hands. */
  ask: string[];
}

/** So long a drive at least shows more than a cold start does, minutes. */
const A_DRIVE = 15;

const codesIn = (typed: string): string[] => [...new Set(typed.match(/[A-Z]?\d{1,4}/gi) ?? [])];

/** What a short look at a vehicle says, and no more than that: what nobody looked at is told as such. */
export function buyingResult(b: Buying): BuyingResult {
  const codes = codesIn(b.list);
  const wiped = b.signs.length > 0 || b.readiness === "not-complete";
  const minutes = readMinutes(b.minutes) ?? 0;
  const drove = minutes >= A_DRIVE;
  // Of a drive that was not made nothing came on.
  const cameOn = minutes > 0 ? b.cameOn : "";
  const seen = [
    b.keyOn === "lit" && "With the key on the lamp lights: it can tell.",
    b.keyOn === "dark" &&
      "With the key on the lamp stays dark: bulb, fuse or unit, or somebody took it out. It can tell nothing.",
    b.running === "out" && "With the engine running the lamp goes out.",
    b.running === "on" && "With the engine running the lamp stays on: a fault is there now.",
    b.running === "flashes" &&
      "With the engine running the lamp flashes: look up what that means on it before it is driven.",
    b.codes === "some" &&
      (codes.length ? `Stored: ${listOf(codes)}.` : "Codes are stored; which ones is not written down."),
    b.codes === "none" &&
      (wiped
        ? "No code was shown, and there are signs that the memory was wiped not long ago."
        : "No code was shown when it was read."),
    b.readiness === "complete" && "The monitors are complete: it was driven since the last wipe.",
    b.readiness === "not-complete" &&
      "The monitors are not complete: wiped or without power not long ago, or hardly driven since.",
    ...b.signs.map((s) => `${s}.`),
    minutes > 0 &&
      `Driven for ${minutes} ${minutes === 1 ? "minute" : "minutes"}${{ yes: ", and the lamp came on", no: ", and the lamp stayed out", "": "" }[cameOn]}.`,
  ].filter((x) => x !== false);
  const unseen = [
    b.keyOn === "not-looked" && "the lamp with the key on",
    b.running === "not-looked" && "the lamp with the engine running",
    (b.codes === "not-looked" || b.codes === "not-read") && "what is stored",
    (b.readiness === "not-looked" || b.readiness === "unknown") && "readiness, where it has monitors",
    !drove && `a drive of ${A_DRIVE} minutes`,
  ].filter((x) => x !== false);
  const against =
    b.keyOn === "dark" || b.running === "on" || b.running === "flashes" || b.codes === "some" || cameOn === "yes";
  const ask = [
    b.keyOn === "dark" && "Why does the lamp not light? Have it mended and read before you buy.",
    b.codes === "some" && `What was done about ${codes.length ? listOf(codes) : "the codes"}? Ask for the bills.`,
    (b.running === "on" || b.running === "flashes" || cameOn === "yes") &&
      b.codes !== "some" &&
      "What sets the lamp off? Read it before you buy.",
    wiped && "When was the battery last off, and why? May it be read again after a day's driving?",
    b.codes !== "some" && b.codes !== "none" && "May it be read here and now?",
    !drove && "May I drive it until it is warm, and read it again?",
    "Was anything changed: exhaust, ignition, a second-hand unit?",
  ].filter((x) => x !== false);
  if (!seen.length) return { is: "nothing", headline: "Nothing is looked at yet.", seen, unseen, ask };
  const told = b.codes === "none" && b.keyOn === "lit";
  const is = against ? "against" : wiped || !told || unseen.length > 1 ? "open" : "quiet";
  const headline = {
    against:
      b.keyOn === "dark"
        ? "The lamp cannot tell: take that for a fault until it is explained."
        : "There is a fault to talk about.",
    open: wiped
      ? "Quiet, and perhaps only since it was wiped."
      : b.codes === "none"
        ? "Too little was looked at to say."
        : "Not read: nobody knows what is stored.",
    quiet: "Nothing was found where you looked.",
  }[is];
  return { is, headline, seen, unseen, ask };
}
