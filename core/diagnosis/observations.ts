import type { CircuitKind } from "../pack/circuit";
import type { Story } from "../record/types";
import type { UnitSeen } from "../procedure/unit-check";
import type { Suspect, SystemHere } from "./suspect";
import type { Failure } from "./kinds";
import type { Finding } from "./network";

/** What the owner can say that the engine does. */
export const SYMPTOMS = [
  "Stumbles",
  "Cuts out",
  "Hard to start",
  "High idle",
  "Hunting idle",
  "Less power",
  "Pings",
  "Uses more fuel",
  "Black smoke",
  "Smells of fuel",
  "Louder exhaust",
  "Runs hot",
] as const;
export type Symptom = (typeof SYMPTOMS)[number];
/** The owner was asked, and there is nothing of all that. */
export const NO_SYMPTOM = "Nothing to feel";

/** Something told or seen besides codes, as a finding: a symptom, a lamp that goes out again, a value of the lamp check. */
export interface Observation extends Finding {
  /** `symptom:Stumbles`, `comes-and-goes`, `engine:ground`, `engine:output:pump`. */
  key: string;
}

/** What was told or seen, and what was asked for and is not so, by keys of observations. */
export interface Observed {
  present: string[];
  absent: string[];
}

type Chances<K extends string> = Readonly<Partial<Record<K, Partial<Record<Symptom, number>>>>>;

/**
 * Chance that a failure makes the engine do this and that the owner tells it. House estimates, as the weights of `kinds.ts`.
 * What hurts a circuit's signal shows by the circuit's kind; what is wrong with air, fuel or a mechanism, by itself.
 */
const OF_KIND: Chances<CircuitKind> = {
  thermistor: { "Hard to start": 0.3, "Uses more fuel": 0.35, "Black smoke": 0.2, "High idle": 0.12, Stumbles: 0.12 },
  position: { Stumbles: 0.5, "Hunting idle": 0.25, "High idle": 0.2, "Less power": 0.25 },
  pressure: { Stumbles: 0.35, "Uses more fuel": 0.3, "Black smoke": 0.25, "Less power": 0.35, "Hard to start": 0.2 },
  "air-flow": { "Less power": 0.45, Stumbles: 0.45, "Cuts out": 0.3, "Hard to start": 0.25, "Black smoke": 0.2 },
  oxygen: { "Uses more fuel": 0.3, "Hunting idle": 0.12, Stumbles: 0.1 },
  pickup: { "Cuts out": 0.55, "Hard to start": 0.45, Stumbles: 0.3 },
  knock: { "Less power": 0.3, Pings: 0.12 },
  actuator: { Stumbles: 0.25, "Less power": 0.25, "Cuts out": 0.15, "Hard to start": 0.2 },
  valve: { "Hunting idle": 0.3, "High idle": 0.2, Stumbles: 0.15 },
  recirculation: { Stumbles: 0.2, Pings: 0.2, "Hunting idle": 0.15 },
  other: { Stumbles: 0.1 },
};

const OF_FAILURE: Chances<Failure> = {
  hose: { "Hunting idle": 0.3, Stumbles: 0.25, "High idle": 0.2, "Less power": 0.25 },
  gap: { "Hard to start": 0.3, "Cuts out": 0.3, Stumbles: 0.2 },
  "air-leak": { "Hunting idle": 0.5, "High idle": 0.45, Stumbles: 0.25 },
  "exhaust-leak": { "Louder exhaust": 0.6 },
  "fuel-low": { "Less power": 0.6, Stumbles: 0.4, "Hard to start": 0.3, "Cuts out": 0.15, Pings: 0.15 },
  "fuel-high": { "Uses more fuel": 0.55, "Black smoke": 0.45, "Smells of fuel": 0.4, "Hard to start": 0.15 },
  "memory-feed": { "Hard to start": 0.08, "Hunting idle": 0.08 },
  "sensor-ground": { Stumbles: 0.35, "Hunting idle": 0.25, "Black smoke": 0.2, "Uses more fuel": 0.2 },
  reference: { Stumbles: 0.45, "Less power": 0.3, "Hunting idle": 0.2 },
  feed: { "Cuts out": 0.3, "Less power": 0.25, "Hard to start": 0.25 },
  joint: { Stumbles: 0.35, "Cuts out": 0.25 },
  loom: { Stumbles: 0.25, "Cuts out": 0.15 },
  "unit-ground": { "Cuts out": 0.3, Stumbles: 0.3, "Hard to start": 0.25 },
  charging: { "Hard to start": 0.35 },
  unit: { "Cuts out": 0.25, "Hard to start": 0.25, Stumbles: 0.15 },
  program: {},
};

/** What sticks shows by the kind of what it is in. */
const STICKS: Chances<CircuitKind> = {
  valve: { "High idle": 0.4, "Hunting idle": 0.5, "Cuts out": 0.15 },
  recirculation: { Stumbles: 0.4, "Hunting idle": 0.35, "Cuts out": 0.15, Pings: 0.15 },
};

/** How often an old engine does it with nothing of all this wrong. */
const ANYWAY: Readonly<Record<Symptom, number>> = {
  Stumbles: 0.05,
  "Cuts out": 0.02,
  "Hard to start": 0.05,
  "High idle": 0.03,
  "Hunting idle": 0.04,
  "Less power": 0.05,
  Pings: 0.02,
  "Uses more fuel": 0.05,
  "Black smoke": 0.02,
  "Smells of fuel": 0.02,
  "Louder exhaust": 0.02,
  "Runs hot": 0.02,
};

/** Chance that the lamp goes out again by itself: a contact opens and closes, what is broken stays broken. */
const COMES_AND_GOES: Readonly<Record<Failure, number>> = {
  plug: 0.6,
  "wire-open": 0.5,
  "wire-short": 0.35,
  part: 0.2,
  hose: 0.15,
  gap: 0.3,
  sticks: 0.35,
  "air-leak": 0.15,
  "exhaust-leak": 0.1,
  "fuel-low": 0.3,
  "fuel-high": 0.15,
  program: 0.03,
  "memory-feed": 0.3,
  "sensor-ground": 0.5,
  reference: 0.25,
  feed: 0.4,
  joint: 0.65,
  loom: 0.4,
  "unit-ground": 0.5,
  charging: 0.35,
  unit: 0.25,
};
/** Of a lamp whose code is an old story nobody knows. */
const GOES_ANYWAY = 0.15;

/** When the lamp comes on: what it says of a failure that it comes on just then. */
interface When {
  key: string;
  /** As a reason: "it comes on in the wet". */
  because: string;
  /** Does the story say so? null: it says nothing of it. */
  told: (s: Story) => boolean | null;
  /** How often it is told of a lamp that has nothing to do with it. */
  leak: number;
  shows: (s: Suspect) => number | undefined;
}

const wet: Partial<Record<Failure, number>> = { plug: 0.35, joint: 0.35, "sensor-ground": 0.12, "unit-ground": 0.08 };
const hot: Partial<Record<Failure, number>> = { loom: 0.27, part: 0.17, "fuel-low": 0.15 };
const cold: Partial<Record<Failure, number>> = { plug: 0.12, charging: 0.17, "air-leak": 0.2, sticks: 0.15 };
const standing: Partial<Record<Failure, number>> = { "air-leak": 0.4, hose: 0.25 };
const loaded: Partial<Record<Failure, number>> = { "fuel-low": 0.5, charging: 0.1, loom: 0.1 };

const oneOf = (is: boolean, other: boolean): boolean | null => (is ? true : other ? false : null);

const WHEN: readonly When[] = [
  {
    key: "wet",
    because: "it got wet",
    told: (s) =>
      oneOf(
        s.weather.includes("Wet") || s.before.includes("Just washed"),
        s.weather.some((w) => w !== "Wet"),
      ),
    leak: 0.2,
    shows: (s) => (s.failure === "plug" && s.circuit?.beside === "water" ? 0.55 : wet[s.failure]),
  },
  {
    key: "hot",
    because: "it comes with the engine hot",
    told: (s) => oneOf(s.engine === "warm" || s.weather.includes("Heat"), s.engine === "cold"),
    leak: 0.25,
    shows: (s) => (s.failure === "wire-short" && s.circuit?.beside === "exhaust" ? 0.2 : hot[s.failure]),
  },
  {
    key: "cold",
    because: "it comes with the engine cold",
    told: (s) => oneOf(s.engine === "cold" || s.weather.includes("Frost"), s.engine === "warm"),
    leak: 0.25,
    shows: (s) => cold[s.failure],
  },
  {
    key: "standing",
    because: "it comes while standing",
    told: (s) => oneOf(s.speed === "standing", s.speed !== "" && s.speed !== "any"),
    leak: 0.15,
    shows: (s) => (s.failure === "sticks" && s.circuit?.kind === "valve" ? 0.4 : standing[s.failure]),
  },
  {
    key: "loaded",
    because: "it comes under load",
    told: (s) => oneOf(s.load === "hill" || s.load === "hard", s.load === "light"),
    leak: 0.15,
    shows: (s) => loaded[s.failure],
  },
];

/** Values of the lamp check and what makes them bad; `output`: something that the unit drives is dead at key-on. */
const AT_KEY_ON: Readonly<
  Record<"power" | "ground" | "output", { leak: number; shows: Partial<Record<Failure, number>> }>
> = {
  power: { leak: 0.02, shows: { charging: 0.4 } },
  ground: { leak: 0.005, shows: { "unit-ground": 0.97 } },
  output: { leak: 0.04, shows: { "unit-ground": 0.3, unit: 0.4, charging: 0.1, feed: 0.3 } },
};

/** A circuit that only what runs the engine has. */
const RUNS: readonly CircuitKind[] = ["oxygen", "mixture", "air-flow", "recirculation", "knock"];
const ENGINE = /injector|ignition|idle|throttle|coolant|manifold|fuel|glow|boost|crankshaft|camshaft/i;

/** Does the system run the engine, so that what is wrong in it can be felt there? */
const runsEngine = ({ circuits }: Pick<SystemHere, "circuits">): boolean =>
  circuits.some((c) => RUNS.includes(c.kind) || ENGINE.test(c.circuit));

const symptomsOf = ({ failure, circuit }: Suspect): Partial<Record<Symptom, number>> =>
  failure === "sticks"
    ? ((circuit && STICKS[circuit.kind]) ?? {})
    : (OF_FAILURE[failure] ?? (circuit && OF_KIND[circuit.kind]) ?? {});

const symptomKey = (symptom: string): string => `symptom:${symptom}`;
const GOES = "comes-and-goes";

/** All that can be observed of these suspects, besides codes. */
export function observationsOf(systems: readonly SystemHere[], suspects: readonly Suspect[]): Observation[] {
  const links = (chance: (s: Suspect) => number | undefined) =>
    suspects.flatMap((s, i): [number, number][] => {
      const p = chance(s);
      return p ? [[i, p]] : [];
    });
  const engine = new Set(systems.filter(runsEngine).map((s) => s.about.id));
  const felt = suspects.map((s) => (engine.has(s.system) ? symptomsOf(s) : {}));
  const symptoms = SYMPTOMS.map((symptom) => ({
    key: symptomKey(symptom),
    leak: ANYWAY[symptom],
    links: felt.flatMap((of, i): [number, number][] => (of[symptom] ? [[i, of[symptom]]] : [])),
  }));
  const units = systems.flatMap(({ about }) => {
    const at = (key: string, { leak, shows }: (typeof AT_KEY_ON)["power"]) => ({
      key: `${about.id}:${key}`,
      leak,
      links: links((s) => (s.system === about.id ? shows[s.failure] : undefined)),
    });
    const outputs = (about.drives ?? []).map((o) => at(`output:${o.id}`, AT_KEY_ON.output));
    return [at("power", AT_KEY_ON.power), at("ground", AT_KEY_ON.ground), ...outputs];
  });
  const goes = { key: GOES, leak: GOES_ANYWAY, links: links((s) => COMES_AND_GOES[s.failure]) };
  const when = WHEN.map(({ key, leak, shows }) => ({ key, leak, links: links(shows) }));
  return [...units, goes, ...symptoms, ...when];
}

/**
 * What the lamp check and the story tell, the weightiest first. Where no symptom was told at all, none is absent: nobody may have been asked.
 * @param units what was seen of each unit, by the system that owns its codes
 */
export function observed(story: Story, units: Readonly<Record<string, UnitSeen>>): Observed {
  const out: Observed = { present: [], absent: [] };
  const tell = (key: string, is: boolean) => (is ? out.present : out.absent).push(key);
  for (const [system, { power, ground, outputs }] of Object.entries(units)) {
    if (power) tell(`${system}:power`, power === "bad");
    if (ground) tell(`${system}:ground`, ground === "bad");
    for (const [id, seen] of Object.entries(outputs)) tell(`${system}:output:${id}`, seen === "dead");
  }
  if (story.goesOut) tell(GOES, story.goesOut !== "no");
  if (story.symptoms.length) for (const s of SYMPTOMS) tell(symptomKey(s), story.symptoms.includes(s));
  for (const w of WHEN) {
    const is = w.told(story);
    if (is !== null) tell(w.key, is);
  }
  return out;
}

/** An observation is a reason for a suspect that makes it likelier by so many times; when the lamp comes on says less. */
const FITS = 3;
const WHEN_FITS = 1.4;

/** Observations that were made and that the suspect would explain, as reasons in words. */
export function fitting(all: readonly Observation[], present: readonly string[], suspect: number): string[] {
  const least = (key: string) => (WHEN.some((w) => w.key === key) ? WHEN_FITS : FITS);
  const fits = all
    .filter(
      ({ key, leak, links }) =>
        present.includes(key) && links.some(([i, p]) => i === suspect && 1 - (1 - leak) * (1 - p) >= least(key) * leak),
    )
    .map((o) => o.key);
  const felt = fits.filter((k) => k.startsWith("symptom:")).map((k) => k.slice("symptom:".length).toLowerCase());
  const said = felt.length ? [`It fits what the engine does: ${felt.join(", ")}.`] : [];
  if (fits.includes(GOES)) said.push("Such faults come and go, as this one does.");
  for (const w of WHEN) if (fits.includes(w.key)) said.push(`Likelier because ${w.because}.`);
  if (fits.some((k) => k.endsWith(":ground"))) said.push("The unit's ground was measured bad in the lamp check.");
  if (fits.some((k) => k.endsWith(":power"))) said.push("The unit's power was measured bad in the lamp check.");
  if (fits.some((k) => k.includes(":output:"))) said.push("Something that the unit drives was dead in the lamp check.");
  return said;
}
