import { describe, expect, it } from "vitest";
import { PACKS } from "./index";
import { planClear, wipes, type ClearFacts } from "@core/clearing/plan";

const all = PACKS.flatMap((pack) => pack.systems.map((s) => ({ pack, system: s.id, name: `${pack.make} ${s.name}` })));
const free: ClearFacts = {
  recorded: true,
  unread: [],
  partial: [],
  radio: "none",
  immobiliser: "none",
  handOver: false,
  forSale: false,
};
const RADIO: ClearFacts["radio"][] = ["none", "code-known", "code-unknown", "not-asked"];

describe("planClear", () => {
  it.each(all)("of $name lets nothing be wiped that was not written down, whatever else is so", ({ pack, system }) => {
    for (const radio of RADIO)
      for (const handOver of [false, true])
        for (const p of planClear(pack, system, { ...free, recorded: false, radio, handOver })) {
          expect([p.open, p.may]).toEqual([false, false]);
          expect(p.gates.find((g) => g.id === "reading")).toMatchObject({ is: "shut" });
        }
  });

  it.each(all)("of $name asks for the radio only where that way cuts its supply", ({ pack, system }) => {
    for (const radio of RADIO)
      for (const p of planClear(pack, system, { ...free, radio })) {
        const gate = p.gates.find((g) => g.id === "radio-code");
        const cuts = p.way.costs.some((c) => c.id === "radio-code");
        // A code that cannot be found locks nothing for ever: whoever takes that is asked once.
        const is = { none: "open", "code-known": "open", "code-unknown": "ask", "not-asked": "shut" }[radio];
        expect(gate?.is).toBe(cuts ? is : undefined);
      }
    expect(planClear(pack, system, { ...free, handOver: true }).some((p) => p.may)).toBe(false);
    for (const p of planClear(pack, system, { ...free, immobiliser: "not-asked", forSale: true })) {
      expect(p.gates.some((g) => g.id === "for-sale" && g.is === "ask")).toBe(true);
      expect(p.may).toBe(!p.way.costs.some((c) => c.id === "immobiliser"));
    }
  });

  it("warns before a way wipes what nobody has read, and only then", () => {
    for (const pack of PACKS)
      for (const way of pack.clears)
        for (const other of pack.systems.filter((s) => !s.sameTableAs && s.id !== way.system)) {
          const plan = planClear(pack, way.system, { ...free, unread: [{ system: other.id, name: other.name }] });
          const asks = plan.find((p) => p.way === way)!.gates.some((g) => g.id === "unread" && g.is === "ask");
          expect([way.id, other.id, asks]).toEqual([way.id, other.id, wipes(pack, way).includes(other.id)]);
        }
  });

  it("books a battery that is taken off on every unit of the vehicle", () => {
    for (const pack of PACKS)
      for (const way of pack.clears.filter((c) => c.kind === "battery"))
        expect([...wipes(pack, way)].sort()).toEqual(pack.systems.flatMap((s) => (s.sameTableAs ? [] : s.id)).sort());
  });
});
