import type { CircuitKind } from "../pack/circuit";
import type { Signal } from "./signal";

/** How something fails. Those of one circuit first, then what several circuits share. */
export type Failure =
  | "plug"
  | "wire-open"
  | "wire-short"
  | "part"
  | "hose"
  | "gap"
  | "sticks"
  | "air-leak"
  | "exhaust-leak"
  | "fuel-low"
  | "fuel-high"
  | "program"
  | "memory-feed"
  | "sensor-ground"
  | "reference"
  | "feed"
  | "joint"
  | "loom"
  | "unit-ground"
  | "charging"
  | "unit";

/** Chance that a failure makes the unit store a code that says this of the signal. */
export type Shows = Partial<Record<Signal, number>>;

/**
 * Weights of failures before anything is seen, and what each shows. They are the house's own estimates of an old vehicle:
 * plugs and chafed wires before parts, parts before units. A pack's own circuits say what is shared; story and place shift
 * the weights (`shifts.ts`). `npm run bench:diagnosis` draws faults with each weight off by a factor of up to three.
 */
export const PRIOR: Readonly<Record<Failure, number>> = {
  plug: 0.02,
  "wire-open": 0.008,
  "wire-short": 0.006,
  part: 0.012,
  hose: 0.015,
  gap: 0.006,
  sticks: 0.012,
  "air-leak": 0.015,
  "exhaust-leak": 0.006,
  "fuel-low": 0.006,
  "fuel-high": 0.004,
  program: 0.003,
  "memory-feed": 0.02,
  "sensor-ground": 0.006,
  reference: 0.004,
  feed: 0.008,
  joint: 0.008,
  loom: 0.005,
  "unit-ground": 0.006,
  charging: 0.012,
  unit: 0.003,
};

/** The same in circuits whose parts are known to fail in another way: what wears, sticks, or loses its vacuum. */
export const OFTEN: Readonly<Partial<Record<CircuitKind, Partial<Record<Failure, number>>>>> = {
  position: { part: 0.025, plug: 0.015 },
  pressure: { hose: 0.03, plug: 0.012, part: 0.008 },
  "air-flow": { part: 0.02, hose: 0.02, plug: 0.012 },
  oxygen: { plug: 0.006, "wire-open": 0.003, "wire-short": 0.003, part: 0.02, "air-leak": 0.025 },
  switch: { sticks: 0.025, plug: 0.012, "wire-open": 0.008 },
  valve: { sticks: 0.03, plug: 0.012, part: 0.008 },
  recirculation: { sticks: 0.03, hose: 0.02, plug: 0.006, part: 0.006, "wire-open": 0.003, "wire-short": 0.003 },
};

/**
 * Scale of the weights above: with it a vehicle with some thirty circuits has one thing wrong in ten at any time, so that
 * two faults at once are seldom and what several codes share weighs against coincidence.
 */
export const SCALE = 0.1;

type Modes = Partial<Record<Failure, Shows>>;

/** A wire or plug that is open, where the unit looks for pulses or a current. */
const OPEN: Modes = {
  plug: { absent: 0.93, current: 0.93, range: 0.9, differs: 0.6, low: 0.6, high: 0.2, slow: 0.3 },
  "wire-open": { absent: 0.93, current: 0.93, range: 0.9, differs: 0.6, low: 0.6, high: 0.2, slow: 0.3 },
  "wire-short": { absent: 0.85, current: 0.85, range: 0.85, differs: 0.5, low: 0.7, high: 0.1, slow: 0.1 },
  part: { absent: 0.85, current: 0.8, range: 0.8, differs: 0.6, low: 0.35, high: 0.35, slow: 0.6 },
};

/** What a failure of a circuit's own shows, by the kind of the circuit. */
export const MODES: Readonly<Record<CircuitKind, Modes>> = {
  thermistor: {
    plug: { high: 0.9, low: 0.02, range: 0.92, absent: 0.8 },
    "wire-open": { high: 0.9, low: 0.02, range: 0.92, absent: 0.8 },
    "wire-short": { low: 0.93, high: 0.01, range: 0.92, absent: 0.6 },
    part: { high: 0.4, low: 0.3, range: 0.75, absent: 0.5 },
  },
  position: {
    plug: { low: 0.7, high: 0.2, range: 0.9, differs: 0.8, absent: 0.7 },
    "wire-open": { low: 0.6, high: 0.3, range: 0.9, differs: 0.8, absent: 0.7 },
    "wire-short": { low: 0.85, high: 0.05, range: 0.9, differs: 0.8, absent: 0.7 },
    part: { low: 0.35, high: 0.35, range: 0.8, differs: 0.8, absent: 0.4 },
  },
  pressure: {
    plug: { low: 0.7, high: 0.2, range: 0.9, differs: 0.7, absent: 0.7 },
    "wire-open": { low: 0.6, high: 0.3, range: 0.9, differs: 0.7, absent: 0.7 },
    "wire-short": { low: 0.85, high: 0.05, range: 0.9, differs: 0.7, absent: 0.7 },
    part: { low: 0.35, high: 0.35, range: 0.8, differs: 0.7, absent: 0.4 },
    hose: { high: 0.6, low: 0.1, range: 0.35, differs: 0.8, absent: 0.2 },
  },
  "air-flow": {
    plug: { range: 0.93, low: 0.8, high: 0.1, absent: 0.9 },
    "wire-open": { range: 0.9, low: 0.7, high: 0.2, absent: 0.9 },
    "wire-short": { range: 0.9, low: 0.8, high: 0.05, absent: 0.9 },
    part: { range: 0.8, low: 0.4, high: 0.3, absent: 0.6 },
    hose: { range: 0.4, low: 0.3, absent: 0.05 },
  },
  oxygen: {
    plug: { lean: 0.6, slow: 0.5, absent: 0.9, range: 0.8, rich: 0.02, current: 0.9 },
    "wire-open": { lean: 0.5, slow: 0.4, absent: 0.9, range: 0.8, rich: 0.02, current: 0.9 },
    "wire-short": { lean: 0.7, slow: 0.4, absent: 0.8, range: 0.8, rich: 0.02, current: 0.8 },
    part: { lean: 0.3, rich: 0.2, slow: 0.85, absent: 0.6, range: 0.6, current: 0.85 },
    "air-leak": { lean: 0.85, rich: 0.01, slow: 0.05 },
    "exhaust-leak": { lean: 0.6, slow: 0.1 },
    "fuel-low": { lean: 0.8 },
    "fuel-high": { rich: 0.9, slow: 0.05 },
  },
  mixture: {
    "air-leak": { lean: 0.9, range: 0.7, differs: 0.6 },
    "fuel-low": { lean: 0.85, range: 0.7, differs: 0.6 },
    "fuel-high": { rich: 0.9, range: 0.7, differs: 0.6 },
    hose: { range: 0.4, differs: 0.3 },
    "exhaust-leak": { lean: 0.5, range: 0.4 },
  },
  pickup: { ...OPEN, gap: { absent: 0.8, range: 0.5, slow: 0.3, differs: 0.4 } },
  knock: { ...OPEN, gap: { absent: 0.7, range: 0.4 } },
  switch: { ...OPEN, sticks: { absent: 0.8, differs: 0.7, low: 0.3, high: 0.2 } },
  actuator: OPEN,
  valve: { ...OPEN, sticks: { differs: 0.9, low: 0.5, high: 0.5, current: 0.03, absent: 0.3, range: 0.3 } },
  recirculation: {
    plug: { range: 0.9, differs: 0.7, absent: 0.8, low: 0.6, high: 0.2, current: 0.9 },
    "wire-open": { range: 0.85, differs: 0.6, absent: 0.8, low: 0.5, high: 0.2, current: 0.9 },
    "wire-short": { range: 0.85, differs: 0.6, absent: 0.7, low: 0.6, high: 0.05, current: 0.8 },
    part: { range: 0.7, differs: 0.6, absent: 0.5, low: 0.4, high: 0.3, current: 0.7 },
    hose: { differs: 0.85, low: 0.6, range: 0.3, absent: 0.4 },
    sticks: { differs: 0.85, low: 0.5, range: 0.6, high: 0.4, absent: 0.3 },
  },
  supply: { charging: { low: 0.95, high: 0.9, range: 0.93, absent: 0.9, current: 0.6 } },
  reference: { reference: { range: 0.95, low: 0.95, high: 0.5, differs: 0.6, absent: 0.6 } },
  unit: {
    program: { range: 0.95, low: 0.95, differs: 0.95, absent: 0.95, current: 0.95 },
    "memory-feed": { lost: 0.95 },
  },
  other: { ...OPEN, sticks: { differs: 0.6, range: 0.2, absent: 0.3, low: 0.2, high: 0.2 } },
};

/** What something shared shows in a circuit that hangs on it, by the kind of the circuit; `all` where the kind does not matter. */
export const SHARED: Readonly<Partial<Record<Failure, Partial<Record<CircuitKind | "all", Shows>>>>> = {
  "sensor-ground": {
    thermistor: { high: 0.85, range: 0.85 },
    position: { high: 0.8, range: 0.85, differs: 0.5 },
    pressure: { high: 0.8, range: 0.85, differs: 0.5 },
    "air-flow": { high: 0.4, range: 0.7 },
    oxygen: { range: 0.3, rich: 0.1, lean: 0.1 },
    recirculation: { high: 0.6, range: 0.7 },
  },
  reference: {
    position: { low: 0.85, range: 0.85, differs: 0.5 },
    pressure: { low: 0.85, range: 0.85, differs: 0.5 },
    recirculation: { low: 0.6, range: 0.7 },
  },
  feed: { all: { current: 0.9, absent: 0.7, range: 0.6, differs: 0.5, low: 0.5 } },
  joint: { all: { current: 0.5, absent: 0.5, range: 0.5, high: 0.4, low: 0.3, differs: 0.3, lean: 0.2, slow: 0.2 } },
  loom: { all: { low: 0.6, absent: 0.5, range: 0.5, current: 0.4, lean: 0.4, differs: 0.2, high: 0.15, slow: 0.2 } },
  "unit-ground": { all: { high: 0.25, range: 0.25, low: 0.15, absent: 0.1, current: 0.15, differs: 0.1 } },
  charging: { all: { range: 0.06, low: 0.06, absent: 0.04, current: 0.06, lost: 0.1 } },
  unit: {
    all: { range: 0.12, low: 0.12, high: 0.12, absent: 0.12, current: 0.15, differs: 0.08, slow: 0.04, lost: 0.1 },
  },
};

/** What a circuit's name says of its kind, the narrower before the wider. */
export const KIND_WORDS: readonly (readonly [CircuitKind, RegExp])[] = [
  ["supply", /system voltage|charge control/i],
  ["reference", /5 V reference/i],
  ["unit", /control unit|cylinder select/i],
  ["mixture", /fuel supply|misfire|fuel pressure control/i],
  [
    "actuator",
    /heater|motor circuit|igniter|ignition (control|output)|electronic ignition|injector|relay|coil|clutch circuit|lamp circuit|blower/i,
  ],
  ["oxygen", /oxygen sensor/i],
  ["recirculation", /exhaust gas recirculation/i],
  ["valve", /idle air|valve|solenoid|actuator|air injection|shut-off|blend|timing control/i],
  ["knock", /knock/i],
  ["pickup", /crankshaft|camshaft|top dead|speed sensor|ignition reference|wheel speed/i],
  ["air-flow", /air flow/i],
  ["switch", /switch|level|anti-theft|oil pressure|load circuit|signal circuit|water-in-fuel/i],
  ["pressure", /pressure/i],
  ["thermistor", /temperature/i],
  ["position", /position|height|pedal/i],
];
