import { circuitsOf } from "../diagnosis/circuits";
import { CHECK_KINDS, checksOf, minutesOf, OWN, type Check } from "../diagnosis/checks";
import { graphOf, type Graph } from "../diagnosis/graph";
import type { Suspect } from "../diagnosis/suspect";
import { shifted } from "../diagnosis/shifts";
import { codeKey, grouped, STANDS_OUT, weigh, type Found } from "../diagnosis/weigh";
import type { Observed } from "../diagnosis/observations";
import type { Finding } from "../diagnosis/network";
import type { Pack } from "../pack/pack";
import { systemsOf, tableOwner, type VehicleFacts } from "../pack/scope";

/** A vehicle with something wrong that is known, and the codes that it set. */
export interface Case {
  /** As Klinko believes it to be. */
  graph: Graph;
  /** As it really is: nobody can tell more from what was found than who knows this. */
  truth: Graph;
  /** Indexes of suspects that are really wrong and can have set what is there; none where that is an old story. */
  wrong: number[];
  found: Found;
}

/** How a case may differ from what the pack says. */
export interface Off {
  /** Each weight is off by up to this factor, up or down. */
  priors: number;
  /** Share of codes that the unit should have set and did not, and how many times as often one is there without cause. */
  missing: number;
  extra: number;
}

/** The graph of a made-up vehicle, all systems that can be read and that anybody may repair. */
export function graphOfVehicle(pack: Pack, v: VehicleFacts): Graph {
  const owners = [...new Set(systemsOf(pack, v).map((s) => tableOwner(pack, s.system)))];
  const systems = owners.flatMap((id) => {
    const about = pack.systems.find((s) => s.id === id);
    return about && !about.caution ? [{ about, circuits: circuitsOf(pack, v, id) }] : [];
  });
  const g = graphOf(systems, !pack.circuits);
  return { ...g, suspects: shifted(g.suspects, []) };
}

const shows = (f: Finding, wrong: ReadonlySet<number>, leak: number): number =>
  1 - f.links.reduce((quiet, [i, chance]) => (wrong.has(i) ? quiet * (1 - chance) : quiet), 1 - leak);

/** A case drawn from a graph: one code at least is there, whether or not anything is wrong. */
export function drawCase(graph: Graph, off: Off, random: () => number): Case {
  const odds = graph.suspects.map((s) => {
    const factor = Math.exp((2 * random() - 1) * Math.log(off.priors));
    return (s.prior / (1 - s.prior)) * factor;
  });
  const truth = truthOf(graph, odds, off);
  for (;;) {
    const set = new Set(odds.flatMap((o, i) => (random() < o / (1 + o) ? [i] : [])));
    const present = graph.codes.filter(
      (c) => random() < shows(c, set, c.leak * off.extra) && !(off.missing && random() < off.missing),
    );
    if (!present.length) continue;
    const keys = present.map((c) => codeKey(c.system, c.code));
    return {
      graph,
      truth,
      wrong: [...set].filter((i) => present.some((c) => c.links.some(([k]) => k === i))),
      found: {
        present: keys,
        absent: graph.codes.map((c) => codeKey(c.system, c.code)).filter((k) => !keys.includes(k)),
        checks: [],
        observed: observedIn(graph, set, off, random),
      },
    };
  }
}

/** The graph with the weights by which a case is drawn; that some signs fail to appear is taken into each of their links. */
function truthOf(graph: Graph, odds: readonly number[], off: Off): Graph {
  const failing = <F extends Finding>(f: F, most: number): F => ({
    ...f,
    leak: Math.min(most, f.leak * off.extra) * (1 - off.missing),
    links: f.links.map(([i, chance]) => [i, chance * (1 - off.missing)] as [number, number]),
  });
  return {
    ...graph,
    suspects: graph.suspects.map((s, i) => ({ ...s, prior: odds[i] / (1 + odds[i]) })),
    codes: graph.codes.map((c) => failing(c, 1)),
    observations: graph.observations.map((o) => failing(o, 0.5)),
  };
}

/** What the owner tells and the lamp check shows: everything was asked and looked at. */
function observedIn(graph: Graph, set: ReadonlySet<number>, off: Off, random: () => number): Observed {
  const out: Observed = { present: [], absent: [] };
  for (const o of graph.observations) {
    const is = random() < shows(o, set, Math.min(0.5, o.leak * off.extra)) && !(off.missing && random() < off.missing);
    (is ? out.present : out.absent).push(o.key);
  }
  return out;
}

/** How a person goes on: the id of the next check, or null where there is none left. */
export type Strategy = (c: Case, found: Found, left: readonly Check[]) => Check | null;

/** The check that tells most a minute. */
export const byKlinko: Strategy = (c, found) => weigh(c.graph, found).checks[0] ?? null;

const LOOKS_FIRST: readonly Check["kind"][] = [...CHECK_KINDS.filter((k) => k !== "clean-plug"), "clean-plug"];

/** What the codes name, one after the other: first the part itself, then its plug and its wires. What is shared comes last. */
export const byNames: Strategy = (c, found, left) => inOrder(c, found, left, ["part", "moves", ...LOOKS_FIRST]);
/** The same by somebody who knows that it is mostly the plug. */
export const byPlugs: Strategy = (c, found, left) => inOrder(c, found, left, LOOKS_FIRST);

function inOrder(c: Case, found: Found, left: readonly Check[], kinds: readonly Check["kind"][]): Check | null {
  const order = (x: Check) => {
    const named = x.circuit && OWN.includes(x.kind);
    const at = named ? found.present.findIndex((k) => circuitOf(c.graph, k) === x.circuit!.id) : -1;
    return (at < 0 ? 1000 : at) * 100 + kinds.indexOf(x.kind);
  };
  // Tests that only tell apart are Klinko's: who follows the names looks and measures.
  const plain = left.filter((x) => !["wiggle", "unplug", "bridge-plug", "from-unit"].includes(x.kind));
  return [...plain].sort((a, b) => order(a) - order(b))[0] ?? null;
}
const circuitOf = (graph: Graph, key: string) => graph.codes.find((x) => codeKey(x.system, x.code) === key)?.circuit.id;

/** By how often it is that, whatever was found. */
export const byPrior: Strategy = (c, _, left) => {
  const worth = (x: Check) => x.links.reduce((p, [i, s]) => p + priorOf(c.graph.suspects, i) * s, 0) / x.minutes;
  return [...left].sort((a, b) => worth(b) - worth(a))[0] ?? null;
};
const priorOf = (suspects: readonly Suspect[], i: number) => suspects[i]?.prior ?? 0;

/** Checks of everything that can explain what is there, with links to the suspects of the whole graph. */
function allChecks(c: Case): Check[] {
  const there = c.graph.codes.filter((x) => c.found.present.includes(codeKey(x.system, x.code)));
  return checksOf({ suspects: c.graph.suspects, codes: there }).filter((x) =>
    x.links.some(([i]) => there.some((code) => code.links.some(([k]) => k === i))),
  );
}

/** A suspect is found when it stands at so much. */
const FOUND = STANDS_OUT;

/** Minutes of checking until something that is wrong stands out, and how many checks that took. */
export function play(
  c: Case,
  strategy: Strategy,
  random: () => number,
): { minutes: number; checks: number; found: boolean } {
  const wrong = new Set(c.wrong);
  const isWrong = (id: string) => c.wrong.some((i) => c.graph.suspects[i].id === id);
  const done: Check[] = [];
  let left = allChecks(c);
  let found = c.found;
  let minutes = 0;
  for (let n = 1; n <= MOST_CHECKS; n++) {
    // Who has found nothing goes over it all again.
    if (!left.length) [left, found] = [allChecks(c), { ...found, checks: found.checks.filter((x) => x.bad) }];
    const next = strategy(c, found, left);
    const check = next && left.find((x) => x.id === next.id);
    if (!check) break;
    minutes += minutesOf(check, done);
    const bad = random() < check.leak || check.links.some(([i, chance]) => wrong.has(i) && random() < chance);
    done.push(check);
    left = left.filter((x) => x !== check);
    found = { ...found, checks: [...found.checks.filter((x) => x.id !== check.id), { id: check.id, bad }] };
    if (
      bad &&
      grouped(weigh(c.graph, found).suspects).some((g) => g.p >= FOUND && g.suspects.some((s) => isWrong(s.id)))
    )
      return { minutes, checks: n, found: true };
  }
  // What is left is taken apart.
  return { minutes: minutes + TAKE_APART, checks: 0, found: false };
}

const TAKE_APART = 60;
const MOST_CHECKS = 60;
