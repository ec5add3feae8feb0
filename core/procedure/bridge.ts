import type { Connector, Way } from "../pack/pack";

/** What a wire between two cavities would do. */
export interface BridgeEffect {
  kind: "right" | "nothing" | "other-system" | "danger";
  why: string;
  /** For `other-system`: the one whose unit would answer. */
  system?: string;
}

/** Cavities that a wire must never touch: battery, ignition, airbag. */
export function isForbidden(connector: Connector, cavity: string): boolean {
  const c = connector.cavities.find((x) => x.id === cavity);
  return c?.role === "power" || c?.role === "airbag";
}

/** Judges a bridge on a connector against the way that is wanted. The order of the two cavities does not matter. */
export function bridgeEffect(connector: Connector, way: Way, a: string, b: string): BridgeEffect {
  const [x, y] = [a, b].map((id) => connector.cavities.find((c) => c.id === id));
  if (!x || !y) return { kind: "nothing", why: `${connector.name} has no such cavity.` };
  if (a === b) return { kind: "nothing", why: "Both ends are in one cavity: nothing is joined." };
  const hot = [x, y].find((c) => c.role === "power");
  const airbag = [x, y].find((c) => c.role === "airbag");
  if (airbag) return { kind: "danger", why: `${airbag.id} belongs to the airbag. Never bridge or probe it.` };
  if (hot)
    return {
      kind: "danger",
      why: `${hot.id} carries battery or ignition. Joined to anything, it blows a fuse or kills the unit.`,
    };
  const wanted = new Set(way.bridge);
  if (wanted.has(a) && wanted.has(b))
    return { kind: "right", why: "This joins the test line to ground: the unit blinks its list when the key goes on." };
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
