import type { Suspect } from "./suspect";
import type { Failure } from "./kinds";

/** A place of the vehicle at which somebody can have worked: the circuits that lie there, and what is shared there. */
interface Area {
  name: string;
  circuits: RegExp;
  shared: readonly Failure[];
}

const AREAS: readonly Area[] = [
  {
    name: "Intake and throttle",
    circuits: /throttle|idle air|air flow|manifold|intake|MAP|boost|carburettor|accelerator/i,
    shared: ["air-leak", "sensor-ground"],
  },
  {
    name: "Fuel",
    circuits: /fuel|injector|injection timing|evaporative|glow/i,
    shared: ["fuel-low", "fuel-high", "air-leak"],
  },
  {
    name: "Ignition",
    circuits: /ignition|crankshaft|camshaft|top dead|knock|misfire|cylinder select/i,
    shared: ["unit-ground"],
  },
  {
    name: "Exhaust",
    circuits: /oxygen|exhaust|catalyst|air injection/i,
    shared: ["exhaust-leak", "loom"],
  },
  { name: "Cooling", circuits: /coolant|fan|fuel temperature/i, shared: ["sensor-ground"] },
  {
    name: "Timing and cylinder head",
    circuits: /camshaft|crankshaft|valve timing|coolant|knock/i,
    shared: ["air-leak", "sensor-ground"],
  },
  { name: "Gearbox and clutch", circuits: /transmission|gear|clutch|speed sensor|starter/i, shared: ["unit-ground"] },
  { name: "Brakes and wheels", circuits: /wheel|brake|abs|modulator|ride height/i, shared: [] },
  {
    name: "Battery and charging",
    circuits: /voltage|charge/i,
    shared: ["charging", "memory-feed", "unit-ground", "feed"],
  },
  {
    name: "Dash, radio or loom",
    circuits: /anti-theft|lamp|blower|door|locking/i,
    shared: ["memory-feed", "unit-ground", "feed", "joint"],
  },
];
export const AREA_NAMES: readonly string[] = AREAS.map((a) => a.name);

/** What hands do at the place itself: a plug left off, a hose not put back, a wire pulled. Factors on the odds, the house's own estimates. */
const THERE: Partial<Record<Failure, number>> = {
  plug: 6,
  hose: 5,
  "wire-open": 3,
  "wire-short": 2,
  gap: 3,
  sticks: 1.5,
  part: 1.5,
};
/** What is shared there, and so was moved too. */
const SHARED_THERE = 4;

/** How many times likelier a suspect gets by work at these places. */
export const workedAt =
  (places: readonly string[]) =>
  ({ failure, circuit }: Pick<Suspect, "failure" | "circuit">): number => {
    const here = AREAS.filter((a) => places.includes(a.name));
    if (circuit) return here.some((a) => a.circuits.test(circuit.circuit)) ? (THERE[failure] ?? 1) : 1;
    return here.some((a) => a.shared.includes(failure)) ? SHARED_THERE : 1;
  };
