/** Something that can be wrong: present or not, each independent of the others before anything is seen. */
export interface Cause {
  /** Probability that it is wrong before anything is seen, in (0, 1). */
  prior: number;
}

/**
 * Something that is seen or not: a code, an output that is dead, a check that came out bad. A noisy-or: each cause that
 * is there shows it with the probability of its link, independent of the others, and the leak stands for all that the
 * network does not hold.
 */
export interface Finding {
  /** Probability that it is seen with none of its causes there, in [0, 1). */
  leak: number;
  /** Index of a cause, and the probability that it alone shows this finding, in [0, 1]. */
  links: readonly (readonly [cause: number, shows: number])[];
}

export interface Network {
  causes: readonly Cause[];
  findings: readonly Finding[];
}

/** Indexes of findings that were seen, and of those that were looked for and not seen. Of all others nothing is known. */
export interface Seen {
  present: readonly number[];
  absent: readonly number[];
}

/** So many findings can be present at once: the work doubles with each. */
export const MOST_PRESENT = 16;
