import type { JobEnd } from "../record/types";
import { judge, type Judgement } from "./judge";
import type { JobCase } from "./case";
import { sayVerdict } from "./say";

/** How a job may end now: what its readings carry comes first; handing over and giving up are always there. */
export function endsOf(j: Judgement): JobEnd[] {
  const verdict = j.statements.find((s) => s.kind === "verdict");
  const is = verdict?.kind === "verdict" ? verdict.is : "open";
  const proven: JobEnd[] = is === "open" || is === "not-proven" ? ["not-proven", "not-fixed"] : [is];
  return [...proven, "handed-over", "given-up"];
}

export const END_WORDS: Record<JobEnd, string> = {
  fixed: "Fixed",
  "not-fixed": "Not fixed",
  "not-proven": "Not proven",
  "nothing-found": "Nothing found",
  "handed-over": "Handed over",
  "given-up": "Given up",
};

/** The last line of the notebook: how it ended, and where things stood. */
export function endText(c: JobCase, end: JobEnd): string {
  const verdict = sayVerdict(judge(c));
  const told = end === "not-fixed" ? verdict.endsWith("Not fixed.") : end !== "handed-over" && end !== "given-up";
  return told ? verdict : `${END_WORDS[end]}. ${verdict}`;
}
