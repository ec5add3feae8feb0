import type { Dialect } from "../../flash/dialect/dialect";
import type { ClearWay, Connector, Entry, Pack, System, VehicleTold } from "../pack";
import { assumedOf, assumingOf, told, toldOf } from "../assumed";
import { connectorIdOf, dialectIdOf, type Ask, type Tells, type Way, type WayTexts } from "../way";
import { usualClear, type ClearKind } from "./clears";
import { laidOut, withCavity } from "./plug";
import { dialectOf, talkOf, USUAL_TALK, type Talk } from "./talk";
import { endsOf, freeName, lampsBy, systemOf, toldAnew, wayAt } from "./parts";
import { shownApart } from "./systems";
import { WAY_KINDS } from "./way-kinds";
import { talkOfKind, wayNames, wayOf, type WayKind } from "./ways";

/** Ids of what a pack made here holds one of. */
export const TALK = "talk";
export const PLUG = "plug";

/** What a new make begins with. */
export interface NewPack {
  id: string;
  make: string;
  model: string;
  years: [number, number];
  engine: string;
  cylinders: number;
}

const AS_TYPED = "As typed by its owner: check it against the manual.";

/** A make of which only the name is known: all that is not told is as it mostly is, and marked as assumed. */
export function newPack({ id, make, model, years, engine, cylinders }: NewPack, revision: string): Pack {
  const kind = WAY_KINDS[0];
  const plug = blankPlug();
  const system: System = { id: "engine", name: "Engine", unit: "ECM", lamp: "Engine lamp" };
  const way = wayOf(kind, "way", wayNames(plug, ["A", "B"], system.lamp), {
    plug: PLUG,
    dialect: TALK,
    system: system.id,
  });
  return {
    format: "klinko-pack",
    version: 1,
    id,
    make,
    title: `${make} ${model}, ${years[0]} to ${years[1]}`,
    revision,
    source: AS_TYPED,
    systems: [system],
    dialects: [dialectOf(USUAL_TALK, TALK, "Counts two digits")],
    connectors: [plug],
    ways: [way],
    variants: [
      {
        id: "model",
        model,
        years,
        engines: [{ id: engine, name: engine, cylinders }],
        markets: ["home"],
        systems: [{ system: system.id, way: way.id }],
      },
    ],
    tables: [{ id: "codes", system: system.id, entries: [] }],
    clears: [],
    proving: {
      idleMinutes: 5,
      drive: "15 minutes with the engine warm, then read again.",
      driveMinutes: 15,
      readiness: "Nothing is told of readiness monitors.",
    },
    own: { assumed: ["way", "plug", "talk", "clears", "proving"] },
  };
}

function blankPlug(): Connector {
  const bare: Connector = {
    id: PLUG,
    name: "Service plug",
    size: [210, 100],
    shape: "block",
    notch: "none",
    colour: "not told",
    where: "Where the manual says.",
    place: "engine-bay",
    cavities: [
      { id: "A", at: [60, 50], role: "test", system: "engine" },
      { id: "B", at: [150, 50], role: "ground" },
    ],
  };
  return laidOut(bare, "A B");
}

/** The vehicle that a pack is for; its title follows. */
export function withVehicle(pack: Pack, id: string, { make, ...variant }: VehicleTold): Pack {
  const variants = pack.variants.map((v) => (v.id === id ? { ...v, ...variant } : v));
  const title =
    variants.length === 1 ? `${make} ${variant.model}, ${variant.years[0]} to ${variant.years[1]}` : pack.title;
  return { ...pack, make, title, variants };
}

export function withSystem(pack: Pack, system: System): Pack {
  return toldAnew(pack, { ...pack, systems: pack.systems.map((s) => (s.id === system.id ? system : s)) });
}

/** Another kind of way in: its steps and causes are those of the kind, a plug is kept where one is needed, and the lamp talks as such ones mostly do. */
export function withWayKind(pack: Pack, wayId: string, kind: WayKind): Pack {
  const old = wayAt(pack, wayId);
  const system = systemOf(pack, wayId);
  const plug = pack.connectors.find((c) => c.id === connectorIdOf(old)) ?? pack.connectors[0] ?? blankPlug();
  const names = wayNames(plug, endsThatFit(plug, endsOf(old)), lampsBy(pack, wayId));
  const talk = talkOfKind(kind);
  const had = pack.dialects.find((d) => d.id === dialectIdOf(old));
  // What another way's lamp talks like is not touched.
  const own = had && !pack.ways.some((w) => w !== old && dialectIdOf(w) === had.id) ? had : undefined;
  const keep = had && talk && !assumedOf(pack, old).includes("talk") && (had.advance === "button") === talk.talk.press;
  const dialect = keep ? had.id : (own?.id ?? freeName(TALK, pack.dialects));
  const fresh = talk && !keep ? [dialectOf(talk.talk, dialect, talk.title)] : [];
  const way = { ...wayOf(kind, wayId, names, { plug: plug.id, dialect, system: system.id }), assumed: old.assumed };
  const next: Pack = {
    ...pack,
    ways: pack.ways.map((w) => (w.id === wayId ? way : w)),
    dialects: [...pack.dialects.filter((d) => !fresh.some((f) => f.id === d.id)), ...fresh],
    connectors:
      kind.plug && !pack.connectors.some((c) => c.id === plug.id) ? [...pack.connectors, plug] : pack.connectors,
  };
  const picked = toldOf(fresh.length ? assumingOf(next, wayId, "talk") : next, wayId, "way");
  return toldAnew(picked, shownApart(picked, old));
}

/** Ends that are there and may be joined; where they are not, a test line and a ground. */
function endsThatFit(plug: Connector, [a, b]: [string, string]): [string, string] {
  const role = (id: string) => plug.cavities.find((c) => c.id === id)?.role;
  if (role(a) && role(b)) return [a, b];
  const test = plug.cavities.find((c) => c.role === "test") ?? plug.cavities[0];
  const ground = plug.cavities.find((c) => c.role === "ground") ?? plug.cavities.at(-1)!;
  return [test.id, ground.id];
}

/** What is asked, told in its own fields: how long, how often, which buttons. */
export function withAsk(pack: Pack, wayId: string, ask: Ask, tells: Tells): Pack {
  const timed = (way: Way): Way => ({
    ...way,
    ask,
    tells,
    steps: way.steps.map((s) => {
      if (s.timer?.kind === "hold" && "readSeconds" in ask)
        return { ...s, timer: { ...s.timer, seconds: ask.readSeconds } };
      if (s.timer?.kind === "hold" && ask.kind === "buttons")
        return { ...s, timer: { ...s.timer, seconds: ask.holdSeconds } };
      if (s.beat && ask.kind === "key-cycle")
        return { ...s, beat: { times: ask.times, withinSeconds: ask.withinSeconds }, title: beats(ask.times) };
      return s;
    }),
  });
  return toldAnew(pack, toldOf({ ...pack, ways: pack.ways.map((w) => (w.id === wayId ? timed(w) : w)) }, wayId, "way"));
}

const beats = (times: number): string => {
  const said = Array.from({ length: times }, () => "on").join(", off, ");
  return said[0].toUpperCase() + said.slice(1);
};

export function withWayTexts(pack: Pack, wayId: string, texts: WayTexts): Pack {
  return toldOf({ ...pack, ways: pack.ways.map((w) => (w.id === wayId ? { ...w, ...texts } : w)) }, wayId, "way");
}

/** Somebody has said which two cavities a way joins, or where its reader goes: a test line and a ground. */
export interface Join {
  way: string;
  ends: readonly [string, string];
}

/**
 * The plug as it is told. Ways keep the two cavities that they join, and each is joined for itself; where the plug has them no more, the
 * first two stand in, and the plug is assumed again until somebody says which.
 */
export function withPlug(pack: Pack, plug: Connector, join: Join | null = null): Pack {
  let shell = plug;
  const lost: string[] = [];
  const ways = pack.ways.map((way): Way => {
    if (connectorIdOf(way) !== plug.id || (way.ask.kind !== "bridge" && way.ask.kind !== "reader")) return way;
    const system = systemOf(pack, way.id).id;
    let ends = endsOf(way);
    if (join?.way === way.id) {
      shell = joinedAt(shell, join.ends, standIns(pack, way), system);
      ends = [...join.ends];
    } else if (!ends.every((id) => shell.cavities.some((c) => c.id === id))) {
      ends = [shell.cavities[0].id, shell.cavities[1].id];
      shell = joinedAt(shell, ends, [], system);
      lost.push(way.id);
    }
    const [a, b] = ends;
    const ask: Ask = way.ask.kind === "bridge" ? { ...way.ask, bridge: [a, b] } : { ...way.ask, signal: a, ground: b };
    return { ...way, ask };
  });
  const next = { ...pack, connectors: pack.connectors.map((c) => (c.id === plug.id ? shell : c)), ways };
  const anew = toldAnew(pack, next);
  const known = join ? toldOf(anew, join.way, "plug") : anew;
  return lost.reduce((p, id) => assumingOf(p, id, "plug"), known);
}

/** The two cavities that only stand in for those of a way until somebody says which, where no other way is known to join them. */
function standIns(pack: Pack, way: Way): string[] {
  if (!assumedOf(pack, way).includes("plug")) return [];
  const others = pack.ways.filter(
    (w) => w.id !== way.id && connectorIdOf(w) === connectorIdOf(way) && !assumedOf(pack, w).includes("plug"),
  );
  return endsOf(way).filter((id) => !others.some((w) => endsOf(w).includes(id)));
}

/** Says which cavity is the test line and which is ground. @param before what only stood in for them: it carries nobody knows what */
function joinedAt(
  plug: Connector,
  [test, ground]: readonly [string, string],
  before: readonly string[],
  system: string,
): Connector {
  const blank = before.reduce((c, id) => withCavity(c, id, { role: "unknown" }), plug);
  return withCavity(withCavity(blank, test, { role: "test", system }), ground, { role: "ground" });
}

/** How the lamp talks, as it was told or learned. */
export function withDialect(pack: Pack, dialect: Dialect): Pack {
  const next = { ...pack, dialects: pack.dialects.map((d) => (d.id === dialect.id ? dialect : d)) };
  return pack.ways.filter((w) => dialectIdOf(w) === dialect.id).reduce((p, way) => toldOf(p, way.id, "talk"), next);
}

export const talkIn = (pack: Pack, dialect: string): Talk | null => {
  const found = pack.dialects.find((d) => d.id === dialect);
  return found ? talkOf(found) : null;
};

/** The codes of a table, in the order of their numbers. */
export function withEntries(pack: Pack, table: string, entries: readonly Entry[]): Pack {
  const sorted = [...entries].sort((a, b) => Number(a.code) - Number(b.code));
  return { ...pack, tables: pack.tables.map((t) => (t.id === table ? { ...t, entries: sorted } : t)) };
}

export const withClears = (pack: Pack, clears: readonly ClearWay[]): Pack =>
  told({ ...pack, clears: [...clears] }, "clears");

export function withNewClear(pack: Pack, kind: ClearKind, system: string): Pack {
  const clear = usualClear(kind, system, freeName(kind, pack.clears));
  const all = pack.systems.map((s) => s.id);
  return withClears(pack, [...pack.clears, kind === "battery" && all.length > 1 ? { ...clear, wipes: all } : clear]);
}
