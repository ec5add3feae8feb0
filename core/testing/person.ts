import { encode, normal, seeded, type EncodeOptions } from "../flash/dialect/encode";
import type { Dialect, Faults } from "../flash/dialect/dialect";
import type { Evidence } from "../flash/seen/evidence";

export interface Watched extends EncodeOptions {
  seed: number;
  from?: number;
  until: number;
  /** Standard deviation of the reaction time, ms, and the shares of flashes missed and tapped twice. */
  sd?: number;
  miss?: number;
  double?: number;
}

/** A unit's show as a made-up person taps or holds it, or as edges without any person. For tests. */
export function watch(dialect: Dialect, faults: Faults, mode: "edges" | "taps" | "holds", w: Watched): Evidence {
  const random = seeded(w.seed);
  const from = w.from ?? 0;
  const edges = encode(dialect, faults, from + w.until, { ...w, from, random });
  if (mode === "edges") return { mode, edges, until: w.until };
  const away = dialect.rest === "lit" ? 0 : 1;
  const late = () => 230 + (w.sd ?? 40) * normal(random);
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < edges.length; i++)
    if (edges[i][1] === away && edges[i][0] > 0) spans.push([edges[i][0], edges[i + 1][0]]);
  const longest = Math.max(dialect.marks.short, dialect.marks.long ?? 0) * 1.4 * (w.speed ?? 1);
  const seen = spans.filter(() => random() >= (w.miss ?? 0));
  if (mode === "holds")
    return { mode, holds: seen.map(([a, b]) => [a + late(), Math.max(a + 300, b + late())] as const), until: w.until };
  const split = dialect.marks.long ? Math.sqrt(dialect.marks.short * dialect.marks.long) * (w.speed ?? 1) : Infinity;
  const taps = seen
    .filter(([a, b]) => b - a < longest)
    .flatMap(([a, b]) => {
      const t = a + late();
      const kind = b - a > split ? ("l" as const) : ("s" as const);
      const one = dialect.digits.style === "long-short" ? ([t, kind] as const) : t;
      const two = dialect.digits.style === "long-short" ? ([t + 160, kind] as const) : t + 160;
      return random() < (w.double ?? 0) ? [one, two] : [one];
    });
  return { mode, taps, until: w.until };
}
