import type { Cavity, Connector } from "../pack/pack";
import type { Way } from "../pack/way";

/** What a wire between two cavities would do. */
export interface BridgeEffect {
  kind: "right" | "nothing" | "other-system" | "danger";
  why: string;
  /** For `other-system`: the one whose unit would answer. */
  system?: string;
}

/** Cavities that a wire must never touch: battery, ignition, airbag, and those of which nobody has said what they carry. */
export function isForbidden(connector: Connector, cavity: string): boolean {
  const c = connector.cavities.find((x) => x.id === cavity);
  return c?.role === "power" || c?.role === "airbag" || c?.role === "unknown";
}

/** Judges a wire on a connector against the way that is wanted. The order of the two cavities does not matter. */
export function bridgeEffect(connector: Connector, way: Way, a: string, b: string): BridgeEffect {
  const [x, y] = [a, b].map((id) => connector.cavities.find((c) => c.id === id));
  if (!x || !y) return { kind: "nothing", why: `${connector.name} has no such cavity.` };
  if (a === b) return { kind: "nothing", why: "Both ends are in one cavity: nothing is joined." };
  const danger = dangerOf(x, y);
  if (danger) return danger;
  if (way.ask.kind !== "bridge")
    return { kind: "nothing", why: "No wire is asked for here: this connector is listened to, not bridged." };
  const wanted = new Set(way.ask.bridge);
  if (wanted.has(a) && wanted.has(b))
    return {
      kind: "right",
      why:
        way.engine === "running"
          ? "This joins the test line to ground: the unit runs its test when the engine starts."
          : "This joins the test line to ground: the unit blinks its list when the key goes on.",
    };
  const ground = [x, y].find((c) => c.role === "ground");
  const test = [x, y].find((c) => c.role === "test");
  if (ground && test)
    return {
      kind: "other-system",
      system: test.system,
      why: `${test.id} is the test line of another unit: its lamp would answer, not this one.`,
    };
  if (!ground) return { kind: "nothing", why: "Neither end is on ground: no unit sees its test line pulled down." };
  return { kind: "nothing", why: "No test line is joined to ground: the lamp just stays lit." };
}

/** Judges where the two leads of a pulse reader are: black on ground, signal on the line of one system. */
export function leadsEffect(connector: Connector, way: Way, black: string, signal: string): BridgeEffect {
  const [x, y] = [black, signal].map((id) => connector.cavities.find((c) => c.id === id));
  if (!x || !y) return { kind: "nothing", why: `${connector.name} has no such cavity.` };
  if (black === signal) return { kind: "nothing", why: "Both leads are in one cavity: the reader sees nothing." };
  const danger = dangerOf(x, y);
  if (danger) return danger;
  if (x.role !== "ground") return { kind: "nothing", why: "The black lead is not on ground: the reader has no power." };
  if (way.ask.kind === "reader" && signal === way.ask.signal)
    return { kind: "right", why: "The reader sits on this unit's line: its LED lights and stays lit." };
  if (y.system)
    return {
      kind: "other-system",
      system: y.system,
      why: `${y.id} is the line of another unit: that one would answer.`,
    };
  return { kind: "nothing", why: `No unit talks on ${y.id}: the LED stays dark.` };
}

function dangerOf(x: Cavity, y: Cavity): BridgeEffect | null {
  const airbag = [x, y].find((c) => c.role === "airbag");
  if (airbag) return { kind: "danger", why: `${airbag.id} belongs to the airbag. Never bridge or probe it.` };
  const hot = [x, y].find((c) => c.role === "power");
  const dark = [x, y].find((c) => c.role === "unknown");
  if (!hot && dark)
    return { kind: "danger", why: `Nobody has said what ${dark.id} carries. It may be battery: join it to nothing.` };
  if (!hot) return null;
  return {
    kind: "danger",
    why: `${hot.id} carries battery or ignition. Joined to anything, it blows a fuse or kills the unit.`,
  };
}
