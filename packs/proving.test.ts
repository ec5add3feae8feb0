import { describe, expect, it } from "vitest";
import { conditionsOf, leadOf, partsIn, testsOf } from "@core/proving/tests";
import { EMPTY_STORY } from "@core/record/job";
import { list, Made, none } from "./testing/made-job";

const cleared = () => new Made("norrvik").read(1, "engine", list(["14", "27", "53"])).clear(10);
const proofOf = (m: Made) => m.rows();

describe("what brings a fault back", () => {
  it("is told in the order of what it takes, with what was done, the story's conditions, and a caution at each that needs one", () => {
    const story = { ...EMPTY_STORY, engine: "warm" as const, speed: "country" as const, weather: ["Wet"] };
    const m = cleared();
    const tests = testsOf(proofOf(m), story, m.c.pack, ["the plug"]);
    expect(tests.map((t) => [t.id, t.done])).toEqual([
      ["key-on", false],
      ["idle", false],
      ["wiggle", false],
      ["drive", false],
    ]);
    expect(tests.filter((t) => t.id !== "key-on").every((t) => t.caution)).toBe(true);
    expect(tests.at(-1)!.how[0]).toBe("It came on with the engine warm, on the road, in the wet: drive it like that.");
    expect(conditionsOf(EMPTY_STORY)).toBe("");
    m.read(12, "engine", none(), { run: "key-on" }).read(20, "engine", none(), { run: "idle" });
    expect(testsOf(proofOf(m), story, m.c.pack, []).map((t) => t.done)).toEqual([true, true, false, false]);
    // Nothing was stored, or nothing was wiped: there is nothing to bring back.
    expect(testsOf(proofOf(new Made("norrvik").read(1, "engine", list(["14"]))), story, m.c.pack, [])).toEqual([]);
    expect(testsOf(proofOf(new Made("norrvik").read(1, "engine", none()).clear(9)), story, m.c.pack, [])).toEqual([]);
    expect(partsIn(proofOf(m), (code) => ({ "14": "Engine coolant temperature (ECT) circuit" })[code])).toEqual([
      "the engine coolant temperature (ECT)",
    ]);
  });

  it("names as the lead what came back while the others stayed away, and nothing else", () => {
    const back = (codes: string[], more = {}) => cleared().read(12, "engine", list(codes), { run: "key-on", ...more });
    expect(leadOf(proofOf(cleared()))).toEqual([]);
    expect(leadOf(proofOf(back(["27"])))).toEqual(["27"]);
    // All of them are there again: nothing tells one from another, nor whether the clear took.
    expect(leadOf(proofOf(back(["14", "27", "53"])))).toEqual([]);
    // A code that was not there before is news, not what was looked for.
    expect(leadOf(proofOf(back(["22"])))).toEqual([]);
    // It stays the lead when the others follow.
    expect(leadOf(proofOf(back(["27"]).read(40, "engine", list(["14", "27", "53"]), { run: "drive" })))).toEqual([
      "27",
    ]);
    // Of a list that was not seen whole nobody knows what stayed away.
    const part = { ...list(["27"]), complete: false };
    part.heard = { ...part.heard!, wholeRound: false, completeness: 0.3 };
    expect(leadOf(proofOf(cleared().read(12, "engine", part, { run: "key-on" })))).toEqual([]);
  });
});
