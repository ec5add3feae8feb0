import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dialect } from "../../testing/dialects";
import { watch } from "../../testing/person";
import { decode } from "../decode";
import { memoriesOf, type Faults } from "../dialect/dialect";
import { possibleFaults } from "../dialect/digits";
import { encode } from "../dialect/encode";
import { nothingMore, openQuestions } from "./settle";
import { ordered } from "../dialect/show";

describe("openQuestions", () => {
  it("goes from the list that has not come round to nothing left to ask", () => {
    const d = dialect("long-short");
    const kinds = (until: number) =>
      openQuestions(decode(d, { mode: "edges", edges: encode(d, { stored: ["12", "23"] }, until), until })).map(
        (q) => q.kind,
      );
    expect(kinds(14_000)[0]).toBe("not-round");
    expect(kinds(28_000)).toContain("once");
    expect(kinds(70_000)).toEqual([]);
  });
});

describe("a watch that ends in the middle of a showing", () => {
  it("takes a code that begins as the lead-in does for the lead-in only once it is over", () => {
    const d = dialect("lead-in");
    // A lamp test, three lead-ins of 13 by camera, and then a long one, three short ones, and nothing more so far.
    const on = [1777, 5307, 6908, 7670, 8495, 12016, 13581, 14357, 15167, 18591, 20118, 20900, 21687, 25160, 26758, 27553, 28328]; // prettier-ignore
    const edges = on.flatMap((t, i) => [[t, 1] as const, [t + (i ? 390 : 471), 0] as const]);
    const at = (until: number) =>
      decode(d, { mode: "edges", edges: [[0, 0], ...edges], until }, { table: ["14", "15", "17", "21", "26", "43"] });
    for (let until = 28_720; until < 29_110; until += 65) {
      const read = at(until);
      expect(read.complete, `until ${until}`).toBe(false);
      expect(read.confidence, `until ${until}`).toBeLessThan(0.9);
    }
    expect(at(29_800)).toMatchObject({ state: "none", complete: true });
  });
});

describe("nothingMore", () => {
  it("does not count a code of both memories as seen twice before each has shown it twice", () => {
    // The stored list goes on with a code that begins alike, after the live list was shown two times.
    const d = dialect("key-on-three");
    const faults = { live: ["231"], stored: ["231", "233"] };
    const ended = Array.from({ length: 32 }, (_, i) => 48_000 + i * 2000).flatMap((until) => {
      const read = decode(d, watch(d, faults, "taps", { seed: 5, until }));
      return nothingMore(read) ? [{ until, codes: read.codes.join(" "), over: read.over }] : [];
    });
    expect(ended.length).toBeGreaterThan(5);
    expect(ended.every((e) => e.codes === "231 233" && e.over && e.until > 84_000)).toBe(true);
  });

  it.each([
    ["lead-in", 200_000],
    ["long-short", 100_000],
    ["even-when-clear", 120_000],
    ["cycle-lamp", 100_000],
    ["end-mark", 70_000],
    ["running-two", 160_000],
    ["key-on-three", 160_000],
  ])(
    "never ends the watch of %s on another list than is stored, and does end it",
    (id, long) => {
      const d = dialect(id);
      const some = fc.uniqueArray(fc.constantFrom(...possibleFaults(d)), { maxLength: 2 });
      let ended = 0;
      const cases = { numRuns: id === "key-on-three" ? 2 : 5, seed: 20 };
      fc.assert(
        fc.property(some, some, fc.integer(), fc.constantFrom("taps", "holds"), (one, other, seed, mode) => {
          const [first, second] = memoriesOf(d);
          const faults: Faults = { [first]: one, ...(second && { [second]: other }) };
          const truth = new Set([first, second].flatMap((m) => (m ? ordered(d, faults[m] ?? []) : [])));
          for (let until = 10_000; until <= long; until += 10_000) {
            const read = decode(d, watch(d, faults, mode, { seed, jitter: 0.03, until }));
            if (!nothingMore(read)) continue;
            expect({ until, codes: read.codes }).toEqual({ until, codes: [...truth] });
            ended++;
            return;
          }
        }),
        cases,
      );
      expect(ended).toBeGreaterThanOrEqual(cases.numRuns / 2);
    },
    120_000,
  );
});
