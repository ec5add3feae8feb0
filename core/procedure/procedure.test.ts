import { describe, expect, it } from "vitest";
import type { Connector, Way } from "../pack/pack";
import { bridgeEffect, isForbidden } from "./bridge";
import { lampVerdict } from "./lamp-check";

const roles = { A: "power", B: "signal", C: "test", D: "test", E: "empty", G: "ground", J: "airbag" } as const;
const connector: Connector = {
  id: "c",
  name: "C",
  size: [1, 1],
  shape: "block",
  notch: "none",
  colour: "grey",
  where: "",
  place: "under-dash",
  cavities: Object.entries(roles).map(([id, role]) => ({
    id,
    at: [0, 0],
    role,
    ...(id === "D" ? { system: "brake" } : {}),
  })),
};
const way = { engine: "off", ask: { kind: "bridge", connector: "c", bridge: ["C", "G"] } } as unknown as Way;

describe("bridgeEffect", () => {
  it.each([
    ["C", "G", "right"],
    ["G", "C", "right"],
    ["D", "G", "other-system"],
    ["A", "G", "danger"],
    ["C", "A", "danger"],
    ["J", "C", "danger"],
    ["B", "G", "nothing"],
    ["B", "C", "nothing"],
    ["E", "B", "nothing"],
    ["C", "C", "nothing"],
    ["C", "Z", "nothing"],
  ])("%s to %s is %s", (a, b, kind) => {
    const effect = bridgeEffect(connector, way, a, b);
    expect(effect.kind).toBe(kind);
    expect(effect.why.length).toBeGreaterThan(10);
    if (kind === "other-system") expect(effect.system).toBe("brake");
  });

  it("every bridge onto battery or airbag is dangerous, whatever else it touches", () => {
    for (const a of Object.keys(roles))
      for (const b of Object.keys(roles))
        if (a !== b && (isForbidden(connector, a) || isForbidden(connector, b)))
          expect(bridgeEffect(connector, way, a, b).kind).toBe("danger");
  });
});

describe("lampVerdict", () => {
  it("lets only a steady lamp pass, and tells what to look at otherwise", () => {
    expect(lampVerdict("steady")).toMatchObject({ pass: true, look: [] });
    for (const seen of ["dark", "flashing", "goes-out"] as const) {
      const verdict = lampVerdict(seen);
      expect(verdict.pass).toBe(false);
      expect(verdict.look.length).toBeGreaterThan(2);
    }
  });

  it("tells a bulb from a dead unit by what else the unit drives", () => {
    expect(lampVerdict("dark", "all").headline).toMatch(/Only the lamp/);
    expect(lampVerdict("dark", "none").reason).toMatch(/power or ground/);
  });
});
