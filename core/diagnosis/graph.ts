import type { CircuitKind } from "../pack/circuit";
import type { CircuitHere } from "./circuits";
import { MODES, OFTEN, PRIOR, SCALE, SHARED, type Failure, type Shows } from "./kinds";
import type { Finding } from "./network";
import { observationsOf, type Observation } from "./observations";
import type { Suspect, SystemHere } from "./suspect";
import { signalOf, type Signal } from "./signal";

/** A code as a finding. */
export interface CodeFinding extends Finding {
  system: string;
  code: string;
  circuit: CircuitHere;
  signal: Signal;
}

export interface Graph {
  suspects: Suspect[];
  codes: CodeFinding[];
  /** What can be told or seen besides codes. */
  observations: Observation[];
}

/** Chance that a code is there with nothing of all this wrong: an old story, a slip of the unit. */
const LEAK = 0.0015;

/** What mostly switches on a part of this kind, so that a fuse can take it down. */
const SWITCHED: readonly CircuitKind[] = ["actuator", "valve", "air-flow"];

/** Things that circuits of a system share: what each circuit hangs on, by the name that makes it the same thing. */
function sharedBy(c: CircuitHere, about: SystemHere["about"], generic: boolean): [Failure, string][] {
  // Without a word of the pack, what such circuits mostly hang on.
  const of = (failure: Failure, named: string | undefined, mostly: boolean): [Failure, string][] =>
    named ? [[failure, named]] : generic && mostly ? [[failure, ""]] : [];
  const reads = (failure: Failure) => SHARED[failure]?.[c.kind] !== undefined;
  return [
    ...of("sensor-ground", reads("sensor-ground") ? c.ground : undefined, reads("sensor-ground")),
    ...of("reference", c.reference, reads("reference")),
    ...of("feed", c.feed, SWITCHED.includes(c.kind)),
    ...of("joint", c.joint, false),
    ...of("loom", c.beside === "exhaust" ? "exhaust" : undefined, false),
    ["unit-ground", about.ground ?? ""],
    ["charging", BATTERY],
    ["unit", ""],
  ];
}

/** What measures a liquid or a closed circuit has no vacuum hose. */
const hasHose = (c: CircuitHere): boolean => !/refrigerant|oil|brake|coolant|tyre/i.test(c.circuit);

const showsIn = (failure: Failure, kind: CircuitKind): Shows => SHARED[failure]?.[kind] ?? SHARED[failure]?.all ?? {};

/** Failures that are not of one circuit, though the codes of one kind of circuit tell of them first. */
const OF_ALL: readonly Failure[] = [
  "air-leak",
  "exhaust-leak",
  "fuel-low",
  "fuel-high",
  "program",
  "memory-feed",
  "charging",
  "reference",
];

const BATTERY = "battery";

/** Units that share a ground by name, and all that hang on one battery, share the suspect. */
const ACROSS: readonly Failure[] = ["unit-ground", "charging"];

/**
 * The noisy-or network of a vehicle: what can be wrong, and which codes each would set.
 * @param generic the pack says nothing of what its circuits share: what mostly is shared stands in
 */
export function graphOf(systems: readonly SystemHere[], generic: boolean): Graph {
  const suspects: Suspect[] = [];
  const index = new Map<string, number>();
  const add = (id: string, more: Omit<Suspect, "id" | "prior">, kind?: CircuitKind): number => {
    const known = index.get(id);
    const prior = SCALE * ((kind && OFTEN[kind]?.[more.failure]) ?? PRIOR[more.failure]);
    if (known !== undefined) {
      // Of several circuits that know it in their own way the one counts in which it is commonest.
      const old = suspects[known];
      if (prior > old.prior) suspects[known] = { ...old, prior };
      return known;
    }
    index.set(id, suspects.length);
    suspects.push({ id, prior, ...more });
    return suspects.length - 1;
  };
  const codes = systems.flatMap(({ about, circuits }) =>
    circuits.flatMap((c) => {
      const modes = (Object.entries(MODES[c.kind]) as [Failure, Shows][]).filter(([f]) => f !== "hose" || hasHose(c));
      const own = modes.map(([failure, shows]) => {
        const of = { failure, system: about.id };
        if (!OF_ALL.includes(failure))
          return [add(`${c.id}/${failure}`, { ...of, circuit: c, name: null }, c.kind), shows] as const;
        const name = failure === "charging" ? BATTERY : failure === "reference" ? (c.reference ?? "") : "";
        return [
          add(sharedId(failure, name, about.id), { ...of, circuit: null, name: name || null }, c.kind),
          shows,
        ] as const;
      });
      const shared = sharedBy(c, about, generic)
        .filter(([failure]) => !(failure === "charging" && c.kind === "supply"))
        .map(([failure, name]) => {
          const more = { failure, system: about.id, circuit: null, name: name || null };
          return [add(sharedId(failure, name, about.id), more), showsIn(failure, c.kind)] as const;
        });
      return c.entries.map((entry): CodeFinding => {
        const signal = signalOf(entry);
        const links = [...own, ...shared].flatMap(([cause, shows]) => {
          const chance = shows[signal] ?? 0;
          return chance > 0 ? [[cause, chance] as const] : [];
        });
        return { system: about.id, code: entry.code, circuit: c, signal, leak: LEAK, links };
      });
    }),
  );
  return { suspects, codes, observations: observationsOf(systems, suspects) };
}

/** What is shared by name is one thing; what has none belongs to its system. */
const sharedId = (failure: Failure, name: string, system: string): string =>
  ACROSS.includes(failure) && name ? `${failure}/${slug(name)}` : `${system}/${failure}/${slug(name)}`;

const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60);
