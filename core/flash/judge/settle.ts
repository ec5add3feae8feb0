import type { Decoded } from "../answer";
import { CERTAIN, codeSure, wholeSure } from "./sureness";

/** What is still open in a reading, the weightiest first: what one more round of the list would settle. */
export type Question =
  /** The list has not come round: more codes may follow. */
  | { kind: "not-round" }
  /** Another list explains what was seen nearly as well. */
  | { kind: "rival"; codes: string[]; probability: number }
  /** Seen in one round only. */
  | { kind: "once"; codes: string[] }
  /** Explained well enough, but never marked without a slip two times. */
  | { kind: "slip"; code: string }
  /** Certain enough to be taken, not enough to stop. */
  | { kind: "doubt"; code: string; certainty: number };

/** A rival of less than this raises no question. */
const RIVAL = 0.02;

/** Was every code of a whole list seen in two rounds, and heard without a slip often enough? */
export function seenTwice(d: Decoded): boolean {
  return wholeSure(d) === "certain" && d.codes.every((c) => (d.roundsShown[c] ?? 0) >= 2);
}

/** Would more watching tell nothing new? All was seen twice; or what is shown but once was seen, and surely; or nothing is stored. */
export function nothingMore(d: Decoded): boolean {
  const surely = d.confidence >= CERTAIN;
  return seenTwice(d) || (surely && d.complete && d.over) || (surely && d.state === "none" && d.wholeRound);
}

export function openQuestions(d: Decoded): Question[] {
  if (!d.codes.length || d.misfit) return [];
  const questions: Question[] = [];
  if (!d.complete) questions.push({ kind: "not-round" });
  if (d.runnerUp && d.runnerUp.probability >= RIVAL && d.confidence < CERTAIN)
    questions.push({ kind: "rival", codes: d.runnerUp.codes, probability: d.runnerUp.probability });
  const once = d.codes.filter((c) => (d.roundsShown[c] ?? 0) < 2);
  if (d.complete && once.length) questions.push({ kind: "once", codes: once });
  for (const code of d.codes) {
    const certainty = d.codeConfidence[code] ?? 0;
    if (certainty < CERTAIN) questions.push({ kind: "doubt", code, certainty });
    else if (!once.includes(code) && codeSure(d, code) !== "certain") questions.push({ kind: "slip", code });
  }
  return questions;
}
