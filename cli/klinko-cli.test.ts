import { spawnSync } from "node:child_process";
import { describe, expect, it } from "vitest";

const klinko = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["dist/cli/klinko.js", ...args], {
    encoding: "utf8",
  });
  return { status, out: stdout, err: stderr };
};

describe("the command line tool", () => {
  it("says in a line what is wrong with what it was given, and never a stack", () => {
    const wrong = [
      ["bogus"],
      ["taps", "--pack", "nope", "--codes", "26"],
      ["decode", "--dialects", "nowhere.json", "--cases", "nowhere.jsonl"],
      ["decode"],
      ["bench", "--dir", "nowhere"],
      ["jobs", "--n", "many"],
      ["pack", "check", "nowhere.json"],
      ["pack", "check"],
    ];
    for (const args of wrong) {
      const { status, err, out } = klinko(...args);
      expect([args, status]).toEqual([args, 2]);
      expect(`${err}${out}`).not.toMatch(/^\s+at |node:internal/m);
      if (args[0] !== "bogus") expect(err.trim().split("\n")).toHaveLength(1);
    }
  });

  it("checks a pack, taps a list and decodes it again", () => {
    expect(klinko("pack", "check", "packs/norrvik.json")).toMatchObject({ status: 0 });
    expect(JSON.parse(klinko("pack", "schema").out)).toMatchObject({ title: "Klinko pack, version 1" });
    const taps = JSON.parse(
      klinko("taps", "--pack", "norrvik", "--codes", "26,43", "--until", "60000").out,
    ) as number[];
    expect(taps.length).toBeGreaterThan(30);
    expect(taps).toEqual([...taps].sort((a, b) => a - b));
  });
});
