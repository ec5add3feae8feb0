import { entropy } from "./entropy";
import { absent, added, there, weighing, type Weighing } from "./infer";
import type { Finding, Network, Seen } from "./network";

/** What a check would tell, before it is done. */
export interface Worth {
  /** Probability that it comes out bad. */
  bad: number;
  /** Expected information about what is wrong, bits. */
  bits: number;
}

/** Causes of a check that are weighed in every combination; the rest by their own chance. */
const TOGETHER = 4;

/**
 * What each check would tell: the mutual information of its outcome and the causes, given what was seen
 * (`H(outcome) − E[H(outcome | causes)]`, Shannon). Exact where a check tells of at most `TOGETHER` causes, which is
 * where their chances hang together; of further ones the likeliest are taken together and the others as independent.
 * @param after probability of each cause after what was seen, as `posterior` gives it
 */
export function worthOf(net: Network, seen: Seen, after: readonly number[], checks: readonly Finding[]): Worth[] {
  const w = weighing(net, seen);
  const out = checks.map((): Worth => ({ bad: 0, bits: 0 }));
  const plans = checks
    .map((check, i) => ({ i, ...planOf(check, after) }))
    .sort((a, b) => (a.joint[0]?.[0] ?? 0) - (b.joint[0]?.[0] ?? 0));
  // Checks are parted in halves; each half gets the weights with all causes but those that its own checks tell of.
  const part = (some: typeof plans, sets: Float64Array, open: readonly number[]) => {
    const own = new Set(some.flatMap((plan) => plan.joint.map(([cause]) => cause)));
    const rest = open.filter((cause) => !own.has(cause)).reduce((x, cause) => added(x, w.factors[cause]), sets);
    if (some.length === 1) {
      out[some[0].i] = worth(w, some[0], rest);
      return;
    }
    const mid = some.length >> 1;
    for (const half of [some.slice(0, mid), some.slice(mid)]) part(half, rest, [...own]);
  };
  if (plans.length) part(plans, w.leaks, [...w.factors.keys()]);
  return out;
}

interface Plan {
  /** Causes that are weighed in every combination, rising, with the chance that the check shows each. */
  joint: (readonly [number, number])[];
  /** Chance of a good outcome as far as the others go. */
  quiet: number;
}

function planOf(check: Finding, after: readonly number[]): Plan {
  const links = [...check.links].sort((a, b) => after[b[0]] * b[1] - after[a[0]] * a[1]);
  const joint = links.slice(0, TOGETHER).sort((a, b) => a[0] - b[0]);
  const quiet = links.slice(TOGETHER).reduce((p, [i, shows]) => p * (1 - after[i] * shows), 1 - check.leak);
  return { joint, quiet };
}

/** @param without weights of all causes but those of the check */
function worth(w: Weighing, { joint, quiet }: Plan, without: Float64Array): Worth {
  let [total, bad, noise] = [0, 0, 0];
  const combine = (sets: Float64Array, k: number, good: number) => {
    if (k === joint.length) {
      const p = sets[sets.length - 1];
      total += p;
      bad += p * (1 - good);
      noise += p * entropy(good);
      return;
    }
    const [i, shows] = joint[k];
    combine(added(sets, absent(w.factors[i])), k + 1, good);
    combine(added(sets, there(w.factors[i])), k + 1, good * (1 - shows));
  };
  combine(without, 0, quiet);
  if (!(total > 0)) return { bad: 0, bits: 0 };
  return { bad: bad / total, bits: Math.max(0, entropy(bad / total) - noise / total) };
}
