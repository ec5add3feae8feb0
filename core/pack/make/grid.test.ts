import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Entry } from "../pack";
import { COLUMNS, newEntry, withBlock } from "./grid";

const table: Entry[] = [
  { ...newEntry("12", "Air flow meter"), sets: "No signal at idle", lookFirst: ["Plug"] },
  { ...newEntry("14", "Coolant sensor"), scope: { years: [1988, 1990] } },
  newEntry("21", "Throttle switch"),
];
const done = (made: ReturnType<typeof withBlock>): Entry[] => ("entries" in made ? made.entries : []);
const faults = (made: ReturnType<typeof withBlock>): string => ("faults" in made ? made.faults.join(" ") : "");

describe("a block pasted into the grid of codes", () => {
  it("changes the cells it lies on, makes codes of what goes beyond, and leaves all else as it was", () => {
    const word = fc.stringMatching(/^[a-z]{1,12}( [a-z]{1,12}){0,2}$/);
    const at = fc.record({ row: fc.nat(3), column: fc.nat(COLUMNS.length - 1) });
    fc.assert(
      fc.property(at, fc.array(fc.array(word, { minLength: 5, maxLength: 5 }), { maxLength: 5 }), (at, texts) => {
        const from = at.row === 3 ? { ...at, column: 0 } : at;
        const block = texts.map((row, i) =>
          row.slice(0, COLUMNS.length - from.column).map((t, k) => (from.column + k === 0 ? String(100 + i) : t)),
        );
        const next = withBlock(table, from, block);
        if (from.column > 0 && from.row + block.length > table.length) {
          expect(faults(next)).toMatch(/no code/);
          return;
        }
        const made = done(next);
        expect(made).toHaveLength(Math.max(table.length, from.row + block.length));
        for (const [i, e] of made.entries()) {
          const row = block[i - from.row];
          if (!row) expect(e).toEqual(table[i]);
          for (const [k, text] of (row ?? []).entries()) expect(e[COLUMNS[from.column + k].id]).toBe(text);
          // What the grid does not show stays.
          if (table[i]) expect([e.lookFirst, e.scope]).toEqual([table[i].lookFirst, table[i].scope]);
        }
      }),
    );
  });

  it("leaves headings and empty rows out, and a circuit that repeats the meaning follows it", () => {
    const made = done(
      withBlock(table, { row: 3, column: 0 }, [
        ["Code", "Meaning"],
        ["31", "Knock  sensor "],
        ["", ""],
        ["33", "EGR"],
      ]),
    );
    expect(made.slice(3)).toEqual([newEntry("31", "Knock sensor"), newEntry("33", "EGR")]);
    expect(done(withBlock(table, { row: 2, column: 1 }, [["Idle switch"]]))[2].circuit).toBe("Idle switch");
    expect(done(withBlock(table, { row: 2, column: 2 }, [[""]]))[2].circuit).toBe("Throttle switch");
    expect(done(withBlock(table, { row: 0, column: 3 }, [[""]]))[0]).not.toHaveProperty("sets");
  });

  it("takes nothing where anything is wrong with it, and says in which row", () => {
    const at = (row: number, column: number, block: string[][]) => faults(withBlock(table, { row, column }, block));
    expect(at(3, 0, [["31", "Knock"], ["4x", "Lamp"]])).toMatch(/^Row 2, Code "4x": a code is a number/); // prettier-ignore
    expect(at(3, 0, [["12", "Again"]])).toMatch(/Code 12 would stand there twice/);
    expect(at(1, 0, [["12"]])).toBe("");
    expect(at(0, 1, [[""]])).toMatch(/^Row 1, What it means: it may not be empty/);
    expect(at(0, 1, [["x".repeat(201)]])).toMatch(/at most 200/);
    expect(at(0, 4, [["<b>", "too wide"]])).toMatch(/wider than the grid.*without markup/);
    expect(at(2, 1, [["Idle"], ["Lambda"]])).toMatch(/Row 2: it has no code/);
  });
});
