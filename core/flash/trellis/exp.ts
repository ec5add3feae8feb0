/** Entries of the table a unit of the exponent, and how far down it goes: below e^-64 nothing counts any more. */
const FINE = 8;
const DEEPEST = 64;
const TABLE = Float64Array.from({ length: DEEPEST * FINE }, (_, i) => Math.exp(-i / FINE));

/**
 * e^x for x ≤ 0, to a part in 10^11: a table and the series of what is left over (Abramowitz and Stegun, 4.2.1). Densities are
 * most of the cost of a reading, and the library's own, exact to the last bit, takes several times as long. Below -64 it is 0.
 */
export function expNeg(x: number): number {
  const t = x * -FINE;
  if (!(t < DEEPEST * FINE)) return 0;
  const i = t | 0;
  const r = (i - t) / FINE;
  const r2 = r * r;
  return (
    TABLE[i] * (1 + r + r2 * (1 / 2 + r * (1 / 6) + r2 * (1 / 24 + r * (1 / 120) + r2 * (1 / 720 + r * (1 / 5040)))))
  );
}
