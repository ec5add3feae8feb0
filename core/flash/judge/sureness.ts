import type { Decoded } from "../answer";

/** How sure a thing is: shown in shape and word alike. */
export type Sure = "certain" | "likely" | "unsure";

/** Posterior probabilities from which a thing may be called so. */
export const CERTAIN = 0.99;
export const LIKELY = 0.9;
/** A certain code was heard so often without a slip: what was filled in, however probable, is one person's reading of a gap. */
export const HEARD = 2;

/** Flashes of one run that are seen at a glance, without counting (the range of subitizing); more are soon counted one short or one over, and again the next time. */
export const AT_A_GLANCE = 4;

/** How often a code was heard without a slip; of two memories that hold it, in the one that showed it less. */
function heardOf(d: Pick<Decoded, "exactShown" | "memories">, code: string): number {
  const holds = Object.entries(d.memories).flatMap(([memory, list]) => (list.includes(code) ? [memory] : []));
  const memories = holds.length ? holds : Object.keys(d.exactShown);
  const counts = memories.map((m) => d.exactShown[m as keyof typeof d.exactShown]?.[code] ?? 0);
  return counts.length ? (holds.length ? Math.min(...counts) : Math.max(...counts)) : 0;
}

/**
 * @param p probability that it is so; @param heard how often it was heard without a slip; @param called counted in the head: a run is
 * soon taken for one more or less two times alike, so one hearing more is asked
 */
export function sureOf(p: number, heard: number, called = false): Sure {
  if (p >= CERTAIN && heard >= HEARD + Number(called)) return "certain";
  return p >= LIKELY && heard >= 1 ? "likely" : "unsure";
}

/** @param given how likely the lamp speaks the dialect that it is read by: no code is surer than that */
export function codeSure(d: Decoded, code: string, given = 1): Sure {
  const sure = sureOf(given * (d.codeConfidence[code] ?? 0), heardOf(d, code), d.called !== undefined);
  return sure === "certain" && d.called === "runs" && Number(code) > AT_A_GLANCE ? "likely" : sure;
}

/** "Nothing stored" has positive proof: a whole round of what stands for it, marked without a slip and not only counted in the head. */
export function nothingSure(d: Decoded): Sure {
  if (d.state !== "none") return "unsure";
  if (d.confidence >= CERTAIN && d.wholeRound && !d.called) return "certain";
  return d.confidence >= LIKELY ? "likely" : "unsure";
}

/** In how many rounds the whole list was heard; one without a slip, or to its end, stands for two. */
export function roundsHeard({
  codes,
  roundsShown,
  wholeRound,
  over,
}: Pick<Decoded, "codes" | "roundsShown" | "wholeRound" | "over">): number {
  const rounds = codes.length ? Math.min(...codes.map((c) => roundsShown[c] ?? 0)) : 0;
  return Math.max(rounds, wholeRound || over ? HEARD : 1);
}

/** Was the list seen whole? Every code of it surely, and its end. */
export function wholeSure(d: Decoded): Sure {
  if (d.state !== "codes" || !d.complete) return "unsure";
  const all = d.codes.every((c) => codeSure(d, c) === "certain");
  return all && d.confidence >= CERTAIN && roundsHeard(d) >= HEARD ? "certain" : "likely";
}
