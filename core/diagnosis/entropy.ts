/** Entropy of something that is so with the probability `p`, bits (Shannon). */
export const entropy = (p: number): number => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));
