import type { Pack, System } from "../pack";
import { connectorIdOf, type Way } from "../way";
import { WAY_KINDS } from "./way-kinds";
import { retold, wayNames, type WayKind, type WayNames } from "./ways";

export const kindOf = (way: Way): WayKind | null => {
  const same = WAY_KINDS.filter((k) => k.method === way.method && k.engine === way.engine);
  return same.find((k) => k.does === way.title) ?? same.find((k) => k.ask("", NO_NAMES).kind === way.ask.kind) ?? null;
};
const NO_NAMES: WayNames = { plug: "", a: "A", b: "B", lamp: "", never: [] };

/** The two cavities that a way joins or listens to; A and B where it uses none. */
export function endsOf({ ask }: Way): [string, string] {
  if (ask.kind === "bridge") return [ask.bridge[0], ask.bridge[1]];
  if (ask.kind === "reader") return [ask.signal, ask.ground];
  return ["A", "B"];
}

export const wayAt = (pack: Pack, id: string) => pack.ways.find((w) => w.id === id)!;
/** The systems that a way reads: several lamps may blink with one wire in. */
export const systemsBy = (pack: Pack, way: string): System[] =>
  pack.systems.filter((s) => pack.variants.some((v) => v.systems.some((x) => x.way === way && x.system === s.id)));
/** The first of them, whose lamp and line its steps name. */
export const systemOf = (pack: Pack, way: string): System => systemsBy(pack, way)[0] ?? pack.systems[0];
/** All of them by their names. */
export const namesBy = (pack: Pack, way: string): string =>
  (systemsBy(pack, way).length ? systemsBy(pack, way) : [pack.systems[0]]).map((s) => s.name).join(", ");

/** The words on their lamps: any of them may be the one that is watched. */
export const lampsBy = (pack: Pack, way: string): string =>
  (systemsBy(pack, way).length ? systemsBy(pack, way) : [pack.systems[0]]).map((s) => s.lamp).join(" or ");

/** Texts of the way as its kind tells them, for the plug and the lamp as they are in this pack. */
function namesIn(pack: Pack, way: Way): WayNames {
  const connector = pack.connectors.find((c) => c.id === connectorIdOf(way)) ?? null;
  return wayNames(connector, endsOf(way), lampsBy(pack, way.id));
}

/** Ways whose texts name what has changed between two states of a pack are told anew; what somebody wrote stays. */
export function toldAnew(before: Pack, now: Pack): Pack {
  return {
    ...now,
    ways: now.ways.map((way) => {
      const kind = kindOf(way);
      const old = before.ways.find((w) => w.id === way.id);
      return kind && old ? retold(way, kind, namesIn(before, old), namesIn(now, way)) : way;
    }),
  };
}

/** A name like this one that none of them has. */
export function freeName(wanted: string, among: readonly { id: string }[]): string {
  let name = wanted;
  for (let n = 2; among.some((x) => x.id === name); n++) name = `${wanted}-${n}`;
  return name;
}
