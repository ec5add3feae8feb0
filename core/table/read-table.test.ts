import { describe, expect, it } from "vitest";
import { LAYOUTS, tablePage } from "../cases/table-page";
import { seeded } from "../flash/dialect/encode";
import { entryOf, scopeIn, withoutDoubles } from "./entries";
import { PAGE_MAX, readTable } from "./read-table";

const codes = (page: string) => readTable(page).rows.map((r) => r.code);
const engines = [
  { id: "2.3", name: "2.3 four-cylinder" },
  { id: "2.8 V6", name: "2.8 V6" },
];

describe("the table on a page", () => {
  it.each(LAYOUTS)(
    "is read from any page laid out as %s: each code with its words, and no other that nothing marks",
    (layout) => {
      let [right, texts, all] = [0, 0, 0];
      for (let seed = 0; seed < 40; seed++) {
        const made = tablePage(layout, seeded(70_000 + seed));
        const { rows } = readTable(made.page);
        const left = new Set(rows);
        for (const want of made.rows) {
          all++;
          const row = [...left].find((r) => r.code === want.code);
          if (!row) continue;
          left.delete(row);
          right++;
          if (row.title.startsWith(want.title.slice(0, 20))) texts++;
        }
        expect([...left].filter((r) => !r.doubts.length)).toEqual([]);
      }
      expect(right / all).toBeGreaterThan(0.99);
      expect(texts / all).toBeGreaterThan(0.98);
    },
  );

  it("takes lists, spans, marks and codes told digit by digit", () => {
    expect(codes("23 / 24\tAir\n31-33\tFuel\n41 and 42\tOil\n51*\tWater")).toEqual([
      "23",
      "24",
      "31",
      "32",
      "33",
      "41",
      "42",
      "51",
    ]);
    expect(codes("2-3 Air meter\n3-1 Fuel pump\n3-4 Oil lamp")).toEqual(["23", "31", "34"]);
    expect(codes("2 long, 3 short: Air meter\n3 long, 1 short: Fuel pump\n4 long, 2 short: Oil")).toEqual([
      "23",
      "31",
      "42",
    ]);
    const noted = readTable("12 Air meter\n14* Fuel pump\n21 Oil lamp\n* only 2.8 V6");
    expect(noted.rows[1].texts.note).toBe("only 2.8 V6");
    expect(noted.aside.map((a) => a.as)).toEqual(["footnote"]);
  });

  it("marks what somebody should look at again", () => {
    const doubts = (page: string, hints = {}) =>
      Object.fromEntries(readTable(page, hints).rows.map((r) => [r.code, r.doubts]));
    const page = "11\tAir meter\n12\tCoolant\n85\tThrottle\n14\tFuel\n15\tOil\n16\t\n16\tLamp";
    expect(doubts(page)).toMatchObject({ "11": [], "85": ["out-of-order"], "14": [] });
    expect(
      readTable(page)
        .rows.filter((r) => r.code === "16")
        .every((r) => r.doubts.includes("twice")),
    ).toBe(true);
    expect(doubts("11\tAir meter\n20\tCoolant\n212\tThrottle", { digits: [2], zero: false })).toEqual({
      "11": [],
      "20": ["cannot-show"],
      "212": ["digits"],
    });
    expect(doubts("31-32\tAir meter\n41\tCoolant")).toEqual({
      "31": ["span"],
      "32": ["span"],
      "41": [],
    });
  });

  it("finds no sure code in what is no table", () => {
    const words = "the air that goes in is measured at 20 C and 14.7 V when the engine has run for 10 minutes".split(
      " ",
    );
    const random = seeded(3);
    for (let i = 0; i < 60; i++) {
      const prose = Array.from({ length: 400 }, () => words[Math.floor(random() * words.length)]).join(" ");
      const wrapped = prose.replace(/(.{60,80}) /g, "$1\n");
      for (const row of readTable(i % 2 ? prose : wrapped).rows)
        expect(row.doubts.length, row.title).toBeGreaterThan(0);
    }
    for (const absurd of ["", "\n\n\t\t", "|||||", "23", "a\tb\nc\td", "\u0000\u0001", "😀".repeat(500)])
      expect(readTable(absurd).rows.filter((r) => !r.doubts.length)).toEqual([]);
    expect(() => readTable("x".repeat(PAGE_MAX + 1))).toThrow(RangeError);
    const begin = performance.now();
    readTable(`12 Air\n`.repeat(PAGE_MAX / 8));
    expect(performance.now() - begin).toBeLessThan(20_000);
  });
});

describe("what a row's words say", () => {
  it("is proposed: where it holds, no fault, before all others; and nothing is added", () => {
    expect(scopeIn("Air meter, from 1990 on", engines)).toEqual({ years: [1990, 2035] });
    expect(scopeIn("1988 to 1990 models: cam sensor", engines)).toEqual({ years: [1988, 1990] });
    expect(scopeIn("Cam sensor, before 1990", engines)).toEqual({ years: [1950, 1989] });
    expect(scopeIn("Knock sensor (2.8 V6 only)", engines)).toEqual({ engines: ["2.8 V6"] });
    expect(scopeIn("only with the 2.3", engines)).toEqual({ engines: ["2.3"] });
    expect(scopeIn("Speed above 1900 1/min, 2.3 bar", engines)).toBeNull();
    const [end, first, air] = readTable("55\tEnd of list\n12\tFix this first: supply\n14\t<b>Air</b> meter").rows.map(
      (r) => entryOf(r, engines),
    );
    expect(end.kind).toBe("status");
    expect(first.first).toBeTruthy();
    expect(air).toEqual({
      code: "14",
      kind: "fault",
      circuit: "‹b>Air‹/b> meter",
      title: "‹b>Air‹/b> meter",
      lookFirst: [],
    });
    expect(withoutDoubles([air, air, end])).toHaveLength(2);
  });
});
