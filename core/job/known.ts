import type { Memory } from "../flash/dialect/dialect";
import { CERTAIN, type Sure } from "../flash/judge/sureness";
import type { JobCase } from "./case";
import { epochsOf, type Epoch } from "./epochs";
import { atLeast, atMost, sureOfWeight, type Doubt, type Told, type Weight } from "./told";

/** A code that was read, from all readings between two clears. */
export interface CodeKnown {
  code: string;
  /** null where there is but one memory. */
  memory: Memory | null;
  sure: Sure;
  /** Readings that say so. */
  in: Told[];
}

/** What is known of a system's memory from the readings since its last clear. */
export interface Known {
  system: string;
  /** `not-read`: no reading says anything of it. */
  answer: Told["answer"] | "not-read";
  codes: CodeKnown[];
  none: Sure;
  whole: Sure;
  doubts: Doubt[];
  /** Two readings with nothing done in between that contradict one another. */
  disagree: boolean;
  last: Told | null;
}

const says = (t: Told) => t.answer === "codes" || t.answer === "none";
const has = (t: Told, code: string, memory: Memory | null) =>
  t.codes.find((x) => x.code === code && x.memory === memory);

/** What is known of a system now. */
export function knownOf(c: JobCase, system: string): Known {
  return knownIn(epochsOf(c, system).at(-1)!, system, shownBefore(c, system));
}

/** Did this way bring codes in this job before? Then its wire, lamp and unit are the right ones. */
function shownBefore(c: JobCase, system: string): boolean {
  return epochsOf(c, system).some((e) => e.told.some((t) => t.codes.some((x) => atLeast(x.sure, "likely"))));
}

/** @param proven codes were read in this job by the same way before */
export function knownIn(epoch: Epoch, system: string, proven = false): Known {
  const good = epoch.told.filter(says);
  const last = good.at(-1) ?? epoch.told.at(-1) ?? null;
  const empty = {
    system,
    codes: [],
    none: "unsure",
    whole: "unsure",
    doubts: last?.doubts ?? [],
    disagree: false,
    last,
  } as const;
  if (!last) return { ...empty, codes: [], doubts: [], answer: "not-read" };
  if (!good.length) return { ...empty, codes: [], answer: last.answer };
  // Faults come and go while the vehicle runs: only readings after the same kind of run can contradict one another.
  const same = good.filter((t) => t.reading.run === last.reading.run);
  const disagree = same.some((t) => contradict(t, last));
  // What was read before something else was is no witness of what is read now.
  const since = same.slice(same.findLastIndex((t) => t !== last && elsewise(t, last)) + 1);
  const cap: Sure = disagree ? "likely" : "certain";
  if (last.answer === "none") {
    const alike = proven && last.doubts.some((d) => d.kind === "looks-alike");
    const none = alike
      ? "likely"
      : sureOfWeight(together(since.filter((t) => t.answer === "none").map((t) => t.weight)));
    return { ...empty, codes: [], answer: "none", none: atMost(none, cap), whole: atMost(none, cap), disagree };
  }
  const codes = last.codes.map((x): CodeKnown => {
    const where = since.filter((t) => has(t, x.code, x.memory));
    const weight = together(where.map((t) => has(t, x.code, x.memory)!));
    return { code: x.code, memory: x.memory, sure: atMost(sureOfWeight(weight), cap), in: where };
  });
  const all = codes.reduce<Sure>((s, x) => atMost(s, x.sure), "certain");
  const wholes = since.filter(
    (t) => t.codes.length === last.codes.length && last.codes.every((x) => has(t, x.code, x.memory)),
  );
  // Another reading holds a code more: this list is not all of it, whatever several such readings say together.
  const more = since.some((t) => t.codes.some((x) => atLeast(x.sure, "likely") && !has(last, x.code, x.memory)));
  const whole = more ? "unsure" : sureOfWeight(together(wholes.map((t) => t.weight)));
  return { ...empty, answer: "codes", codes, whole: atMost(atMost(whole, all), cap), disagree };
}

/** Does a reading say something else, surely enough to be taken for a change or a slip, whichever of the two was wrong? */
function elsewise(t: Told, last: Told): boolean {
  if (last.answer === "none") return t.codes.some((x) => atLeast(x.sure, "likely"));
  return atLeast(t.none, "likely") || (atLeast(t.whole, "likely") && contradict(t, last));
}

/** A reading of its own adds to what is known as its odds say; beyond this it adds no more, since the same person read. */
const MOST_OF_ONE = 0.995;

/** So sure at most is what several readings say together of which none is certain alone: who counts wrong once may do so again, and what fits nearly as well does so each time. */
const MOST_TOGETHER = 0.98;

const oddsOf = (p: number) => Math.min(p, MOST_OF_ONE) / (1 - Math.min(p, MOST_OF_ONE));

/** Several readings that say the same: their odds multiply, as those of independent witnesses. What limits all of them stays. */
function together(weights: readonly Weight[]): Weight {
  if (weights.length < 2) return weights[0] ?? { p: 0, heard: 0, most: "unsure" };
  const [called, others] = [weights.filter((w) => w.called), weights.filter((w) => !w.called)];
  const ofCalled = called.reduce((o, w) => o * oddsOf(w.p), 1);
  const capped = Math.max(Math.min(ofCalled, oddsOf(MOST_TOGETHER)), ...called.map((w) => oddsOf(w.p)));
  const odds = others.reduce((o, w) => o * oddsOf(w.p), called.length ? capped : 1);
  // Each of them left room for another list, and it may be the same one: their doubts are not independent.
  const open = weights.every((w) => !w.apart && w.p < CERTAIN);
  const p = open ? Math.min(MOST_TOGETHER, odds / (1 + odds)) : odds / (1 + odds);
  const most = weights.reduce<Sure>((s, w) => (atLeast(s, w.most) ? s : w.most), "unsure");
  // What was read against the odds was not heard at all.
  const heard = (by: readonly Weight[]) => by.reduce((n, w) => n + (w.p >= 0.5 ? w.heard : 0), 0);
  return {
    called: called.length === weights.length,
    p: Math.max(p, ...weights.map((w) => w.p)),
    // What could not be certain on its own makes nothing certain beside another; it was heard all the same.
    heard: Math.max(heard(weights.filter((w) => atLeast(w.most, most))), Math.min(1, heard(weights))),
    most,
  };
}

/** Two readings that cannot both be right: one lists a code surely enough, the other is a whole list without it. */
function contradict(a: Told, b: Told): boolean {
  const lacks = (x: Told, y: Told) =>
    (x.answer === "none" ? atLeast(x.none, "likely") : atLeast(x.whole, "likely")) &&
    y.codes.some((code) => atLeast(code.sure, "likely") && !has(x, code.code, code.memory));
  return lacks(a, b) || lacks(b, a);
}
