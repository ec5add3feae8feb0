import { flashesOf, seeded } from "../flash/dialect/encode";
import type { Dialect, Faults } from "../flash/dialect/dialect";
import type { Pack } from "../pack/pack";
import { systemsOf, tableOwner, variantOf, type SystemAccess, type VehicleFacts } from "../pack/scope";
import { beginsAfterMs, type ModuleWalk, type Submode } from "../pack/way";
import { bridgeEffect, leadsEffect } from "../procedure/bridge";
import { powered, type LampNow, type Simulated } from "./state";

/** The engine has to start within this of key-on, or the running test does not begin. */
const START_WITHIN = 10_000;
/** Who acts a moment before the flash has acted. */
const EARLY = 1000;
const JITTER = 0.02;

/** Since when a unit has been asked and talks (ms), or null where it was not asked rightly. */
export function askedSince(v: Simulated, pack: Pack, access: SystemAccess): number | null {
  if (v.key === "off" || !powered(v) || isDead(v, access)) return null;
  const { way, connector } = access;
  if (way.engineWarm && !v.warm) return null;
  if (way.engine === "off" && v.key === "run" && way.ask.kind !== "lead") return null;
  switch (way.ask.kind) {
    case "bridge": {
      const wire = v.wireAtKeyOn;
      // Taking the wire out ends the test at once.
      if (!wire || !v.wire || !connector || wire.connector !== connector.id || v.wire.connector !== connector.id)
        return null;
      if (bridgeEffect(connector, way, wire.from, wire.to).kind !== "right") return null;
      if (way.engine === "off") return v.keyOnAt + beginsAfterMs(way);
      if (v.engineAt === null || !v.warm || v.engineAt - v.keyOnAt > START_WITHIN) return null;
      return v.engineAt;
    }
    case "reader": {
      if (!v.leads?.fed || !connector || v.leads.connector !== connector.id) return null;
      const right = leadsEffect(connector, way, v.leads.at.black ?? "", v.leads.at.signal ?? "").kind === "right";
      return right ? v.keyOnAt : null;
    }
    case "lead": {
      const { leads } = v;
      if (!leads || leads.connector !== connector?.id) return null;
      return way.ask.wires.every((w) => leads.at[w.colour] === w.cavity) ? v.keyOnAt : null;
    }
    case "key-cycle": {
      const last = v.keyTurns.slice(-way.ask.times);
      const enough = last.length === way.ask.times && last[last.length - 1] === v.keyOnAt;
      return enough && (v.keyOnAt - last[0]) / 1000 <= way.ask.withinSeconds ? v.keyOnAt : null;
    }
    case "buttons":
      return v.dash ? v.keyOnAt : null;
    case "key-on":
    case "unit-button":
      return v.keyOnAt;
  }
}

const isDead = (v: Simulated, { unit }: SystemAccess): boolean => v.deadUnits?.includes(unit) ?? false;

/** What the unit tells as present and as stored. */
function faultsNow(v: Simulated, access: SystemAccess, owner: string, cylinders: number): Faults {
  const stored = v.memory[owner] ?? [];
  const there = v.faults.filter(
    (f) => f.system === owner && (f.returns === "key-on" || (access.way.engine === "running" && f.returns === "drive")),
  );
  const live = there.map((f) => f.code);
  const { tells } = access.way;
  if (tells.kind === "lamp" && tells.act && access.dialect && v.engineAt !== null) {
    const asked = askedToAct(access.dialect, v.engineAt, v.speed, cylinders);
    const inTime = v.actedAt !== null && v.actedAt > asked - EARLY && v.actedAt < asked + tells.act.seconds * 1000;
    if (!inTime) live.push(tells.act.missed);
  }
  return { stored, live };
}

/** When the one flash comes that asks for something to be done. */
function askedToAct(dialect: Dialect, since: number, speed: number, cylinders: number): number {
  const random = seeded(Math.round(since));
  for (const f of flashesOf(dialect, { live: [], stored: [] }, { speed, jitter: JITTER, random, cylinders }))
    if (f.flash.unit.kind === "group" && f.flash.unit.means === "act") return since + f.start;
  return -Infinity;
}

/** What the lamp of a system does. */
export function lampOf(v: Simulated, pack: Pack, facts: VehicleFacts, system: string): LampNow {
  if (v.key === "off" || !powered(v)) return { kind: "dark" };
  const access = systemsOf(pack, facts).find((s) => s.system === system);
  if (!access || isDead(v, access) || v.deadLamps?.includes(access.lamp)) return { kind: "dark" };
  const { way, dialect } = access;
  const since = askedSince(v, pack, access);
  if (way.tells.kind === "readiness") {
    if (v.key === "run") return { kind: "dark" };
    const afterMs = way.tells.waitSeconds * 1000;
    return v.ready ? { kind: "lit" } : { kind: "blinks", count: way.tells.blinks, afterMs, since: v.keyOnAt };
  }
  const owner = tableOwner(pack, system);
  if (way.ask.kind === "reader" || way.ask.kind === "unit-button") {
    if (since === null || !dialect) return { kind: "dark" };
    if (v.press?.system !== system || v.press.at === -Infinity) return { kind: "lit" };
    const code = (v.memory[owner] ?? [])[v.press.index];
    const clear = dialect.empty?.kind === "group" ? Number(dialect.empty.flashes) : 1;
    return { kind: "run", flashes: code ? Number(code) : clear, dialect, since: v.press.at, speed: v.speed };
  }
  // The LED on a unit shows nothing but its list; a lamp in the dash is lit until the engine runs.
  const resting: LampNow = way.ask.kind === "key-on" || v.key === "run" ? { kind: "dark" } : { kind: "lit" };
  if (since === null || !dialect) return resting;
  const cylinders = variantOf(pack, facts)?.engines.find((e) => e.id === facts.engine)?.cylinders ?? 4;
  return {
    kind: "show",
    dialect,
    faults: faultsNow(v, access, owner, cylinders),
    cylinders,
    since,
    speed: v.speed,
  };
}

/** The state in which a lamp rests, and the stretches in which it is away from it, ms from `since`. */
export function flashesNow(lamp: LampNow): {
  lit: boolean;
  since: number;
  flashes: Iterable<{ start: number; end: number }>;
} {
  switch (lamp.kind) {
    case "dark":
    case "lit":
      return { lit: lamp.kind === "lit", since: 0, flashes: [] };
    case "show": {
      const { dialect, faults, cylinders, since, speed } = lamp;
      const random = seeded(Math.round(since));
      return {
        lit: dialect.rest === "lit",
        since,
        flashes: flashesOf(dialect, faults, { speed, jitter: JITTER, random, cylinders }),
      };
    }
    case "run": {
      const { short } = lamp.dialect.marks;
      const before = lamp.dialect.empty?.kind === "group" ? lamp.dialect.empty.beforeMs : 1000;
      const flashes = Array.from({ length: lamp.flashes }, (_, i) => {
        const start = (before + i * (short + lamp.dialect.gaps.flash)) * lamp.speed;
        return { start, end: start + short * lamp.speed };
      });
      return { lit: true, since: lamp.since, flashes };
    }
    case "blinks": {
      const flashes = Array.from({ length: lamp.count }, (_, i) => ({
        start: lamp.afterMs + i * 1000,
        end: lamp.afterMs + i * 1000 + 500,
      }));
      return { lit: true, since: lamp.since, flashes };
    }
  }
}

/** Lines that a dash which writes steps through: each code with its system's letter, then the mark for nothing more. */
export function linesOf(v: Simulated, pack: Pack, facts: VehicleFacts): string[] {
  const systems = systemsOf(pack, facts);
  const writes = systems.find((s) => s.way.tells.kind === "text");
  if (writes?.way.tells.kind !== "text") return [];
  const { tells } = writes.way;
  const codes = tells.systems
    .filter((t) => systems.some((s) => s.system === t.system))
    .flatMap((t) => (v.memory[t.system] ?? []).map((code) => `${t.prefix}${code.padStart(t.digits, "0")}`));
  return [...codes, tells.none];
}

/** Modules that this vehicle has, in the order of the walk. */
export function modulesOf(pack: Pack, facts: VehicleFacts): ModuleWalk["modules"] {
  const systems = systemsOf(pack, facts);
  const tells = systems.find((s) => s.way.tells.kind === "modules")?.way.tells;
  return tells?.kind === "modules" ? tells.modules.filter((m) => systems.some((s) => s.system === m.system)) : [];
}

/** The module and sub-mode at which a dash that walks stands. */
export function moduleAt(
  v: Simulated,
  pack: Pack,
  facts: VehicleFacts,
): { system: string; letter: string; submode: Submode } | null {
  const tells = systemsOf(pack, facts).find((s) => s.way.tells.kind === "modules")?.way.tells;
  const module = modulesOf(pack, facts)[v.walk?.module ?? 0];
  if (tells?.kind !== "modules" || !module) return null;
  return { ...module, submode: tells.submodes[v.walk?.submode ?? 0] };
}

/** Each code of a module stands so long. */
const CODE_MS = 2500;

/** What the instrument shows in place of the odometer, or null where it shows nothing special. */
export function displayOf(v: Simulated, pack: Pack, facts: VehicleFacts, now: number): string | null {
  if (v.key === "off" || !powered(v)) return null;
  if (v.dash) return linesOf(v, pack, facts)[v.dash.line] ?? null;
  const walks = systemsOf(pack, facts).find((s) => s.way.tells.kind === "modules");
  if (walks?.way.tells.kind !== "modules") return null;
  const since = askedSince(v, pack, walks);
  const here = moduleAt(v, pack, facts);
  if (since === null || !here || now < since) return null;
  const { none } = walks.way.tells;
  const list = v.memory[here.system] ?? [];
  if (here.submode.shows === "value") return `${here.letter} ${120 + here.letter.charCodeAt(0)}`;
  if (here.submode.shows === "erase") return list.length ? `${here.letter} ERA` : `${here.letter} ${none}`;
  if (!list.length) return `${here.letter} ${none}`;
  const at = Math.floor((now - (v.walk?.at ?? since)) / CODE_MS) % list.length;
  return `${here.letter} ${list[at]}`;
}

/** Other things that the units drive, and whether they are seen or heard at this moment. */
export function outputsOf(
  v: Simulated,
  pack: Pack,
  facts: VehicleFacts,
  now: number,
): { system: string; id: string; name: string; expect: string; works: boolean }[] {
  const alive = v.key !== "off" && powered(v) && now - v.keyOnAt < 4000;
  const seen = new Set<string>();
  return systemsOf(pack, facts).flatMap((s) =>
    (s.about.drives ?? [])
      .filter((o) => !seen.has(o.id) && seen.add(o.id))
      .map((o) => {
        const works = alive && !isDead(v, s) && !v.deadOutputs?.includes(o.id);
        return { system: s.system, id: o.id, name: o.name, expect: o.expect, works };
      }),
  );
}
