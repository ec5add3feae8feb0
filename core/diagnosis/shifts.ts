import type { Story } from "../record/types";
import type { Suspect } from "./suspect";
import type { Failure } from "./kinds";
import { workedAt } from "./worked";

/** Something told of the vehicle that makes some failures likelier than they mostly are. */
export interface Shift {
  /** In words, as the reason is given: "it came on in the wet". */
  because: string;
  times: (s: Pick<Suspect, "failure" | "circuit">) => number;
}

const of =
  (times: Partial<Record<Failure, number>>) =>
  ({ failure }: Pick<Suspect, "failure">): number =>
    times[failure] ?? 1;

/** What was done before, by the words of the story's form: it can have caused what is wrong. Factors on the odds, the house's own estimates. */
const TOLD: readonly (readonly [(s: Story) => boolean, string, Shift["times"]])[] = [
  [
    // Where nobody knows at what, it can be anywhere.
    (s) => s.before.includes("Just worked on") && !s.worked.length,
    "it was just worked on",
    of({ plug: 3, hose: 2.5, "wire-open": 1.5, "sensor-ground": 2, "unit-ground": 2, joint: 2, "air-leak": 1.5 }),
  ],
  [
    (s) => s.before.includes("Battery was off"),
    "the battery was off",
    of({ "memory-feed": 4, charging: 1.5, "unit-ground": 1.5 }),
  ],
  [
    (s) => s.before.includes("Stood for weeks"),
    "it stood for weeks",
    of({ plug: 1.5, "sensor-ground": 1.5, "unit-ground": 1.5, charging: 2, sticks: 1.5 }),
  ],
  [(s) => s.before.includes("Just refuelled"), "it was just refuelled", of({ "fuel-low": 1.5, "air-leak": 1.2 })],
];

/** What the story shifts. */
export const shiftsOf = (story: Story): Shift[] => [
  ...TOLD.filter(([holds]) => holds(story)).map(([, because, times]) => ({ because, times })),
  ...(story.worked.length ? [{ because: "it was just worked on there", times: workedAt(story.worked) }] : []),
];

/** Wires that run past something hot, wet or moving fail sooner. */
const BESIDE: Readonly<
  Record<NonNullable<NonNullable<Suspect["circuit"]>["beside"]>, Partial<Record<Failure, number>>>
> = {
  exhaust: { "wire-short": 2, "wire-open": 1.3 },
  water: { plug: 2, part: 1.2 },
  moving: { "wire-open": 2.5, plug: 1.2 },
};

/** Most of all that a failure may become before anything is seen. */
const MOST = 0.5;

/** The suspects with their chances shifted by where they are and by what was told. */
export function shifted<S extends Suspect>(suspects: readonly S[], shifts: readonly Shift[]): S[] {
  return suspects.map((s) => {
    const place = s.circuit?.beside ? (BESIDE[s.circuit.beside][s.failure] ?? 1) : 1;
    const odds = (s.prior / (1 - s.prior)) * shifts.reduce((f, x) => f * x.times(s), place);
    return { ...s, prior: Math.min(MOST, odds / (1 + odds)) };
  });
}
