import type { Pack } from "../pack/pack";
import { wipes } from "../clearing/plan";
import { systemsOf, tableOwner, type SystemAccess, type VehicleFacts } from "../pack/scope";
import { askedSince, linesOf, moduleAt, modulesOf } from "./answers";
import { FORGETS_AFTER, powered, READER_BUTTON, UNIT_BUTTON, type Simulated, type SimulatedAction } from "./state";

/** The key cycle is looked for among the turns of so many ms. */
const TURNS_KEPT = 15_000;

/** The vehicle after something was done to it at `now` (ms). Every wrong move has its natural consequence. */
export function act(v: Simulated, action: SimulatedAction, pack: Pack, facts: VehicleFacts, now: number): Simulated {
  switch (action.do) {
    case "key":
      return turnKey(v, action.to, pack, now);
    case "wire": {
      const next = { ...v, wire: action.wire };
      return v.key !== "off" && powered(v) ? blow(next, pack) : next;
    }
    case "leads":
      return { ...v, leads: action.leads, press: null };
    case "down":
      return action.button in v.down ? v : { ...v, down: { ...v.down, [action.button]: now } };
    case "up":
      return released(v, action.button, pack, facts, now);
    case "act":
      return { ...v, actedAt: now };
    case "warm-up":
      return { ...v, warm: true };
    case "fuse":
      if (action.out) return { ...v, fuseOutAt: now, fuse: action.way };
      return {
        ...forget(v, v.fuseOutAt, FORGETS_AFTER.fuse, now, wipedByFuse(v, pack)),
        fuseOutAt: null,
        fuse: undefined,
      };
    case "battery":
      if (action.off) return { ...v, batteryOffAt: now };
      return { ...forget(v, v.batteryOffAt, FORGETS_AFTER.battery, now), batteryOffAt: null };
    case "adapter": {
      // With the wire of the blink test in, or no key, the unit does not talk to it.
      const way = pack.clears.find((c) => c.id === action.way);
      if (!way || v.key !== "on" || v.wire || !powered(v)) return v;
      return { ...without(v, wipes(pack, way)), ready: false };
    }
    case "mend":
      return {
        ...v,
        faults: v.faults.map((f) =>
          f.system === action.system && f.code === action.code ? { ...f, returns: "never" } : f,
        ),
      };
    case "new-fuse": {
      // With the wire still where it was, the new one blows as well.
      const next = { ...v, blown: false };
      return v.key === "off" ? next : blow(next, pack);
    }
    case "drive": {
      if (v.wire || !powered(v)) return v;
      const off = turnKey(v, "off", pack, now);
      return { ...used(store(store(off, "key-on"), "drive"), pack, "ride"), warm: true, ready: true };
    }
  }
}

function turnKey(v: Simulated, to: Simulated["key"], pack: Pack, now: number): Simulated {
  if (to === v.key) return v;
  if (to === "off")
    return { ...v, key: "off", wireAtKeyOn: null, engineAt: null, dash: null, walk: null, press: null, actedAt: null };
  if (v.key === "run") return { ...v, key: "on", engineAt: null, actedAt: null };
  const on: Simulated =
    v.key === "on"
      ? v
      : {
          ...v,
          key: "on",
          keyOnAt: now,
          keyTurns: [...v.keyTurns.filter((t) => now - t < TURNS_KEPT), now],
          wireAtKeyOn: v.wire,
          heldAtKeyOn: Object.keys(v.down),
        };
  const live = v.key === "on" || !powered(on) ? on : store(blow(on, pack), "key-on");
  if (to !== "run" || !powered(live)) return live;
  return used({ ...live, key: "run", engineAt: now, dash: null, walk: null }, pack, "starts");
}

/** A button comes up: how long it was held decides. */
function released(v: Simulated, button: string, pack: Pack, facts: VehicleFacts, now: number): Simulated {
  const since = v.down[button];
  if (since === undefined) return v;
  const { [button]: _, ...down } = v.down;
  const next: Simulated = { ...v, down };
  if (v.key === "off" || !powered(v)) return next;
  const held = (now - since) / 1000;
  const systems = systemsOf(pack, facts);
  if (button === READER_BUTTON || button === UNIT_BUTTON) {
    const access = systems.find((s) => askedSince(v, pack, s) !== null);
    return access ? pulse(next, access, held, now, tableOwner(pack, access.system)) : next;
  }
  const writes = systems.find((s) => s.way.tells.kind === "text");
  if (writes?.way.tells.kind === "text" && writes.way.ask.kind === "buttons") {
    const { buttons, holdSeconds } = writes.way.ask;
    if (v.dash)
      return button === writes.way.tells.next
        ? { ...next, dash: { line: (v.dash.line + 1) % linesOf(v, pack, facts).length } }
        : next;
    const together = buttons.every((b) => v.heldAtKeyOn.includes(b) && b in v.down);
    return together && (now - v.keyOnAt) / 1000 >= holdSeconds ? { ...next, dash: { line: 0 } } : next;
  }
  const walks = systems.find((s) => s.way.tells.kind === "modules");
  if (walks?.way.tells.kind === "modules" && askedSince(v, pack, walks) !== null) {
    const tells = walks.way.tells;
    const here = moduleAt(v, pack, facts);
    if (!here) return next;
    const { module, submode } = v.walk ?? { module: 0, submode: 0 };
    if (button === tells.nextModule)
      return { ...next, walk: { module: (module + 1) % modulesOf(pack, facts).length, submode: 0, at: now } };
    if (here.submode.shows === "erase" && held >= (here.submode.holdSeconds ?? 3))
      return { ...next, memory: { ...v.memory, [here.system]: [] }, walk: { module, submode, at: now } };
    return { ...next, walk: { module, submode: (submode + 1) % tells.submodes.length, at: now } };
  }
  return next;
}

/** One press of a pulse reader's button: long enough shows the next code, longer still wipes the one just shown. */
function pulse(v: Simulated, access: SystemAccess, held: number, now: number, owner: string): Simulated {
  const { ask } = access.way;
  if (ask.kind !== "reader" && ask.kind !== "unit-button") return v;
  const list = v.memory[owner] ?? [];
  const shown = v.press?.system === access.system ? v.press : null;
  if (held >= ask.clearSeconds) {
    if (!shown || !list.length) return v;
    const memory = { ...v.memory, [owner]: list.toSpliced(shown.index, 1) };
    return { ...v, memory, press: { ...shown, at: -Infinity, index: shown.index - 1 } };
  }
  if (held < ask.readSeconds * 0.8) return v;
  const index = list.length ? ((shown?.index ?? -1) + 1) % list.length : 0;
  return { ...v, press: { at: now, index, system: access.system } };
}

function blow(v: Simulated, pack: Pack): Simulated {
  const { wire } = v;
  const connector = pack.connectors.find((c) => c.id === wire?.connector);
  if (!wire || !connector || wire.from === wire.to) return v;
  const hot = connector.cavities.some((c) => (c.id === wire.from || c.id === wire.to) && c.role === "power");
  return hot ? { ...v, blown: true } : v;
}

const without = (v: Simulated, memories: readonly string[]): Simulated => ({
  ...v,
  memory: Object.fromEntries(Object.entries(v.memory).filter(([system]) => !memories.includes(system))),
});

/** Units that wipe themselves count how often they were used without a fault; one that is there makes them begin anew. */
function used(v: Simulated, pack: Pack, of: "starts" | "ride"): Simulated {
  return pack.clears.reduce((now, way) => {
    const need = of === "starts" ? way.starts : way.ride?.rides;
    if (way.does !== "count" || need === undefined) return now;
    const memories = wipes(pack, way);
    const there = v.faults.some(
      (f) => memories.includes(f.system) && (f.returns === "key-on" || (of === "ride" && f.returns === "drive")),
    );
    const times = there ? 0 : (now.quiet?.[way.id] ?? 0) + 1;
    const quiet = { ...now.quiet, [way.id]: times >= need ? 0 : times };
    return times >= need ? { ...without(now, memories), quiet } : { ...now, quiet };
  }, v);
}

/** Memories that lose their power with the fuse that is out: those of the way that it belongs to. */
function wipedByFuse(v: Simulated, pack: Pack): string[] {
  const way =
    pack.clears.find((c) => c.id === v.fuse) ??
    (v.fuse === undefined ? pack.clears.find((c) => c.kind === "fuse") : undefined);
  return way ? wipes(pack, way) : [];
}

/** @param which memories; without, all, and the readiness with them */
function forget(v: Simulated, since: number | null, after: number, now: number, which?: readonly string[]): Simulated {
  if (since === null || now - since < after) return v;
  const memory = which
    ? Object.fromEntries(Object.entries(v.memory).filter(([system]) => !which.includes(system)))
    : {};
  const ready = v.ready && which !== undefined && !which.length;
  return { ...v, memory, ready, key: "off", wireAtKeyOn: null, engineAt: null, dash: null, walk: null };
}

function store(v: Simulated, when: "key-on" | "drive"): Simulated {
  const memory = { ...v.memory };
  for (const f of v.faults)
    if (f.returns === when && !memory[f.system]?.includes(f.code))
      memory[f.system] = [...(memory[f.system] ?? []), f.code].sort((a, b) => Number(a) - Number(b));
  return { ...v, memory };
}
