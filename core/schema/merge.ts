type Plain = Record<string, unknown>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const isPlain = (v: unknown): v is Plain => typeof v === "object" && v !== null && !Array.isArray(v);

/** By what an item of a list is known again: its id, a code or a system with where it holds; null where it has none of them. */
function nameOf(item: unknown): string | null {
  if (!isPlain(item)) return null;
  if (typeof item.id === "string") return item.id;
  if (typeof item.code === "string") return JSON.stringify([item.code, item.scope ?? null]);
  // What is told of a system, or of one of its circuits.
  return typeof item.system === "string"
    ? JSON.stringify([item.system, item.circuit ?? null, item.scope ?? null])
    : null;
}

/** The names of all items, or null where one has none or two share one. */
function namesOf(list: readonly unknown[]): string[] | null {
  const names = list.map(nameOf);
  return names.every((n) => n !== null) && new Set(names).size === names.length ? names : null;
}

/**
 * What somebody changed of `base` on the way to `mine`, done to what is stored by now; all else stays as it is stored. Items of a list are
 * known by their names, where they have any. Where both changed the same, mine counts. The values are plain data (JSON).
 */
export function merged<T>(base: T, mine: T, stored: T): T {
  if (same(base, mine)) return stored;
  if (same(base, stored)) return mine;
  if (isPlain(base) && isPlain(mine) && isPlain(stored)) return mergedFields(base, mine, stored) as T;
  if (Array.isArray(base) && Array.isArray(mine) && Array.isArray(stored)) return mergedLists(base, mine, stored) as T;
  return mine;
}

function mergedFields(base: Plain, mine: Plain, stored: Plain): Plain {
  const out: Plain = {};
  for (const key of new Set([...Object.keys(stored), ...Object.keys(mine)])) {
    const value = merged(base[key], mine[key], stored[key]);
    if (value !== undefined) out[key] = value;
  }
  return out;
}

function mergedLists(
  base: readonly unknown[],
  mine: readonly unknown[],
  stored: readonly unknown[],
): readonly unknown[] {
  const [was, wanted, there] = [base, mine, stored].map(namesOf);
  if (!was || !wanted || !there)
    return base.length === mine.length && mine.length === stored.length
      ? mine.map((item, i) => merged(base[i], item, stored[i]))
      : mine;
  const of = (list: readonly unknown[], names: readonly string[], name: string) => list[names.indexOf(name)];
  const kept = wanted.flatMap((name) => {
    // What others took out meanwhile is out, unless it was changed here.
    const value = merged(of(base, was, name), of(mine, wanted, name), of(stored, there, name));
    return value === undefined ? [] : [value];
  });
  const added = there
    .filter((name) => !was.includes(name) && !wanted.includes(name))
    .map((name) => of(stored, there, name));
  return [...kept, ...added];
}
