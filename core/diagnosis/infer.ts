import { MOST_PRESENT, type Network, type Seen } from "./network";

/** A cause as it stands to what was seen: its chance, and how it shows each finding that is present. */
interface Factor {
  /** Weight of "there", with all that it did not show folded in; weight of "not there" is `not`. */
  there: number;
  not: number;
  /** Bit of a present finding, and the chance that it shows it. */
  shows: readonly (readonly [bit: number, chance: number])[];
}

/** What was seen, ready to be weighed: one factor a cause, and the weights of the sets of present findings that leaks alone show. */
export interface Weighing {
  factors: readonly Factor[];
  /** Over all sets of present findings: the weight that exactly these are shown by leaks. */
  leaks: Float64Array;
}

/**
 * Sets up the sum over all sets of causes by the sets of findings that they show.
 * @throws {RangeError} where more than `MOST_PRESENT` findings are present
 */
export function weighing(net: Network, seen: Seen): Weighing {
  if (seen.present.length > MOST_PRESENT)
    throw new RangeError(`${seen.present.length} findings are present; at most ${MOST_PRESENT} can be weighed at once`);
  const shows: [number, number][][] = net.causes.map(() => []);
  for (const [bit, f] of seen.present.entries())
    for (const [cause, chance] of net.findings[f].links) if (chance > 0) shows[cause].push([1 << bit, chance]);
  const silent = net.causes.map(() => 1);
  let unseen = 1;
  for (const f of seen.absent) {
    unseen *= 1 - net.findings[f].leak;
    for (const [cause, chance] of net.findings[f].links) silent[cause] *= 1 - chance;
  }
  let leaks: Float64Array<ArrayBufferLike> = new Float64Array(1 << seen.present.length);
  leaks[0] = unseen;
  for (const [bit, f] of seen.present.entries())
    leaks = added(leaks, { there: 1, not: 0, shows: [[1 << bit, net.findings[f].leak]] });
  return {
    factors: net.causes.map((c, i) => ({ there: c.prior * silent[i], not: 1 - c.prior, shows: shows[i] })),
    leaks,
  };
}

/** Adds one cause: from the weights of the sets shown without it to those with it. */
export function added(sets: Float64Array, { there, not, shows }: Factor): Float64Array {
  const out = new Float64Array(sets.length);
  if (there) {
    for (let s = 0; s < sets.length; s++) out[s] = sets[s] * there;
    for (const [bit, chance] of shows)
      for (let from = 0; from < out.length; from += 2 * bit)
        for (let s = from; s < from + bit; s++) {
          const w = out[s];
          out[s + bit] = out[s + bit] + w * chance;
          out[s] = w * (1 - chance);
        }
  }
  if (not) for (let s = 0; s < sets.length; s++) out[s] = out[s] + sets[s] * not;
  return out;
}

/** The same cause, known to be there. */
export const there = (f: Factor): Factor => ({ ...f, not: 0 });
/** The same cause, known not to be there. */
export const absent = (f: Factor): Factor => ({ ...f, there: 0 });

const all = (sets: Float64Array): number => sets[sets.length - 1];

/** Probability of all that was seen together. */
export function evidence(w: Weighing): number {
  return all(w.factors.reduce((sets, f) => added(sets, f), w.leaks));
}

/**
 * Probability of each cause after what was seen, exactly.
 *
 * The sum is Quickscore's (Heckerman 1989, "A tractable inference algorithm for diagnosing multiple diseases"): over the
 * subsets of the present findings, linear in causes and absent findings. It is taken over the sets that are shown and
 * not by inclusion and exclusion, so that no terms of opposite sign cancel and ten rare findings at once keep their digits.
 * @returns one probability for each cause; the priors where what was seen cannot be
 */
export function posterior(net: Network, seen: Seen): number[] {
  const w = weighing(net, seen);
  const out = net.causes.map((c) => c.prior);
  // Down a tree over the causes: each node has the weights of all causes but its own, O(n log n) steps for all n leaves.
  const leave = (sets: Float64Array, from: number, to: number) => {
    if (to - from === 1) {
      const f = w.factors[from];
      const yes = all(added(sets, there(f)));
      const no = all(sets) * f.not;
      if (yes + no > 0) out[from] = yes / (yes + no);
      return;
    }
    const mid = (from + to) >> 1;
    const half = (a: number, b: number) => w.factors.slice(a, b).reduce((x, f) => added(x, f), sets);
    leave(half(mid, to), from, mid);
    leave(half(from, mid), mid, to);
  };
  if (net.causes.length) leave(w.leaks, 0, net.causes.length);
  return out;
}
