import type { Cavity, Pack, System } from "../pack";
import { cavitiesUsed, connectorIdOf, dialectIdOf, type Tells, type Way } from "../way";
import { endsOf, freeName, kindOf, systemsBy, toldAnew, wayAt } from "./parts";
import { WAY_KINDS } from "./way-kinds";
import { wayNames, wayOf } from "./ways";

/** What is mostly read besides the engine. */
export const USUAL_SYSTEMS: readonly System[] = [
  { id: "brake", name: "Brakes", unit: "ABS", lamp: "ABS lamp" },
  { id: "gearbox", name: "Gearbox", unit: "TCM", lamp: "Gearbox lamp" },
  {
    id: "airbag",
    name: "Airbag (SRS)",
    unit: "SRS",
    lamp: "Airbag lamp",
    caution: "Never bridge, probe or measure its circuits. Repair is for licensed people.",
  },
  { id: "system", name: "Other system", unit: "Control unit", lamp: "Its lamp" },
];

/** A way whose display tells of several systems, each with a letter of its own. */
export type Lettered = Extract<Tells, { kind: "text" | "modules" }>;
export const isLettered = (tells: Tells): tells is Lettered => tells.kind === "text" || tells.kind === "modules";

/** The letter of each system that a display tells of; empty where it has none. */
export const lettersOf = (tells: Lettered): { system: string; letter: string }[] =>
  tells.kind === "text"
    ? tells.systems.map(({ system, prefix }) => ({ system, letter: prefix }))
    : tells.modules.map(({ system, letter }) => ({ system, letter }));

/**
 * Another system that is read, with a table of its own. Where a display tells of several it is one more letter there; otherwise it has a
 * way in of its own, as the first one is asked, of which nothing is said yet.
 */
export function withNewSystem(pack: Pack, usual: System): Pack {
  const id = freeName(usual.id, pack.systems);
  const named = pack.systems.filter((s) => s.name.replace(/ \d+$/, "") === usual.name).length;
  const system = { ...usual, id, name: named ? `${usual.name} ${named + 1}` : usual.name };
  const [first] = pack.ways;
  const known = {
    ...pack,
    systems: [...pack.systems, system],
    tables: [...pack.tables, { id: freeName(`codes-${id}`, pack.tables), system: id, entries: [] }],
  };
  if (isLettered(first.tells)) {
    const shared = { ...first, tells: lettered(first.tells, system) };
    return readBy({ ...known, ways: pack.ways.map((w) => (w.id === first.id ? shared : w)) }, id, first.id);
  }
  return asked(known, system, first);
}

const readBy = (pack: Pack, system: string, way: string): Pack => ({
  ...pack,
  variants: pack.variants.map((v) => ({
    ...v,
    systems: [...v.systems.filter((s) => s.system !== system), { system, way }],
  })),
});

/** A system gets a way of another one's kind, at the same plug: which cavities, and how its lamp talks, is still to be said. */
function asked(pack: Pack, system: System, like: Way): Pack {
  const kind = kindOf(like) ?? WAY_KINDS[0];
  const plug = pack.connectors.find((c) => c.id === connectorIdOf(like)) ?? null;
  const talk = pack.dialects.find((d) => d.id === dialectIdOf(like));
  const own = talk && { ...talk, id: freeName(talk.id, pack.dialects) };
  const parts = { plug: plug?.id ?? "", dialect: own?.id ?? "", system: system.id };
  const way: Way = {
    ...wayOf(kind, freeName("way", pack.ways), wayNames(plug, endsOf(like), system.lamp), parts),
    assumed: ["way", "plug", "talk"],
  };
  return readBy(
    { ...pack, ways: [...pack.ways, way], dialects: own ? [...pack.dialects, own] : pack.dialects },
    system.id,
    way.id,
  );
}

/**
 * All systems that were read by a way are still read where it has changed its kind: with a letter in its display, or, where that is no
 * more, each in a way of its own. Lamps that blink with the same wire in still do.
 */
export function shownApart(pack: Pack, was: Way): Pack {
  const way = wayAt(pack, was.id);
  const further = systemsBy(pack, was.id).slice(1);
  if (isLettered(way.tells)) {
    const tells = further.reduce<Lettered>((t, system) => lettered(t, system), way.tells);
    return { ...pack, ways: pack.ways.map((w) => (w.id === was.id ? { ...w, tells } : w)) };
  }
  return isLettered(was.tells) ? further.reduce((now, system) => asked(now, system, way), pack) : pack;
}

/** A system is read with the wire of another one: both lamps blink at once. Its own way in, and how it was told to talk, are gone. */
export function withSameWire(pack: Pack, system: string, wayId: string): Pack {
  const now = readBy(pack, system, wayId);
  const ways = now.ways.filter((w) => systemsBy(now, w.id).length > 0 || systemsBy(pack, w.id).length === 0);
  const heard = new Set(ways.map(dialectIdOf));
  const left = new Set(pack.ways.filter((w) => !ways.includes(w)).map(dialectIdOf));
  return toldAnew(pack, { ...now, ways, dialects: pack.dialects.filter((d) => !left.has(d.id) || heard.has(d.id)) });
}

/** A system more that a display tells of, under the first letter of its name that is free. */
function lettered(tells: Lettered, { id, name }: System): Lettered {
  const taken = lettersOf(tells).map((l) => l.letter);
  const letter = [...name.toUpperCase().replace(/[^A-Z]/g, ""), ..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"].find(
    (l) => !taken.includes(l),
  )!;
  if (tells.kind === "modules") return { ...tells, modules: [...tells.modules, { system: id, letter, name }] };
  return { ...tells, systems: [...tells.systems, { system: id, prefix: letter, digits: tells.systems[0].digits }] };
}

/** The letter under which a display tells of a system. @param letter a capital, or for a number in an instrument none */
export function withLetter(tells: Lettered, system: string, letter: string): Lettered {
  if (tells.kind === "text")
    return { ...tells, systems: tells.systems.map((s) => (s.system === system ? { ...s, prefix: letter } : s)) };
  return { ...tells, modules: tells.modules.map((m) => (m.system === system ? { ...m, letter } : m)) };
}

/** Without a system: its table, its way in and how that one's lamp talks go with it where nothing else uses them. The last one stays. */
export function withoutSystem(pack: Pack, id: string): Pack {
  const systems = pack.systems.filter((s) => s.id !== id);
  if (!systems.length) return pack;
  const variants = pack.variants.map((v) => ({ ...v, systems: v.systems.filter((s) => s.system !== id) }));
  const ways = pack.ways
    .filter((w) => systemsBy(pack, w.id).some((s) => s.id !== id) || systemsBy(pack, w.id).length === 0)
    .map((w) => (isLettered(w.tells) ? { ...w, tells: unlettered(w.tells, id) } : w));
  /** Another system at whose way the same cavity is used. */
  const heir = (plug: string, cavity: string): string | undefined => {
    const way = ways.find((w) => connectorIdOf(w) === plug && cavitiesUsed(w).includes(cavity));
    return way && systemsBy(pack, way.id).find((s) => s.id !== id)?.id;
  };
  const heard = new Set(ways.map(dialectIdOf));
  const left = new Set(pack.ways.filter((w) => !ways.some((o) => o.id === w.id)).map(dialectIdOf));
  return toldAnew(pack, {
    ...pack,
    systems: systems.map(({ sameTableAs, ...s }) => (sameTableAs && sameTableAs !== id ? { ...s, sameTableAs } : s)),
    variants,
    ways,
    dialects: pack.dialects.filter((d) => !left.has(d.id) || heard.has(d.id)),
    connectors: pack.connectors.map((c) => ({ ...c, cavities: c.cavities.map((x) => freed(x, id, heir(c.id, x.id))) })),
    tables: pack.tables.filter((t) => t.system !== id),
    circuits: pack.circuits?.filter((c) => c.system !== id),
    clears: pack.clears.flatMap((c) => {
      const wipes = c.wipes?.filter((s) => s !== id);
      const system = c.system === id ? wipes?.[0] : c.system;
      if (!system) return [];
      const { wipes: _, ...rest } = c;
      return [{ ...rest, system, ...(wipes && { wipes }) }];
    }),
  });
}

/** A line of a unit that is no more: that of another one that is asked there, or nobody knows whose. */
function freed({ system: was, ...cavity }: Cavity, gone: string, heir: string | undefined): Cavity {
  if (was !== gone) return was ? { ...cavity, system: was } : cavity;
  if (heir) return { ...cavity, system: heir };
  return cavity.role === "test" || cavity.role === "signal" ? { ...cavity, role: "unknown" } : cavity;
}

function unlettered(tells: Lettered, id: string): Lettered {
  if (tells.kind === "text") return { ...tells, systems: tells.systems.filter((s) => s.system !== id) };
  return { ...tells, modules: tells.modules.filter((m) => m.system !== id) };
}
