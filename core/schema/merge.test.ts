import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { merged } from "./merge";

const item = fc.record({ id: fc.constantFrom("a", "b", "c", "d"), text: fc.string({ maxLength: 3 }), n: fc.nat(3) });
const doc = fc.record(
  {
    make: fc.string({ maxLength: 3 }),
    plug: fc.record({ where: fc.string({ maxLength: 2 }), place: fc.nat(2), size: fc.tuple(fc.nat(2), fc.nat(2)) }),
    steps: fc.uniqueArray(item, { selector: (i) => i.id, maxLength: 4 }),
    note: fc.string({ maxLength: 2 }),
  },
  { requiredKeys: ["make", "plug", "steps"] },
);

describe("what was changed in two places", () => {
  it("is all there where it was not the same thing, and nothing is changed that neither touched", () => {
    fc.assert(
      fc.property(doc, doc, (base, other) => {
        expect(merged(base, other, base)).toEqual(other);
        expect(merged(base, base, other)).toEqual(other);
        expect(merged(base, other, other)).toEqual(other);
        const mine = { ...base, make: `${base.make}!`, plug: { ...base.plug, where: `${base.plug.where}!` } };
        const both = merged(base, mine, { ...other, make: base.make, plug: { ...other.plug, where: base.plug.where } });
        expect(both).toEqual({ ...other, make: mine.make, plug: { ...other.plug, where: mine.plug.where } });
      }),
    );
  });

  it("keeps items of a list apart by their names: changed, added, taken out and put in another order", () => {
    const base = [
      { id: "a", t: 1 },
      { id: "b", t: 1 },
      { id: "c", t: 1 },
    ];
    const mine = [
      { id: "c", t: 1 },
      { id: "a", t: 2 },
      { id: "d", t: 1 },
    ];
    const stored = [
      { id: "a", t: 1, more: 5 },
      { id: "b", t: 1 },
      { id: "c", t: 3 },
      { id: "e", t: 1 },
    ];
    expect(merged<object[]>(base, mine, stored)).toEqual([
      { id: "c", t: 3 },
      { id: "a", t: 2, more: 5 },
      { id: "d", t: 1 },
      { id: "e", t: 1 },
    ]);
    const codes = (...list: [string, string][]) => list.map(([code, title]) => ({ code, title }));
    const table = codes(["11", "Air"], ["12", "Oil"]);
    expect(merged(table, codes(["11", "Air"], ["12", "Water"]), codes(["11", "Meter"], ["12", "Oil"]))).toEqual(
      codes(["11", "Meter"], ["12", "Water"]),
    );
    // Taken out elsewhere and not touched here, it stays out; changed here, it is wanted.
    expect(merged(table, codes(["11", "Air"], ["12", "Water"]), [])).toEqual(codes(["12", "Water"]));
    // A code stays itself whatever is told of it.
    const circuits = (...all: [string, string][]) => all.map(([code, circuit]) => ({ code, circuit }));
    expect(
      merged(circuits(["11", "Air"]), circuits(["11", "Air meter"]), circuits(["10", "Fan"], ["11", "Air"])),
    ).toEqual(circuits(["11", "Air meter"], ["10", "Fan"]));
    // Two systems that are added one upon the other are both there.
    const systems = (...ids: string[]) => ids.map((system) => ({ system, way: "way" }));
    expect(merged(systems("a"), systems("a", "b"), systems("a", "c"))).toEqual(systems("a", "b", "c"));
  });
});
