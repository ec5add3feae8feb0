import { describe, expect, it } from "vitest";
import { playJob, type Outcome } from "@core/cases/job/play";
import { PACKS } from "./index";

/** Whole jobs by a made-up person, careful and slipping in turn, over all packs; `npm run bench:jobs` plays thousands of them. */
const JOBS = 100;
const SEED = 20_261_126;

/** Inputs in which a person copies characters. */
const COPIED = new Set(["text", "modules"]);

describe("over made-up jobs", () => {
  const played: Outcome[] = [];
  it("nothing false is said with certainty, and no job gets stuck", () => {
    for (let i = 0; i < JOBS; i++) {
      const o = playJob(PACKS[Math.floor(i / 2) % PACKS.length], i % 2 ? "slipping" : "careful", SEED + i);
      played.push(o);
      const wrong = o.checked.filter((c) => !c.right && c.sure === "certain");
      expect([i, o.pack, o.slips, wrong.map((c) => c.text), o.stuck]).toEqual([i, o.pack, o.slips, [], null]);
    }
  }, 300_000);

  it.each([
    ["careful", 0.99],
    ["slipping", 0.95],
  ] as const)("the right answer is reached with a %s person, so silence is no way out", (kind, goal) => {
    const all = played.filter((o) => o.kind === kind).flatMap((o) => o.reached);
    expect(all.filter((r) => r.right).length / all.length).toBeGreaterThanOrEqual(goal);
    // What is copied off a display by eye is likely at most, however often: silence is looked for in all else.
    const said = played
      .filter((o) => o.kind === kind)
      .flatMap((o) => o.checked)
      .filter((c) => !COPIED.has(c.input));
    expect(said.filter((c) => c.sure === "certain").length).toBeGreaterThan(said.length / 4);
  });
});
