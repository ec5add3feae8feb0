import { absent, added, there, walk, weighing, type Weighing } from "./infer";
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

const entropy = (p: number): number => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));

/**
 * What each check would tell: the mutual information of its outcome and the causes, given what was seen
 * (`H(outcome) − E[H(outcome | causes)]`, Shannon). Exact where a check tells of at most `TOGETHER` causes, which is
 * where their chances hang together; of further ones the likeliest are taken together and the others as independent.
 * @param after probability of each cause after what was seen, as `posterior` gives it
 */
export function worthOf(net: Network, seen: Seen, after: readonly number[], checks: readonly Finding[]): Worth[] {
  const w = weighing(net, seen);
  const out = checks.map((): Worth => ({ bad: 0, bits: 0 }));
  const plans = checks.map((check) => planOf(check, after));
  // Each check is weighed at the narrowest node of the tree that holds all its causes.
  let open = plans.map((_, i) => i);
  for (const i of open.filter((k) => !plans[k].joint.length)) {
    const bad = 1 - plans[i].quiet;
    out[i] = { bad, bits: 0 };
  }
  open = open.filter((i) => plans[i].joint.length);
  walk(w, (from, to, without) => {
    const mid = (from + to) >> 1;
    const here = open.filter((i) => plans[i].first >= from && plans[i].last < to);
    for (const i of here)
      if (to - from === 1 || (plans[i].first < mid && plans[i].last >= mid))
        out[i] = worth(w, plans[i], without, from, to);
    return here.length > 0;
  });
  return out;
}

interface Plan {
  /** Causes that are weighed in every combination, rising, with the chance that the check shows each. */
  joint: (readonly [number, number])[];
  first: number;
  last: number;
  /** Chance of a good outcome as far as the others go. */
  quiet: number;
}

function planOf(check: Finding, after: readonly number[]): Plan {
  const links = [...check.links].sort((a, b) => after[b[0]] * b[1] - after[a[0]] * a[1]);
  const joint = links.slice(0, TOGETHER).sort((a, b) => a[0] - b[0]);
  const quiet = links.slice(TOGETHER).reduce((p, [i, shows]) => p * (1 - after[i] * shows), 1 - check.leak);
  return { joint, first: joint[0]?.[0] ?? 0, last: joint.at(-1)?.[0] ?? 0, quiet };
}

/** @param without weights of all causes outside [from, to) */
function worth(w: Weighing, { joint, quiet }: Plan, without: Float64Array, from: number, to: number): Worth {
  const own = new Set(joint.map(([i]) => i));
  let base = without;
  for (let i = from; i < to; i++) if (!own.has(i)) base = added(base, w.factors[i]);
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
  combine(base, 0, quiet);
  if (!(total > 0)) return { bad: 0, bits: 0 };
  return { bad: bad / total, bits: Math.max(0, entropy(bad / total) - noise / total) };
}
