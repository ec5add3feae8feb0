import fc from "fast-check";
import { expect, it } from "vitest";
import { clearAdvice, SCHOOLS, type AdviceFacts } from "./advice";

const facts: AdviceFacts = {
  faults: 2,
  whole: true,
  checked: false,
  mended: false,
  inspectionIn: null,
  readiness: "none",
  readyIn: null,
  forSale: false,
  school: "usual",
};
const is = (part: Partial<AdviceFacts>) => clearAdvice({ ...facts, ...part }).is;

it("clears several codes, looks at one first, and takes the school of who asks where it is a matter of taste", () => {
  expect([is({}), is({ faults: 1 }), is({ faults: 1, checked: true }), is({ faults: 1, mended: true })]).toEqual([
    "clear",
    "look",
    "clear",
    "clear",
  ]);
  expect([is({ school: "look-first" }), is({ faults: 1, school: "clear-first" })]).toEqual(["look", "clear"]);
  expect([is({ school: "look-first", checked: true }), is({ faults: 0 }), is({ faults: 0, whole: false })]).toEqual([
    "clear",
    "nothing",
    "look",
  ]);
  expect(clearAdvice({ ...facts, inspectionIn: 3, readiness: "some" }).reason).toMatch(/keeps the monitors/);
  expect(clearAdvice({ ...facts, inspectionIn: 1, readiness: "all" }).reason).toMatch(/the inspection is tomorrow/);
  expect(is({ inspectionIn: 20, readiness: "all" })).toBe("clear");
  expect(clearAdvice({ ...facts, inspectionIn: 20, readiness: "all", readyIn: 33 })).toMatchObject({
    is: "wait",
    reason: expect.stringMatching(/up to 33 days as you drive it/) as string,
  });
  expect([is({ forSale: true }), is({ forSale: true, mended: true }), is({ forSale: true, faults: 0 })]).toEqual([
    "wait",
    "clear",
    "nothing",
  ]);
});

it("never sends anybody to an inspection with empty monitors, nor wipes unseen what was not read", () => {
  const any = fc.record({
    faults: fc.integer({ min: 0, max: 9 }),
    whole: fc.boolean(),
    checked: fc.boolean(),
    mended: fc.boolean(),
    inspectionIn: fc.option(fc.integer({ min: -30, max: 60 })),
    readiness: fc.constantFrom("all", "some", "none" as const),
    readyIn: fc.option(fc.integer({ min: 0, max: 90 })),
    forSale: fc.boolean(),
    school: fc.constantFrom(...SCHOOLS),
  });
  fc.assert(
    fc.property(any, (f) => {
      const advice = clearAdvice(f);
      const soon = f.inspectionIn !== null && f.inspectionIn >= 0 && f.inspectionIn <= (f.readyIn ?? 14);
      const sold = f.forSale && f.faults > 0 && !f.mended;
      if ((f.readiness === "all" && soon) || sold) expect(advice.is).toBe("wait");
      else expect(advice.is).not.toBe("wait");
      if (!f.whole && !f.mended) expect(advice.is).not.toBe("clear");
      for (const text of [advice.headline, advice.reason]) expect(text).toMatch(/^[A-Z0-9].*\.$/);
    }),
    { numRuns: 2000 },
  );
});
