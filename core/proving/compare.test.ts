import { describe, expect, it } from "vitest";
import { compareReadings, verdictSentence, type AfterClear, type RunSince } from "./compare";

const after = (run: RunSince, codes: string[], complete = true): AfterClear => ({ run, codes, complete });
const kinds = (before: string[], list: AfterClear[]) =>
  Object.fromEntries(compareReadings({ codes: before, complete: true }, list).map((r) => [r.code, r.persistence]));
const said = (before: string[], list: AfterClear[]) =>
  verdictSentence(compareReadings({ codes: before, complete: true }, list), list.length);

describe("compareReadings", () => {
  it("classifies by what returned and when", () => {
    expect(kinds(["26", "43", "51"], [after("key-on", ["43"]), after("drive", ["26", "43", "17"])])).toEqual({
      "26": "intermittent",
      "43": "hard",
      "51": "history",
      "17": "new",
    });
  });

  it("calls nothing history without a drive, or on a list that was not seen whole", () => {
    expect(kinds(["26"], [after("idle", [])])).toEqual({ "26": "quiet" });
    expect(kinds(["26"], [after("drive", [], false)])).toEqual({ "26": "quiet" });
    expect(compareReadings({ codes: ["26"], complete: true }, [after("drive", [], false)])[0].after).toEqual([null]);
  });
});

describe("verdictSentence", () => {
  it("says in a sentence where the repair stands", () => {
    expect(said(["26"], [])).toMatch(/read the lamp again/);
    expect(said(["26"], [after("key-on", ["26"])])).toBe(
      "26 came back at once: a hard fault that is there now. Not fixed.",
    );
    expect(said(["26", "43"], [after("drive", ["26"])])).toBe(
      "26 came back on the road: intermittent; 43 stayed away over a drive: history. Not fixed.",
    );
    expect(said(["26"], [after("key-on", [])])).toMatch(/Not proven/);
    expect(said(["26", "43"], [after("drive", [])])).toBe(
      "26 and 43 stayed away over a drive: history. Fixed, as far as this drive can show.",
    );
    expect(said([], [after("key-on", [])])).toMatch(/nothing to prove/);
  });
});
