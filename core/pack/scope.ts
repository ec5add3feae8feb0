import type { Connector, Entry, Output, Pack, Scope, System, Trap, Variant } from "./pack";
import { connectorIdOf, dialectIdOf, tellsByDashLamp, type Way } from "./way";
import type { Dialect } from "../flash/dialect/dialect";

/** What is known of one vehicle for looking things up. */
export interface VehicleFacts {
  variant: string;
  year: number;
  engine: string;
  market: string;
}

/** Does a scope hold for this vehicle? */
export function holds(scope: Scope | undefined, v: VehicleFacts): boolean {
  if (!scope) return true;
  if (scope.years && (v.year < scope.years[0] || v.year > scope.years[1])) return false;
  if (scope.engines && !scope.engines.includes(v.engine)) return false;
  return !scope.markets || scope.markets.includes(v.market);
}

/** How narrow a scope is: the narrowest that holds wins. */
export function narrowness(scope: Scope | undefined): number {
  if (!scope) return 0;
  const years = scope.years ? 1 + 1 / (1 + scope.years[1] - scope.years[0]) : 0;
  return years + (scope.engines ? 4 : 0) + (scope.markets ? 1 : 0);
}

export function variantOf(pack: Pack, v: VehicleFacts): Variant | undefined {
  return pack.variants.find((x) => x.id === v.variant);
}

/** Is the vehicle inside the pack's years and engines? A sentence when it is not. */
export function outside(pack: Pack, v: VehicleFacts): string | null {
  const variant = variantOf(pack, v);
  if (!variant) return `${pack.make} has no model "${v.variant}" in this pack.`;
  if (v.year < variant.years[0] || v.year > variant.years[1])
    return `${variant.model} ${v.year} is outside this pack: it covers ${variant.years[0]} to ${variant.years[1]}.`;
  if (!variant.engines.some((e) => e.id === v.engine))
    return `This pack knows no engine "${v.engine}" in the ${variant.model}.`;
  return trapsFor(variant, v).find((t) => t.outside)?.text ?? null;
}

/** Traps that lie in wait at this vehicle. */
export function trapsFor(variant: Variant, v: VehicleFacts): Trap[] {
  return (variant.traps ?? []).filter((t) => holds(t.scope, v));
}

export interface SystemAccess {
  system: string;
  name: string;
  lamp: string;
  unit: string;
  about: System;
  /** System whose table, memory and clears these are: another one where one unit is asked in two ways. */
  memory: string;
  way: Way;
  /** How the lamp talks; null where no lamp does. */
  dialect: Dialect | null;
  connector: Connector | null;
}

/** Where no lamp in the dash tells that a unit lives and no pack names what it drives, this is looked for. */
const ANYTHING: Output = {
  id: "anything",
  name: "Anything that the unit drives",
  expect: "a relay clicks, a pump hums, another lamp lights",
};

/** Systems of the vehicle that can be read, each with its way in. */
export function systemsOf(pack: Pack, v: VehicleFacts): SystemAccess[] {
  const variant = variantOf(pack, v);
  if (!variant) return [];
  return variant.systems
    .filter((s) => holds(s.scope, v))
    .flatMap((s) => {
      const told = pack.systems.find((x) => x.id === s.system);
      const way = pack.ways.find((w) => w.id === s.way);
      if (!told || !way) return [];
      const about = tellsByDashLamp(way) || told.drives?.length ? told : { ...told, drives: [ANYTHING] };
      const dialect = pack.dialects.find((d) => d.id === dialectIdOf(way)) ?? null;
      const connector = pack.connectors.find((c) => c.id === connectorIdOf(way)) ?? null;
      const memory = tableOwner(pack, about.id);
      return [
        {
          system: about.id,
          memory,
          name: about.name,
          lamp: s.lamp ?? about.lamp,
          unit: about.unit,
          about,
          way,
          dialect,
          connector,
        },
      ];
    });
}

/** The first system of each unit: what is true of a unit is looked at once. */
export const unitsOf = (systems: readonly SystemAccess[]): SystemAccess[] =>
  systems.filter((s, i) => systems.findIndex((x) => x.unit === s.unit) === i);

/** The system whose tables and clears hold for this one: a unit that is asked in two ways has one memory. */
export function tableOwner(pack: Pack, system: string): string {
  return pack.systems.find((s) => s.id === system)?.sameTableAs ?? system;
}

/** The entries that hold for this vehicle and system: of each code the one with the narrowest scope. */
export function entriesFor(pack: Pack, v: VehicleFacts, system: string): Entry[] {
  const owner = tableOwner(pack, system);
  const best = new Map<string, { entry: Entry; rank: number }>();
  for (const table of pack.tables) {
    if (table.system !== owner || !holds(table.scope, v)) continue;
    for (const entry of table.entries) {
      if (!holds(entry.scope, v)) continue;
      const rank = narrowness(entry.scope) + narrowness(table.scope) / 10;
      const old = best.get(entry.code);
      if (!old || rank > old.rank) best.set(entry.code, { entry, rank });
    }
  }
  return [...best.values()].map((b) => b.entry).sort((a, b) => Number(a.code) - Number(b.code));
}

/** The same number's meanings on other years, engines or markets of the make. */
export function otherMeanings(pack: Pack, v: VehicleFacts, system: string, code: string): Entry[] {
  const here = entriesFor(pack, v, system).find((e) => e.code === code);
  const owner = tableOwner(pack, system);
  return pack.tables
    .filter((t) => t.system === owner)
    .flatMap((t) =>
      t.entries.filter((e) => e.code === code && e !== here).map((e) => ({ ...e, scope: e.scope ?? t.scope })),
    );
}

/** A scope in words: "1988 to 1991, engine 2.3". */
export function scopeText(scope: Scope | undefined): string {
  if (!scope) return "all years and engines";
  const parts = [
    scope.years && (scope.years[0] === scope.years[1] ? `${scope.years[0]}` : `${scope.years[0]} to ${scope.years[1]}`),
    scope.engines && `engine ${scope.engines.join(", ")}`,
    scope.markets && `market ${scope.markets.join(", ")}`,
  ];
  return parts.filter(Boolean).join(", ") || "all years and engines";
}
