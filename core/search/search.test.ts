import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newJob } from "../record/job";
import type { Job, Vehicle } from "../record/types";
import { newVehicle } from "../record/vehicle";
import { alike } from "./alike";
import { marked, search, searchableOf } from "./search";

const at = (day: number) => new Date(Date.UTC(2026, 0, day)).toISOString();
const vehicle = (plate: string, changes: Vehicle["changes"] = []): Vehicle => ({
  ...newVehicle(
    { id: plate, plate, pack: "p", variant: "v", year: 1991, engine: "2.3", market: "home" },
    "2026-01-01T00:00:00.000Z",
  ),
  changes,
});
const job = (v: Vehicle, id: string, lines: readonly string[], day = 5): Job => ({
  ...newJob(v, "engine", id, at(day)),
  title: "",
  notebook: lines.map((text, i) => ({ at: at(day + i), by: "person", step: "read", text })),
});

const [a, b] = [vehicle("ET 9", [{ text: "Manifold of a later year", codes: ["27"] }]), vehicle("SM 41")];
const all = [
  searchableOf(a, "Calverra hatchback", [job(a, "a1", ["Read engine: 14, 43 (certain).", "Müller sealed the hose"])]),
  searchableOf(b, "Norrvik Estate", [job(b, "b1", ["Stumbles in the wet", "Read engine: 4"], 20)]),
];
const texts = (asked: string) => search(all, asked, 50).hits.map((h) => `${h.plate}: ${h.text}`);

describe("searching all that was written", () => {
  it("finds a number whole, a word by any part, whatever its capitals and accents", () => {
    expect(texts("4")).toEqual(["SM 41: Read engine: 4"]);
    expect(texts("14")).toEqual(["ET 9: Read engine: 14, 43 (certain)."]);
    expect(texts("MULLER hos")).toEqual(["ET 9: Müller sealed the hose"]);
    expect(texts("27")).toEqual(["ET 9: Manifold of a later year · 27"]);
    expect(texts("")).toEqual([]);
    expect(texts("nothing of this")).toEqual([]);
  });

  it("takes the vehicle's name for some of the words, and not for all", () => {
    expect(texts("et read")).toEqual(["ET 9: Read engine: 14, 43 (certain)."]);
    expect(texts("norrvik")).toEqual([]);
    // The newest first.
    expect(texts("read engine")).toEqual(["SM 41: Read engine: 4", "ET 9: Read engine: 14, 43 (certain)."]);
    expect(search(all, "e", 1)).toMatchObject({ hits: [{ plate: "SM 41" }], total: 5 });
  });

  it("finds every line by any of its words, and says how many there are", () => {
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[a-z]{1,6}( [a-z]{1,6}){0,4}$/), { minLength: 1 }),
        fc.nat(),
        (lines, pick) => {
          const own = [searchableOf(a, "x", [job(a, "j", lines)])];
          const line = lines[pick % lines.length];
          for (const word of line.split(" ")) {
            const found = search(own, word, 1000);
            expect(found.hits.some((h) => h.text === line)).toBe(true);
            expect(found.hits.length).toBe(found.total);
            for (const hit of found.hits) expect(alike(hit.text)).toContain(word);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("marks where the words stand, and loses no letter", () => {
    expect(marked("Read engine: 14, 4", "engine 4")).toEqual(["Read ", "engine", ": 14, ", "4"]);
    expect(marked("nothing", "x")).toEqual(["nothing"]);
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), fc.string(), (text, asked) => {
        expect(marked(text, asked).join("")).toBe(text);
      }),
    );
  });
});
