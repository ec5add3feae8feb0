import type { Entry } from "./pack";

/** Volts that set a code, as its text says: outside, below or above. */
function setsAt(sets: string): ((v: number) => boolean) | null {
  const outside = /outside (\d+(?:\.\d+)?) to (\d+(?:\.\d+)?) V/i.exec(sets);
  if (outside) return (v) => v < Number(outside[1]) || v > Number(outside[2]);
  const below = /below (\d+(?:\.\d+)?) V/i.exec(sets);
  const above = /above (\d+(?:\.\d+)?) V/i.exec(sets);
  if (!below && !above) return null;
  return (v) => (below !== null && v < Number(below[1])) || (above !== null && v > Number(above[1]));
}

/** Volts that are given as good: "about 0.6 V", "near 4.6 V", "13.8 to 14.6 V". */
function goodVolts(look: string): number[] {
  const found: number[] = [];
  for (const m of look.matchAll(/(?:about|near) (\d+(?:\.\d+)?) V\b/gi)) found.push(Number(m[1]));
  for (const m of look.matchAll(/(\d+(?:\.\d+)?) to (\d+(?:\.\d+)?) V\b/gi)) found.push(Number(m[1]), Number(m[2]));
  return found;
}

/** Good values of an entry that would set its own code: the one or the other is written wrongly. */
export function contradictoryLimits({ sets, lookFirst }: Pick<Entry, "sets" | "lookFirst">): number[] {
  const bad = setsAt(sets ?? "");
  return bad ? lookFirst.flatMap(goodVolts).filter(bad) : [];
}
