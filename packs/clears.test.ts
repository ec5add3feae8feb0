import { describe, expect, it } from "vitest";
import { PACKS } from "./index";
import { planClear, type ClearFacts } from "@core/clearing/plan";

const all = PACKS.flatMap((pack) => pack.systems.map((s) => ({ pack, system: s.id, name: `${pack.make} ${s.name}` })));
const free: ClearFacts = { recorded: true, radio: "none", handOver: false };
const RADIO: ClearFacts["radio"][] = ["none", "code-known", "code-unknown", "not-asked"];

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
});
