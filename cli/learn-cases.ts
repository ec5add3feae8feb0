import { learn } from "@core/flash/learn/learn";
import { eachCase, evidenceOfCase } from "./read";

/** Learns how the lamp of each case of a file talks, by its mode, data and until alone. */
export function learnCases(given: Map<string, string>): number {
  const caseFile = given.get("cases");
  if (!caseFile) {
    console.error("learn needs --cases F.jsonl");
    return 2;
  }
  return eachCase(caseFile, (c) => {
    const evidence = evidenceOfCase(c);
    if (evidence.mode === "counts" || evidence.mode === "button")
      throw new Error(`how a lamp talks cannot be learned from ${evidence.mode}: there are no times`);
    const { dialect, certainty, decoded, none } = learn([evidence]);
    const codes = decoded[0]?.codes ?? [];
    console.log(JSON.stringify({ id: c.id, dialect, certainty, codes, confidence: decoded[0]?.confidence ?? 0, none }));
  });
}
