import type { Pack, System } from "../pack";
import type { Way } from "../way";
import { WAY_KINDS } from "./way-kinds";
import type { WayKind, WayNames } from "./ways";

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

/** A name like this one that none of them has. */
export function freeName(wanted: string, among: readonly { id: string }[]): string {
  let name = wanted;
  for (let n = 2; among.some((x) => x.id === name); n++) name = `${wanted}-${n}`;
  return name;
}
