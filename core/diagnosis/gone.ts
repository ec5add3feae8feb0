import { effectsOf, FEW, logBeta, MAY_SET_IT_OFF, type Condition, type Drive } from "./conditions";

/** Quiet drives since a repair, held against how often the lamp used to come on. */
export interface Gone {
  /** The condition under which it mostly came on, by which the drives are counted; null: all drives. */
  condition: Condition | null;
  before: { on: number; of: number };
  since: { on: number; of: number };
  /** Probability that it is gone. */
  p: number;
}

/** Before any drive, a repair that was made counts for as much as one that was not: nothing is known of it. */
const PRIOR = 0.5;

/**
 * Probability that a fault is gone after `quiet` drives without it. If it is not gone it goes on coming as often as before: the share is
 * Beta(on + 1, of − on + 1), so that so many quiet drives in a row have the chance B(a, b + n) / B(a, b). Calibrated in a test.
 */
export function goneAfter(before: { on: number; of: number }, quiet: number): number {
  const [a, b] = [before.on + 1, before.of - before.on + 1];
  const chance = Math.exp(logBeta(a, b + quiet) - logBeta(a, b));
  return PRIOR / (PRIOR + (1 - PRIOR) * chance);
}

/**
 * What the drives since a clear say.
 * @param drives all of the vehicle, in order of time
 * @param at when it was cleared, ISO
 * @returns null where it never came on before, or nothing was driven since
 */
export function goneSince(drives: readonly Drive[], at: string): Gone | null {
  const before = drives.filter((d) => d.at < at);
  const since = drives.filter((d) => d.at >= at);
  const sets = effectsOf(before).find((e) => e.with.of >= FEW && e.without.of >= FEW && e.p >= MAY_SET_IT_OFF);
  const condition = sets?.condition ?? null;
  const count = (list: readonly Drive[]) => {
    const under = condition ? list.filter((d) => d.conditions.includes(condition)) : list;
    return { on: under.filter((d) => d.cameOn).length, of: under.length };
  };
  const [was, is] = [count(before), count(since)];
  if (!was.on || !since.length) return null;
  const again = since.some((d) => d.cameOn);
  return { condition, before: was, since: is, p: again ? 0 : goneAfter(was, is.of) };
}
