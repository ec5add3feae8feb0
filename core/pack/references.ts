import type { Entry, Pack, Scope, Table } from "./pack";
import { contradictoryLimits } from "./limits";
import { narrowness } from "./scope";
import { cavitiesUsed, connectorIdOf, dialectIdOf, systemsTold, type Cause, type Way } from "./way";

/** One thing wrong in a file: where, and what to do. */
export interface PackFault {
  path: string;
  message: string;
}

/** What a schema cannot see: references that lead nowhere or round, wires where none may be, scopes that answer for one vehicle at once. */
export function brokenReferences(pack: Pack): PackFault[] {
  const faults: PackFault[] = [];
  const need = (known: { id: string }[], wanted: string, path: string, what: string) => {
    if (!known.some((k) => k.id === wanted))
      faults.push({
        path,
        message: `names ${what} "${wanted}", which is not in this pack (it has ${known.map((k) => k.id).join(", ") || "none"})`,
      });
  };
  for (const [i, way] of pack.ways.entries()) {
    const dialect = dialectIdOf(way);
    if (dialect !== null) need(pack.dialects, dialect, `ways[${i}].tells.dialect`, "the dialect");
    const shown = pack.dialects.find((d) => d.id === dialect);
    if (
      way.tells.kind === "lamp" &&
      way.tells.act &&
      shown &&
      !shown.phases.some((p) => p.kind === "group" && p.means === "act")
    )
      faults.push({
        path: `ways[${i}].tells.act`,
        message: `asks for something to be done, but the dialect "${dialect}" never asks: give it a group that means "act"`,
      });
    const connector = connectorIdOf(way);
    if (connector !== null) need(pack.connectors, connector, `ways[${i}].ask.connector`, "the connector");
    faults.push(
      ...badCavities(pack, way, `ways[${i}].ask`),
      ...badCauses(way.nothingHappens, `ways[${i}].nothingHappens`),
    );
    for (const system of systemsTold(way, pack.systems[0]?.id ?? ""))
      if (way.tells.kind !== "lamp") need(pack.systems, system, `ways[${i}].tells`, "the system");
  }
  for (const [i, s] of pack.systems.entries())
    if (s.sameTableAs) need(pack.systems, s.sameTableAs, `systems[${i}].sameTableAs`, "the system");
  for (const [i, v] of pack.variants.entries())
    for (const [k, s] of v.systems.entries()) {
      need(pack.systems, s.system, `variants[${i}].systems[${k}].system`, "the system");
      need(pack.ways, s.way, `variants[${i}].systems[${k}].way`, "the way");
    }
  for (const [i, c] of pack.connectors.entries())
    if ((c.shape === "own") !== (c.outline !== undefined))
      faults.push({
        path: `connectors[${i}].${c.outline ? "shape" : "outline"}`,
        message: c.outline
          ? 'must be "own", since the outline is drawn'
          : "is missing: a shape of its own needs the path of its outline",
      });
  for (const [i, c] of pack.connectors.entries())
    for (const [k, cavity] of c.cavities.entries())
      if (cavity.system) need(pack.systems, cavity.system, `connectors[${i}].cavities[${k}].system`, "the system");
  faults.push(...badClears(pack));
  for (const [i, t] of pack.tables.entries()) need(pack.systems, t.system, `tables[${i}].system`, "the system");
  for (const [i, t] of pack.tables.entries())
    for (const [k, e] of t.entries.entries())
      for (const volts of contradictoryLimits(e))
        faults.push({
          path: `tables[${i}].entries[${k}].lookFirst`,
          message: `gives ${volts} V as good, and "sets" says that this sets code ${e.code}: mend the one or the other`,
        });
  return [...faults, ...badCircuits(pack), ...overlaps(pack.tables)];
}

/** What a clear wipes is there; what is counted says how often; monitors need the fewer drives first. */
function badClears(pack: Pack): PackFault[] {
  const faults: PackFault[] = [];
  const known = pack.systems.map((s) => s.id);
  for (const [i, c] of pack.clears.entries()) {
    if (!known.includes(c.system)) faults.push({ path: `clears[${i}].system`, message: noSystem(c.system, known) });
    for (const [k, s] of (c.wipes ?? []).entries())
      if (!known.includes(s)) faults.push({ path: `clears[${i}].wipes[${k}]`, message: noSystem(s, known) });
    if (c.wipes && !c.wipes.includes(c.system))
      faults.push({
        path: `clears[${i}].wipes`,
        message: `leaves out "${c.system}", for which it is planned: name it too, or plan it for another`,
      });
    const counted = [c.starts, c.ride].filter((x) => x !== undefined).length;
    if (counted !== Number(c.does === "count"))
      faults.push({
        path: `clears[${i}].does`,
        message:
          c.does === "count"
            ? 'is "count", so it needs either "starts" or "ride", and not both'
            : `is "${c.does}", and "starts" and "ride" are only for what is counted: take them out, or make it "count"`,
      });
  }
  for (const [i, m] of (pack.proving.monitors ?? []).entries())
    if (m.drives[0] > m.drives[1])
      faults.push({
        path: `proving.monitors[${i}].drives`,
        message: `gives ${m.drives[0]} to ${m.drives[1]}: the fewer come first`,
      });
  return faults;
}

const noSystem = (wanted: string, known: readonly string[]): string =>
  `names the system "${wanted}", which is not in this pack (it has ${known.join(", ") || "none"})`;

function badCavities(pack: Pack, way: Way, path: string): PackFault[] {
  const connector = pack.connectors.find((c) => c.id === connectorIdOf(way));
  if (!connector) return [];
  return cavitiesUsed(way).flatMap((name, k) => {
    const at = way.ask.kind === "bridge" ? `${path}.bridge[${k}]` : path;
    const cavity = connector.cavities.find((c) => c.id === name);
    if (!cavity) return [{ path: at, message: `names cavity ${name}, which ${connector.name} does not have` }];
    // A reader or a lead looks at a line; a wire that joins two never touches these.
    const never = way.ask.kind === "bridge" ? ["power", "airbag", "unknown"] : ["airbag"];
    if (cavity.role === "unknown" && never.includes("unknown"))
      return [{ path: at, message: `bridges cavity ${name}, of which nobody has said what it carries: tell it first` }];
    if (never.includes(cavity.role))
      return [{ path: at, message: `bridges cavity ${name}, which carries ${cavity.role}: never bridge that` }];
    return [];
  });
}

/** Circuits that no code of their system names: of no use, and mostly written otherwise than the codes write them. */
export function unnamedCircuits(pack: Pack): PackFault[] {
  return (pack.circuits ?? []).flatMap((c, i) => {
    const named = pack.tables.some((t) => t.system === c.system && t.entries.some((e) => e.circuit === c.circuit));
    const message = `is "${c.circuit}", which no code of "${c.system}" names: it stays, and does nothing`;
    return named ? [] : [{ path: `circuits[${i}].circuit`, message }];
  });
}

/** A circuit stands there once; what is measured has one figure, or a curve that rises in temperature. */
function badCircuits(pack: Pack): PackFault[] {
  const faults: PackFault[] = [];
  for (const [i, c] of (pack.circuits ?? []).entries()) {
    const path = `circuits[${i}]`;
    if (pack.circuits!.findIndex((x) => x.system === c.system && x.circuit === c.circuit) < i)
      faults.push({
        path: `${path}.circuit`,
        message: `is "${c.circuit}" of "${c.system}" for the second time: take one out`,
      });
    for (const [k, l] of (c.limits ?? []).entries()) {
      const at = `${path}.limits[${k}]`;
      if ((l.good === undefined) === (l.curve === undefined))
        faults.push({ path: at, message: 'needs either "good" or "curve", and not both' });
      for (const [low, high] of [l.good, ...(l.curve ?? []).map((x) => x.good)].filter((x) => x !== undefined))
        if (low > high)
          faults.push({ path: at, message: `gives ${low} to ${high} as good: the lower one comes first` });
      if (l.curve?.some((x, n) => n > 0 && x.celsius <= l.curve![n - 1].celsius))
        faults.push({ path: `${at}.curve`, message: "has to rise in temperature" });
    }
  }
  return faults;
}

/** Causes that make one another unlikely have to be there, and must not go round in a ring. */
function badCauses(causes: readonly Cause[], path: string): PackFault[] {
  const faults: PackFault[] = [];
  const after = new Map(causes.map((c) => [c.id, c.unlikelyAfter ?? []]));
  for (const [i, c] of causes.entries()) {
    for (const other of c.unlikelyAfter ?? [])
      if (!after.has(other))
        faults.push({
          path: `${path}[${i}].unlikelyAfter`,
          message: `names the cause "${other}", which is not in this list`,
        });
    const seen = new Set<string>();
    const reach = (id: string): boolean =>
      (after.get(id) ?? []).some((next) => next === c.id || (!seen.has(next) && (seen.add(next), reach(next))));
    if (reach(c.id))
      faults.push({
        path: `${path}[${i}].unlikelyAfter`,
        message: `leads back to "${c.id}" itself: take one of the ring out`,
      });
  }
  return faults;
}

/** Could one vehicle be in both? */
function meet(a: Scope | undefined, b: Scope | undefined): boolean {
  const both = <T>(x: T[] | undefined, y: T[] | undefined) => !x || !y || x.some((v) => y.includes(v));
  const years = !a?.years || !b?.years || (a.years[0] <= b.years[1] && b.years[0] <= a.years[1]);
  return years && both(a?.engines, b?.engines) && both(a?.markets, b?.markets);
}

/** Two meanings of one number that hold for the same vehicle, neither narrower than the other. */
function overlaps(tables: readonly Table[]): PackFault[] {
  const faults: PackFault[] = [];
  const seen = new Map<string, { entry: Entry; table: Table; path: string }[]>();
  for (const [i, table] of tables.entries())
    for (const [k, entry] of table.entries.entries()) {
      const key = `${table.system} ${entry.code}`;
      const path = `tables[${i}].entries[${k}]`;
      const others = seen.get(key) ?? [];
      for (const o of others)
        if (
          meet(entry.scope, o.entry.scope) &&
          meet(table.scope, o.table.scope) &&
          narrowness(entry.scope) === narrowness(o.entry.scope) &&
          narrowness(table.scope) === narrowness(o.table.scope)
        )
          faults.push({
            path,
            message: `is code ${entry.code} for the same vehicles as ${o.path}: give one a scope or remove it`,
          });
      seen.set(key, [...others, { entry, table, path }]);
    }
  return faults;
}
