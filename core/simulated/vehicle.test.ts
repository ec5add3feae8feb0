import { describe, expect, it } from "vitest";
import { dialect } from "../testing/dialects";
import type { Pack } from "../pack/pack";
import { lampOf } from "./answers";
import { FORGETS_AFTER, simulate, type Simulated, type SimulatedAction } from "./state";
import { act } from "./vehicle";

const cavities = [
  { id: "A", at: [0, 0] as [number, number], role: "power" as const },
  { id: "C", at: [0, 0] as [number, number], role: "test" as const, system: "engine" },
  { id: "D", at: [0, 0] as [number, number], role: "test" as const, system: "brake" },
  { id: "G", at: [0, 0] as [number, number], role: "ground" as const },
];
const way = (id: string, bridge: [string, string]) => ({
  id,
  ask: { kind: "bridge", connector: "c", bridge },
  tells: { kind: "lamp", dialect: "lead-in" },
  engine: "off",
  steps: [],
});
const pack = {
  systems: [{ id: "engine" }, { id: "brake" }],
  dialects: [dialect("lead-in")],
  connectors: [{ id: "c", name: "C", cavities }],
  clears: [
    { id: "engine-fuse", kind: "fuse", system: "engine" },
    { id: "brake-fuse", kind: "fuse", system: "brake" },
  ],
  ways: [way("e", ["C", "G"]), way("b", ["D", "G"])],
  variants: [
    {
      id: "v",
      engines: [],
      systems: [
        { system: "engine", way: "e" },
        { system: "brake", way: "b" },
      ],
    },
  ],
} as unknown as Pack;
const facts = { variant: "v", year: 1990, engine: "x", market: "home" };
const wire = (from: string, to: string): SimulatedAction => ({ do: "wire", wire: { connector: "c", from, to } });
const key = (to: "on" | "off"): SimulatedAction => ({ do: "key", to });
const start = simulate(
  [
    { system: "engine", code: "26", returns: "drive" },
    { system: "engine", code: "43", returns: "never" },
    { system: "engine", code: "21", returns: "key-on" },
  ],
  1,
);
const after = (actions: (SimulatedAction | number)[], v: Simulated = start): Simulated => {
  let now = 1000;
  for (const a of actions) {
    if (typeof a === "number") now += a;
    else v = act(v, a, pack, facts, now);
  }
  return v;
};
const lamp = (v: Simulated, system = "engine") => lampOf(v, pack, facts, system).kind;

describe("a simulated vehicle", () => {
  it("blinks its list only with the right wire in before the key", () => {
    expect(lamp(start)).toBe("dark");
    expect(lamp(after([key("on")]))).toBe("lit");
    expect(lampOf(after([wire("C", "G"), key("on")]), pack, facts, "engine")).toMatchObject({
      kind: "show",
      faults: { stored: ["21", "26", "43"] },
    });
    expect(lamp(after([key("on"), wire("C", "G")]))).toBe("lit");
    expect(lamp(after([wire("C", "G"), key("on"), { do: "wire", wire: null }]))).toBe("lit");
  });

  it("answers a wrong wire as a vehicle would: another lamp, nothing, or a blown fuse", () => {
    const brake = after([wire("D", "G"), key("on")]);
    expect([lamp(brake), lamp(brake, "brake")]).toEqual(["lit", "show"]);
    const blown = after([wire("A", "G"), key("on")]);
    expect([blown.blown, lamp(blown)]).toEqual([true, "dark"]);
    expect(lamp(after([{ do: "wire", wire: null }, key("off"), { do: "new-fuse" }, key("on")], blown))).toBe("lit");
  });

  it("forgets only after long enough without power, and some faults come back", () => {
    const pull = (ms: number) =>
      after([key("off"), { do: "fuse", out: true }, ms, { do: "fuse", out: false }]).memory.engine ?? [];
    expect(pull(FORGETS_AFTER.fuse - 1)).toEqual(["21", "26", "43"]);
    expect(pull(FORGETS_AFTER.fuse)).toEqual([]);
    const cleared = after([{ do: "battery", off: true }, FORGETS_AFTER.battery, { do: "battery", off: false }]);
    expect(after([key("on")], cleared).memory.engine).toEqual(["21"]);
    expect(after([{ do: "drive" }], cleared).memory.engine).toEqual(["21", "26"]);
  });

  it("loses by a fuse what the pack says, by the wrong one nothing, by the battery all", () => {
    const both: Simulated = { ...start, memory: { engine: ["26"], brake: ["23"] } };
    const pull = (way: string) =>
      after([{ do: "fuse", out: true, way }, FORGETS_AFTER.fuse, { do: "fuse", out: false }], both).memory;
    expect(pull("brake-fuse")).toEqual({ engine: ["26"] });
    expect(pull("trailer")).toEqual({ engine: ["26"], brake: ["23"] });
    expect(
      after([{ do: "battery", off: true }, FORGETS_AFTER.battery, { do: "battery", off: false }], both).memory,
    ).toEqual({});
  });

  it("sets no code again that was mended, and those that were not", () => {
    const mended = after([
      { do: "mend", system: "engine", code: "21" },
      { do: "mend", system: "engine", code: "99" },
    ]);
    // What is stored stays until it is cleared.
    expect(mended.memory.engine).toEqual(["21", "26", "43"]);
    expect(after([key("on"), key("off"), { do: "drive" }], { ...mended, memory: {} }).memory.engine).toEqual(["26"]);
  });

  it("blows a new fuse as well while the wire is where it was", () => {
    const again = after([wire("A", "G"), key("on"), { do: "new-fuse" }]);
    expect(again.blown).toBe(true);
    expect(after([wire("A", "G"), key("on"), key("off"), { do: "new-fuse" }]).blown).toBe(false);
  });

  it("with a dead unit or bulb shows no lamp, whatever is asked", () => {
    const asked = (v: Partial<Simulated>) => lamp(after([wire("C", "G"), key("on")], { ...start, ...v }));
    const unit = {
      ...pack,
      systems: [
        { id: "engine", unit: "ECM", lamp: "MIL" },
        { id: "brake", unit: "ABS", lamp: "ABS" },
      ],
    } as unknown as Pack;
    const kind = (v: Partial<Simulated>) =>
      lampOf(after([wire("C", "G"), key("on")], { ...start, ...v }), unit, facts, "engine").kind;
    expect([
      asked({}),
      kind({}),
      kind({ deadUnits: ["ECM"] }),
      kind({ deadLamps: ["MIL"] }),
      kind({ deadUnits: ["ABS"] }),
    ]).toEqual(["show", "show", "dark", "dark", "show"]);
  });

  it("is dark without its fuse or battery", () => {
    expect(lamp(after([key("on"), { do: "fuse", out: true }]))).toBe("dark");
    expect(lamp(after([key("on"), { do: "battery", off: true }]))).toBe("dark");
  });
});
