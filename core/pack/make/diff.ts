import type { Entry, Pack } from "../pack";

/** One thing in which two states of a pack differ, in words. */
export interface Difference {
  part: "vehicle" | "way" | "plug" | "talk" | "codes" | "clears" | "proving";
  says: string;
}

/** What is different in a newer state of a pack, in words; nothing where they say the same. */
export function differences(before: Pack, now: Pack): Difference[] {
  const out: Difference[] = [];
  const say = (part: Difference["part"], says: string) => out.push({ part, says });
  const plain = (part: Difference["part"], what: string, a: unknown, b: unknown) => {
    if (JSON.stringify(a) !== JSON.stringify(b)) say(part, `${what} changed`);
  };
  if (before.make !== now.make) say("vehicle", `make: ${before.make} is ${now.make} now`);
  byId(
    before.variants,
    now.variants,
    "model",
    (v) => v.model,
    (d) => say("vehicle", d),
  );
  byId(
    before.systems,
    now.systems,
    "system",
    (s) => s.name,
    (d) => say("vehicle", d),
  );
  byId(
    before.ways,
    now.ways,
    "way in",
    (w) => w.title,
    (d) => say("way", d),
  );
  byId(
    before.connectors,
    now.connectors,
    "plug",
    (c) => c.name,
    (d) => say("plug", d),
  );
  byId(
    before.dialects,
    now.dialects,
    "how the lamp talks",
    (d) => d.title,
    (d) => say("talk", d),
  );
  for (const says of codeDifferences(before, now)) say("codes", says);
  byId(
    before.clears,
    now.clears,
    "clear",
    (c) => c.title,
    (d) => say("clears", d),
  );
  plain("proving", "how it is proven", before.proving, now.proving);
  return out;
}

function byId<T extends { id: string }>(
  before: readonly T[],
  now: readonly T[],
  what: string,
  name: (x: T) => string,
  say: (says: string) => void,
): void {
  for (const x of now) {
    const old = before.find((o) => o.id === x.id);
    if (!old) say(`${what} "${name(x)}" is new`);
    else if (JSON.stringify(old) !== JSON.stringify(x)) say(`${what} "${name(x)}" changed`);
  }
  for (const x of before) if (!now.some((n) => n.id === x.id)) say(`${what} "${name(x)}" is gone`);
}

const FIELDS: readonly [keyof Entry, string][] = [
  ["kind", "fault or status"],
  ["circuit", "circuit"],
  ["title", "title"],
  ["sets", "set when"],
  ["affects", "affects"],
  ["drive", "whether it can be driven"],
  ["lookFirst", "look first"],
  ["expectedIf", "expected because of a change"],
  ["details", "details"],
  ["caution", "caution"],
  ["first", "first of all"],
];

function codeDifferences(before: Pack, now: Pack): string[] {
  const all = (pack: Pack) =>
    new Map(
      pack.tables.flatMap((t) =>
        t.entries.map((e) => [JSON.stringify([t.system, e.code, e.scope ?? t.scope ?? null]), e] as const),
      ),
    );
  const [old, fresh] = [all(before), all(now)];
  const out: string[] = [];
  for (const [key, e] of fresh) {
    const was = old.get(key);
    if (!was) out.push(`code ${e.code} is new: ${e.title}`);
    else {
      const changed = FIELDS.filter(([f]) => JSON.stringify(was[f]) !== JSON.stringify(e[f])).map(
        ([, says]) => `"${says}"`,
      );
      if (changed.length) out.push(`code ${e.code}: ${changed.join(" and ")} changed`);
    }
  }
  for (const [key, e] of old) if (!fresh.has(key)) out.push(`code ${e.code} is gone: ${e.title}`);
  return out;
}
