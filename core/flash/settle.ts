import type { Decoded } from "./answer";

/** What is still open in a reading, the weightiest first: what one more round of the list would settle. */
export type Question =
  /** The list has not come round: more codes may follow. */
  | { kind: "not-round" }
  /** Another list explains what was seen nearly as well. */
  | { kind: "rival"; codes: string[]; probability: number }
  /** Seen in one round only. */
  | { kind: "once"; codes: string[] }
  /** Certain enough to be taken, not enough to stop. */
  | { kind: "doubt"; code: string; certainty: number };

/** A rival of less than this, and a code above that certainty, raise no question. */
const RIVAL = 0.02;
const CERTAIN = 0.99;

/** Was every code of a whole list seen in two rounds? */
export function seenTwice(d: Decoded): boolean {
  return (
    d.state === "codes" && d.complete && d.confidence >= CERTAIN && d.codes.every((c) => (d.roundsShown[c] ?? 0) >= 2)
  );
}

/** Would more watching tell nothing new? Either all was seen twice, or what is shown but once was seen, and surely. */
export function nothingMore(d: Decoded): boolean {
  return seenTwice(d) || (d.complete && d.over && d.confidence >= CERTAIN);
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
  }
  return questions;
}
