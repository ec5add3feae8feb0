import fc from "fast-check";
import { expect, it } from "vitest";
import { buyingResult, NOTHING_SEEN, SIGNS, type Buying } from "./buying";

const any: fc.Arbitrary<Buying> = fc.record({
  vehicle: fc.constant("SM 1"),
  keyOn: fc.constantFrom("lit", "dark", "not-looked"),
  running: fc.constantFrom("out", "on", "flashes", "not-looked"),
  codes: fc.constantFrom("none", "some", "not-read", "not-looked"),
  list: fc.constantFrom("", "14, 35", "no idea"),
  readiness: fc.constantFrom("complete", "not-complete", "unknown", "not-looked"),
  signs: fc.subarray([...SIGNS]),
  minutes: fc.constantFrom("", "0", "4", "12,5", "20", "long", "99999"),
  cameOn: fc.constantFrom("yes", "no", ""),
});

it("claims no more than was seen, whatever was seen", () => {
  fc.assert(
    fc.property(any, (b) => {
      const { is, headline, seen, unseen, ask } = buyingResult(b);
      const all = [headline, ...seen].join(" ");
      if (b.codes !== "none") expect(all).not.toMatch(/No code was shown/);
      if (is === "quiet") {
        expect([b.codes, b.keyOn, b.signs, b.readiness === "not-complete"]).toEqual(["none", b.keyOn, [], false]);
        expect(b.keyOn).not.toBe("dark");
        expect(["on", "flashes"]).not.toContain(b.running);
      }
      if (b.signs.length || b.readiness === "not-complete")
        expect(is === "against" || /wiped/.test(headline)).toBe(true);
      if (b.codes === "not-read" || b.codes === "not-looked") expect(unseen).toContain("what is stored");
      expect(all).not.toMatch(/nothing (is )?stored|fixed|no fault|good vehicle/i);
      for (const line of [headline, ...seen, ...ask]) expect(line).toMatch(/^[A-Z].*[.?]$/);
    }),
    { numRuns: 3000 },
  );
});

it("says what was found, what is open and what to ask", () => {
  expect(buyingResult(NOTHING_SEEN)).toMatchObject({ is: "nothing", seen: [] });
  const quiet: Buying = {
    ...NOTHING_SEEN,
    keyOn: "lit",
    running: "out",
    codes: "none",
    readiness: "complete",
    minutes: "20",
    cameOn: "no",
  };
  expect(buyingResult(quiet)).toMatchObject({
    is: "quiet",
    headline: "Nothing was found where you looked.",
    unseen: [],
  });
  expect(buyingResult({ ...quiet, readiness: "not-complete" })).toMatchObject({
    is: "open",
    headline: "Quiet, and perhaps only since it was wiped.",
  });
  expect(buyingResult({ ...quiet, keyOn: "dark" }).headline).toMatch(/^The lamp cannot tell/);
  expect(buyingResult({ ...quiet, codes: "some", list: "14 and 35" }).ask[0]).toBe(
    "What was done about 14 and 35? Ask for the bills.",
  );
  // A drive that was not made, or cannot have been, tells nothing; a comma is one.
  for (const minutes of ["", "0", "long", "99999"]) {
    const none = buyingResult({ ...quiet, minutes, cameOn: "yes" });
    expect([none.is, none.unseen]).toEqual(["quiet", ["a drive of 15 minutes"]]);
  }
  expect(buyingResult({ ...quiet, minutes: "12,5" }).seen.at(-1)).toBe(
    "Driven for 12.5 minutes, and the lamp stayed out.",
  );
});
