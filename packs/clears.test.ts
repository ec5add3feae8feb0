import { describe, expect, it } from "vitest";
import { PACKS } from "./index";
import type { ClearWay, CostId, Pack } from "@core/pack/pack";
import { planClear, type ClearFacts } from "@core/clearing/plan";

const all = PACKS.flatMap((pack) => pack.systems.map((s) => ({ pack, system: s.id, name: `${pack.make} ${s.name}` })));
const free: ClearFacts = { recorded: true, radio: "none", handOver: false };
const RADIO: ClearFacts["radio"][] = ["none", "code-known", "code-unknown", "not-asked"];

const way = (id: string, seconds: number, ...costs: CostId[]): ClearWay => ({
  id,
  title: id,
  system: "engine",
  kind: "fuse",
  seconds,
  what: "",
  costs: costs.map((c) => ({ id: c, text: c })),
  steps: [],
  afterwards: [],
});

describe("planClear", () => {
  it.each(all)("of $name lets nothing be wiped that was not written down, whatever else is so", ({ pack, system }) => {
    for (const radio of RADIO)
      for (const handOver of [false, true])
        for (const p of planClear(pack, system, { recorded: false, radio, handOver })) {
          expect(p.open).toBe(false);
          expect(p.gates.find((g) => g.id === "reading")).toMatchObject({ open: false });
        }
  });

  it.each(all)("of $name asks for the radio only where that way cuts its supply", ({ pack, system }) => {
    for (const p of planClear(pack, system, { ...free, radio: "code-unknown" })) {
      const cuts = p.way.costs.some((c) => c.id === "radio-code");
      expect(p.open).toBe(!cuts);
      expect(p.gates.some((g) => g.id === "radio-code")).toBe(cuts);
    }
    for (const radio of ["none", "code-known"] as const)
      expect(planClear(pack, system, { ...free, radio }).every((p) => p.open)).toBe(true);
    expect(planClear(pack, system, { ...free, handOver: true }).some((p) => p.open)).toBe(false);
  });

  it("puts the way that costs least first, and of two that cost alike the quicker one", () => {
    const [base] = PACKS;
    const ways = [
      way("battery", 60, "radio-code", "clock"),
      way("slow", 7200, "clock"),
      way("fuse", 30, "clock"),
      way("button", 10),
      way("erase", 10, "readiness"),
    ];
    const pack: Pack = { ...base, systems: [{ ...base.systems[0], id: "engine" }], clears: ways };
    const order = planClear(pack, "engine", free).map((p) => p.way.id);
    expect(order).toEqual(["button", "fuse", "erase", "slow", "battery"]);
    // Whatever the pack's order.
    expect(planClear({ ...pack, clears: [...ways].reverse() }, "engine", free).map((p) => p.way.id)).toEqual(order);
  });
});
