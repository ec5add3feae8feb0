import type { Story, Vehicle } from "../record/types";
import { entropy } from "./entropy";

/** Conditions of a drive, in the order in which they are asked, by group. */
export const CONDITIONS = {
  Engine: ["Cold", "Warm"],
  Road: ["Standing", "Town", "Country", "Motorway"],
  Load: ["Light", "Uphill", "Full throttle"],
  Weather: ["Dry", "Wet", "Frost", "Heat"],
  Before: ["Just washed", "Just refuelled", "Stood for weeks"],
} as const;
export type ConditionGroup = keyof typeof CONDITIONS;
/** Of a group one condition holds, so that another one of it is its opposite; what was done before can be several things. */
export const holdsAlone = (group: ConditionGroup): boolean => group !== "Before";
export type Condition = (typeof CONDITIONS)[keyof typeof CONDITIONS][number];

/** A drive, or an event of a drive: did the lamp come on, and under which conditions? */
export interface Drive {
  at: string;
  cameOn: boolean;
  conditions: readonly string[];
}

const FROM_STORY: Readonly<Record<string, Condition>> = {
  cold: "Cold",
  warm: "Warm",
  standing: "Standing",
  town: "Town",
  country: "Country",
  motorway: "Motorway",
  light: "Light",
  hill: "Uphill",
  hard: "Full throttle",
};

/** A job's story as a drive on which the lamp came on; null where it tells no condition. */
export function driveOfStory(story: Story, at: string): Drive | null {
  const told = [story.engine, story.speed, story.load].flatMap((x) => FROM_STORY[x] ?? []);
  const rest = [...story.weather, ...story.before].filter(isCondition);
  const conditions = [...told, ...rest];
  return conditions.length ? { at, cameOn: true, conditions } : null;
}

const ALL: readonly string[] = Object.values(CONDITIONS).flat();
export const isCondition = (word: string): word is Condition => ALL.includes(word);

/** All drives that are known of a vehicle: those that were noted, and one for each job with a story, in order of time. */
export const drivesOf = (vehicle: Pick<Vehicle, "drives">, jobs: readonly { cameOn: Drive | null }[]): Drive[] =>
  [...vehicle.drives, ...jobs.flatMap((j) => j.cameOn ?? [])].sort((a, b) => a.at.localeCompare(b.at));

/** How often the lamp came on with a condition and without it, and what that says. */
export interface Effect {
  condition: Condition;
  with: { on: number; of: number };
  without: { on: number; of: number };
  /** Probability that the lamp comes on more often with the condition than without. */
  p: number;
  /** Expected information of one more drive under the condition, bits. */
  next: number;
}

/** Shape of what is believed of a share before anything is seen: any is as likely as any other. */
const FLAT = { on: 1, off: 1 };

const logGamma = (x: number): number => {
  // Lanczos, g = 7 (Numerical Recipes 6.1): exact to 1e-13 for what is counted here.
  const c = [0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7]; // prettier-ignore
  const t = x + 6.5;
  const sum = c.slice(1).reduce((s, ci, i) => s + ci / (x + i), c[0]);
  return (x - 0.5) * Math.log(t) - t + Math.log(Math.sqrt(2 * Math.PI) * sum);
};
/** Log of the beta function. */
export const logBeta = (a: number, b: number): number => logGamma(a) + logGamma(b) - logGamma(a + b);

/**
 * Probability that one share is greater than another, from counts, each Beta distributed with a flat prior (Beta–Binomial).
 * The closed sum for whole numbers: P(A > B) = Σ_{i<a} B(c + i, b + d) / ((b + i) B(1 + i, b) B(c, d)).
 * @param x how often it happened, of how many; @param y the same of the other
 */
export function moreOften(x: { on: number; of: number }, y: { on: number; of: number }): number {
  const [a, b] = [x.on + FLAT.on, x.of - x.on + FLAT.off];
  const [c, d] = [y.on + FLAT.on, y.of - y.on + FLAT.off];
  let sum = 0;
  for (let i = 0; i < a; i++)
    sum += Math.exp(logBeta(c + i, b + d) - Math.log(b + i) - logBeta(1 + i, b) - logBeta(c, d));
  return Math.min(1, Math.max(0, sum));
}

/** The effect of each condition that was ever noted, the surest that sets it off first. */
export function effectsOf(drives: readonly Drive[]): Effect[] {
  const groups = Object.entries(CONDITIONS) as [ConditionGroup, readonly Condition[]][];
  const each = groups.flatMap(([group, all]) => all.map((condition) => ({ condition, group, all })));
  return each
    .flatMap(({ condition, group, all }): Effect[] => {
      const here = drives.filter((d) => d.conditions.includes(condition));
      if (!here.length) return [];
      // Who said nothing of the weather did not say that it was dry.
      const toldOf = (d: Drive) =>
        !holdsAlone(group) || d.conditions.some((c) => (all as readonly string[]).includes(c));
      const not = drives.filter((d) => !d.conditions.includes(condition) && toldOf(d));
      const count = (list: readonly Drive[]) => ({ on: list.filter((d) => d.cameOn).length, of: list.length });
      const [w, o] = [count(here), count(not)];
      const p = moreOften(w, o);
      const comes = (w.on + FLAT.on) / (w.of + FLAT.on + FLAT.off);
      const after = (on: 0 | 1) => entropy(moreOften({ on: w.on + on, of: w.of + 1 }, o));
      return [
        {
          condition,
          with: w,
          without: o,
          p,
          next: Math.max(0, entropy(p) - comes * after(1) - (1 - comes) * after(0)),
        },
      ];
    })
    .sort((a, b) => b.p - a.p);
}

/** So sure at least, it is said to set the lamp off; below, it may. */
export const SETS_IT_OFF = 0.95;
export const MAY_SET_IT_OFF = 0.75;
/** With fewer drives than this on one side nothing is said of it. */
export const FEW = 3;
