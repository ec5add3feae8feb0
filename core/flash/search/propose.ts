import { memoriesOf, type Dialect, type Faults, type Memory } from "../dialect/dialect";
import { nearBy } from "../dialect/near-by";
import { ordered } from "../dialect/show";

/** A hypothesis: what is stored, and of which engine. */
export interface Hypothesis {
  faults: Faults;
  cylinders: number | null;
}

export function keyOf(h: Hypothesis): string {
  return `${Object.entries(h.faults)
    .map(([m, list]) => `${m}:${list.join(" ")}`)
    .join("|")}/${h.cylinders ?? ""}`;
}

/** Only so many codes of the pool, the most often read ones, stand in for any other code or are put in anywhere. */
const COMMON = 10;

/** Could one have been misread for the other: as long, and most digits the same, or next to it? */
function akin(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  let differ = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) differ++;
  return differ <= 1;
}

/** Hypotheses one change away, the likeliest kinds of change first. `pool` holds the codes read, most often read first. */
export function neighbours(
  dialect: Dialect,
  h: Hypothesis,
  pool: readonly string[],
  cylinders: readonly number[],
): Hypothesis[] {
  const out: Hypothesis[] = [];
  const put = (memory: Memory, list: string[]) => {
    if (new Set(list).size === list.length)
      out.push({ ...h, faults: { ...h.faults, [memory]: ordered(dialect, list) } });
  };
  for (const memory of memoriesOf(dialect)) {
    const list = [...(h.faults[memory] ?? [])];
    for (let i = 0; i < list.length; i++) put(memory, list.toSpliced(i, 1));
    // Where a press shows a code, it may have been read as the one beside it each time, so that no reading holds it.
    const beside =
      dialect.advance === "button" ? [...pool.slice(0, COMMON), ...list].flatMap((c) => nearBy(dialect, c)) : [];
    for (const c of new Set([...pool.slice(0, COMMON), ...beside])) {
      if (list.includes(c)) continue;
      if (dialect.order === "ascending") put(memory, [...list, c]);
      else for (let i = 0; i <= list.length; i++) put(memory, list.toSpliced(i, 0, c));
    }
    for (let i = 0; i < list.length; i++) {
      const others = pool.filter((c, k) => k < COMMON || akin(c, list[i]));
      for (const c of new Set([...nearBy(dialect, list[i]), ...others]))
        if (!list.includes(c)) put(memory, list.with(i, c));
      if (dialect.order === "stored" && i > 0) {
        const swapped = [...list];
        [swapped[i - 1], swapped[i]] = [swapped[i], swapped[i - 1]];
        put(memory, swapped);
      }
    }
    if (dialect.order === "ascending")
      for (const c of pool.slice(COMMON)) if (!list.includes(c)) put(memory, [...list, c]);
  }
  for (const n of cylinders) if (n !== h.cylinders) out.push({ ...h, cylinders: n });
  const unique = new Map(out.map((x) => [keyOf(x), x]));
  return [...unique.values()];
}
