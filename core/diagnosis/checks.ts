import type { CircuitKind, Limit } from "../pack/circuit";
import type { CircuitHere } from "./circuits";
import type { Graph } from "./graph";
import type { Failure } from "./kinds";
import type { Finding } from "./network";
import type { Signal } from "./signal";

/** What is needed for a check besides eyes and hands. */
export const TOOLS = ["meter", "gauge", "vacuum-pump", "spare"] as const;
export type Tool = (typeof TOOLS)[number];

/** A look or a measurement: bad where something that it tells of is wrong. */
export interface Check extends Finding {
  /** The same for the same check in every job of a vehicle. */
  id: string;
  kind: CheckKind;
  system: string;
  circuit: CircuitHere | null;
  /** The shared thing it is about, as the pack calls it. */
  name: string | null;
  tool: Tool | null;
  /** Without what it takes to get at it. */
  minutes: number;
  at: keyof typeof REACH | null;
  /** Where the value is measured and what is good; null for a look. */
  limit: Limit | null;
}

export const CHECK_KINDS = [
  "look-plug",
  "clean-plug",
  "wiggle",
  "unplug",
  "bridge-plug",
  "follow-wires",
  "from-unit",
  "ring-through",
  "to-ground",
  "part",
  "hose",
  "gap",
  "moves",
  "vacuum-hold",
  "duty",
  "swap-part",
  "air-leak",
  "exhaust-leak",
  "fuel-pressure",
  "program-chip",
  "memory-feed",
  "sensor-ground",
  "reference",
  "feed",
  "joint",
  "loom",
  "unit-ground",
  "charging",
  "swap-unit",
] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];

interface Plan {
  /** Failures it tells of, and how surely it shows each. */
  tells: Partial<Record<Failure, number>>;
  /** Chance of a bad outcome where nothing of that is wrong. */
  leak: number;
  minutes: number;
  tool: Tool | null;
  of?: Limit["of"];
  /** What is good where the pack does not say. */
  usual?: Limit;
  /** It is only made where a figure is known. */
  byFigure?: true;
  /** Where one has to get at first, and how long that takes, minutes: once for all checks there. */
  at?: "unit-plug";
  /** Kinds of circuit for which it tells anything. */
  only?: readonly CircuitKind[];
  /** What the code says of the signal, where the check only tells something of such. */
  signal?: Signal;
}

/** Minutes until the unit's plug is off and its cavities can be reached. */
const REACH = { "unit-plug": 5 } as const;

/**
 * Checks of one circuit's own, and those of what circuits share. Minutes are for somebody who has the bonnet open; like the
 * weights they are the house's own estimates.
 */
const PLANS: Readonly<Record<CheckKind, Plan>> = {
  "look-plug": { tells: { plug: 0.88 }, leak: 0.002, minutes: 3, tool: null },
  "clean-plug": { tells: { plug: 0.97 }, leak: 0.02, minutes: 8, tool: null },
  wiggle: {
    tells: { plug: 0.5, "wire-open": 0.5, joint: 0.5, "wire-short": 0.3, loom: 0.3, "sensor-ground": 0.2 },
    leak: 0.03,
    minutes: 3,
    tool: null,
  },
  unplug: {
    tells: { "wire-short": 0.95, loom: 0.9, unit: 0.8 },
    leak: 0.03,
    minutes: 4,
    tool: null,
    only: ["thermistor"],
    signal: "low",
  },
  "bridge-plug": {
    tells: { "wire-open": 0.95, "sensor-ground": 0.95, joint: 0.8, unit: 0.8 },
    leak: 0.03,
    minutes: 4,
    tool: null,
    only: ["thermistor"],
    signal: "high",
  },
  "follow-wires": { tells: { "wire-open": 0.55, "wire-short": 0.6, loom: 0.75 }, leak: 0.02, minutes: 8, tool: null },
  "ring-through": {
    tells: { "wire-open": 0.97, joint: 0.5 },
    leak: 0.002,
    minutes: 5,
    tool: "meter",
    at: "unit-plug",
  },
  "to-ground": { tells: { "wire-short": 0.97, loom: 0.85 }, leak: 0.002, minutes: 3, tool: "meter", at: "unit-plug" },
  "from-unit": {
    tells: { plug: 0.93, "wire-open": 0.95, "wire-short": 0.93, part: 0.9, joint: 0.85, loom: 0.7 },
    leak: 0.02,
    minutes: 2,
    tool: "meter",
    at: "unit-plug",
    only: ["thermistor", "pickup", "actuator", "valve"],
  },
  part: { tells: { part: 0.92 }, leak: 0.01, minutes: 6, tool: "meter", of: "part" },
  hose: { tells: { hose: 0.92 }, leak: 0.002, minutes: 3, tool: null },
  gap: { tells: { gap: 0.92 }, leak: 0.002, minutes: 8, tool: null },
  moves: { tells: { sticks: 0.92 }, leak: 0.008, minutes: 8, tool: null },
  "vacuum-hold": {
    tells: { hose: 0.96, sticks: 0.6 },
    leak: 0.005,
    minutes: 4,
    tool: "vacuum-pump",
    of: "vacuum",
    usual: {
      of: "vacuum",
      unit: "bar",
      at: "hand pump on the hose, pulled to 0.5 bar, read after half a minute",
      good: [0.45, 0.55],
    },
    only: ["pressure", "recirculation"],
  },
  duty: {
    tells: { sticks: 0.75, plug: 0.6, "wire-open": 0.8, "wire-short": 0.8 },
    leak: 0.02,
    minutes: 4,
    tool: "meter",
    of: "duty",
    byFigure: true,
    only: ["valve"],
  },
  "air-leak": { tells: { "air-leak": 0.92 }, leak: 0.008, minutes: 8, tool: null },
  "exhaust-leak": { tells: { "exhaust-leak": 0.9 }, leak: 0.002, minutes: 6, tool: null },
  "fuel-pressure": { tells: { "fuel-low": 0.95, "fuel-high": 0.95 }, leak: 0.002, minutes: 15, tool: "gauge" },
  "program-chip": { tells: { program: 0.5 }, leak: 0.002, minutes: 10, tool: null },
  "memory-feed": { tells: { "memory-feed": 0.95 }, leak: 0.002, minutes: 3, tool: null },
  "sensor-ground": { tells: { "sensor-ground": 0.97 }, leak: 0.002, minutes: 4, tool: "meter", of: "ground" },
  reference: { tells: { reference: 0.98 }, leak: 0.002, minutes: 4, tool: "meter", of: "reference" },
  feed: { tells: { feed: 0.96 }, leak: 0.002, minutes: 3, tool: "meter", of: "feed" },
  loom: { tells: { loom: 0.9 }, leak: 0.002, minutes: 5, tool: null },
  "swap-part": { tells: { part: 0.98, sticks: 0.95 }, leak: 0.002, minutes: 15, tool: "spare" },
  joint: { tells: { joint: 0.9 }, leak: 0.002, minutes: 6, tool: null },
  "unit-ground": { tells: { "unit-ground": 0.95 }, leak: 0.002, minutes: 6, tool: "meter" },
  charging: { tells: { charging: 0.97 }, leak: 0.002, minutes: 4, tool: "meter" },
  "swap-unit": { tells: { unit: 0.95, program: 0.95 }, leak: 0.002, minutes: 30, tool: "spare" },
};

/** A check of a circuit is made once for each circuit; all others once for the thing that is shared. */
export const OWN: readonly CheckKind[] = CHECK_KINDS.slice(0, CHECK_KINDS.indexOf("swap-part") + 1);

/** A part that has no figure in the pack is compared with the manual, or with another one: not as sure. */
const WITHOUT_FIGURE = 0.75;

/**
 * Minutes of a check, after others: what was reached once stays open.
 * @param done checks that were done before
 */
export const minutesOf = (
  check: Pick<Check, "minutes" | "at" | "system">,
  done: readonly Pick<Check, "at" | "system">[],
): number =>
  check.minutes + (check.at && !done.some((d) => d.at === check.at && d.system === check.system) ? REACH[check.at] : 0);

/** All checks that tell something of these suspects. */
export function checksOf({ suspects, codes }: Pick<Graph, "suspects" | "codes">): Check[] {
  const tells = (kind: CheckKind, among: readonly number[]): [number, number][] =>
    among.flatMap((i): [number, number][] => {
      const shows = PLANS[kind].tells[suspects[i].failure];
      return shows ? [[i, shows]] : [];
    });
  const make = (
    kind: CheckKind,
    target: string,
    more: Pick<Check, "system" | "circuit" | "name" | "limit" | "links">,
  ) => {
    const { tool, minutes, leak, at = null } = PLANS[kind];
    return { id: `${kind}:${target}`, kind, tool, minutes, leak, at, ...more };
  };
  const limitOf = (circuit: CircuitHere, kind: CheckKind) =>
    circuit.limits?.find((l) => l.of === PLANS[kind].of) ?? PLANS[kind].usual ?? null;
  const indexes = suspects.map((_, i) => i);
  const on = (circuit: CircuitHere): number[] => [
    ...new Set(codes.filter((c) => c.circuit === circuit).flatMap((c) => c.links.map(([i]) => i))),
  ];
  const circuits = [...new Set(codes.map((c) => c.circuit))];
  const own = circuits.flatMap((circuit) => {
    const here = on(circuit);
    return OWN.flatMap((kind) => {
      const { only, signal, byFigure } = PLANS[kind];
      if (only && !only.includes(circuit.kind)) return [];
      const limit = limitOf(circuit, kind);
      if (byFigure && !limit) return [];
      if (signal && !codes.some((c) => c.circuit === circuit && c.signal === signal)) return [];
      const links = tells(kind, here);
      if (!links.some(([i]) => suspects[i].circuit === circuit)) return [];
      const sure = kind === "part" && !limit ? links.map(([i]): [number, number] => [i, WITHOUT_FIGURE]) : links;
      return [make(kind, circuit.id, { system: circuit.system, circuit, name: null, limit, links: sure })];
    });
  });
  const shared = indexes
    .filter((i) => !suspects[i].circuit)
    .flatMap((i) => {
      const s = suspects[i];
      return CHECK_KINDS.filter((kind) => !OWN.includes(kind) && PLANS[kind].tells[s.failure]).map((kind) => {
        // It is measured where a circuit that hangs on it can be reached; that it is charging, at the battery.
        const circuit = PLANS[kind].of ? (circuits.find((c) => on(c).includes(i) && limitOf(c, kind)) ?? null) : null;
        const supply = kind === "charging" ? circuits.find((c) => c.kind === "supply" && c.limits) : undefined;
        const limit = circuit ? limitOf(circuit, kind) : (supply?.limits?.find((l) => l.of === "part") ?? null);
        return make(kind, s.id, { system: s.system, circuit, name: s.name, limit, links: tells(kind, [i]) });
      });
    });
  return merged([...own, ...shared]);
}

/** Two suspects of which one and the same check tells ("fuel pressure" of too low and too high) make one check. */
function merged(checks: readonly Check[]): Check[] {
  const by = new Map<string, Check>();
  for (const c of checks) {
    const key = c.circuit || c.name ? c.id : `${c.kind}:${c.system}`;
    const known = by.get(key);
    by.set(key, known ? { ...known, links: [...known.links, ...c.links] } : { ...c, id: key });
  }
  return [...by.values()];
}
