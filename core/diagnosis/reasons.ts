import { byNumber, inWords, listOf } from "../wording";
import type { CodeFinding, Graph } from "./graph";
import type { Shift } from "./shifts";
import { fitting } from "./observations";
import { codeKey, type Found, type Group, type ProposedCheck } from "./weigh";

const PLACES = {
  exhaust: "Its wires run past the exhaust.",
  water: "It sits in the spray of the road.",
  moving: "Its wires bend with every move.",
} as const;

/** Something told makes it likelier by so much at least, to be named as a reason. */
const WORTH_TELLING = 1.2;

/** Why something is suspected, and what speaks against it, in sentences. */
export function reasonsFor(
  group: Group,
  { graph, found, shifts }: { graph: Graph; found: Found; shifts: readonly Shift[] },
): string[] {
  const ids = group.suspects.map((s) => s.id);
  const linked = graph.codes.filter((c) => c.links.some(([i]) => ids.includes(graph.suspects[i].id)));
  const key = (c: CodeFinding) => codeKey(c.system, c.code);
  const explained = new Set(group.suspects.flatMap((s) => s.explains));
  const codes = graph.codes.filter((c) => explained.has(key(c)));
  const names = listOf(codes.map((c) => c.code).sort(byNumber));
  const all = found.present.length;
  const out: string[] = [];
  if (!codes.length) out.push("It seldom sets such codes.");
  else if (codes.length === all && all > 1) out.push(`It explains all ${inWords(all)} codes: ${names}.`);
  else if (all > 1) out.push(`It explains ${inWords(codes.length)} of ${inWords(all)} codes: ${names}.`);
  else out.push(`It can set ${names}.`);
  const circuits = new Set(codes.map((c) => c.circuit.id)).size;
  const shared = group.suspects.every((s) => !s.circuit);
  if (shared && circuits > 1) out.push(`Otherwise ${inWords(circuits)} separate faults would have come together.`);
  const quiet = linked.filter((c) => found.absent.includes(key(c)) && !explained.has(key(c)));
  const quietCircuits = new Set(quiet.map((c) => c.circuit.id)).size;
  if (shared && quietCircuits > 2)
    out.push(`${quietCircuits} other circuits hang on it and have no code, which speaks against it.`);
  const [first] = group.suspects;
  if (first?.circuit?.beside && ["plug", "wire-open", "wire-short"].includes(first.failure))
    out.push(PLACES[first.circuit.beside]);
  const here = graph.suspects.findIndex((s) => s.id === first?.id);
  out.push(...fitting(graph.observations, found.observed.present, here));
  for (const s of shifts)
    if (group.suspects.some((x) => s.times(x) >= WORTH_TELLING)) out.push(`Likelier because ${s.because}.`);
  return out;
}

/** Why this check and not another. */
export function whyCheck(check: ProposedCheck, confirms: boolean, best: boolean): string {
  const share = Math.round(check.bad * 10);
  const often =
    share <= 0
      ? "It will most likely come out good"
      : share >= 10
        ? "It will most likely come out bad"
        : `It comes out bad in about ${inWords(share)} of ten such cases`;
  const time = `${check.minutes} ${check.minutes === 1 ? "minute" : "minutes"}`;
  if (confirms) return `${often}. It shows whether it is so, in ${time}.`;
  return best ? `${often}. In its ${time} it tells more than any other check would.` : `${often}, and takes ${time}.`;
}
