import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { arrive, column, positions, settle } from "./column";
import { expNeg } from "./exp";

describe("expNeg", () => {
  it("is the exponential to a part in 10^11 down to e^-64, and nothing below", () => {
    fc.assert(
      fc.property(fc.double({ min: -64, max: 0, minExcluded: true, noNaN: true }), (x) => {
        expect(Math.abs(expNeg(x) / Math.exp(x) - 1)).toBeLessThan(1e-11);
      }),
      { numRuns: 2000 },
    );
    for (const x of [-64, -1e3, -Infinity, NaN]) expect(expNeg(x)).toBe(0);
  });
});

describe("a column", () => {
  const ways = fc.array(
    fc.record({
      j: fc.nat(7),
      p: fc.double({ min: 1e-9, max: 1, noNaN: true }),
      late: fc.double({ min: -300, max: 300, noNaN: true }),
      variance: fc.double({ min: 1, max: 1e4, noNaN: true }),
    }),
    { minLength: 1, maxLength: 40 },
  );

  it("adds ways up: a position weighs what came to it, its clock has their mean and variance, and nothing of it is left for the next", () => {
    const own = column(8);
    const into = positions(8);
    fc.assert(
      fc.property(ways, (all) => {
        for (const way of all) arrive(own, way.j, way);
        settle(own, into, 0, -3);
        const total = all.reduce((sum, way) => sum + way.p, 0);
        expect(into.scale).toBeCloseTo(Math.log(total) - 3, 9);
        expect(new Set(into.index.subarray(0, into.size))).toEqual(new Set(all.map((way) => way.j)));
        for (let k = 0; k < into.size; k++) {
          const here = all.filter((way) => way.j === into.index[k]);
          const weight = here.reduce((sum, way) => sum + way.p, 0);
          const mean = here.reduce((sum, way) => sum + way.p * way.late, 0) / weight;
          const square = here.reduce((sum, way) => sum + way.p * (way.variance + (way.late - mean) ** 2), 0) / weight;
          expect(into.weight[k]).toBeCloseTo(weight / total, 9);
          expect(into.late[k]).toBeCloseTo(mean, 6);
          expect(into.variance[k] / square).toBeCloseTo(1, 6);
        }
        expect([own.size, own.max, ...own.weight, ...own.lateSum, ...own.squareSum].every((x) => x === 0)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it("drops what is too far behind the best, and says that nothing is alive where nothing came", () => {
    const own = column(8);
    const into = positions(8);
    arrive(own, 3, { p: 1e-4, late: 0, variance: 1 });
    arrive(own, 5, { p: 1, late: 0, variance: 1 });
    settle(own, into, 1e-3, 0);
    expect([...into.index.subarray(0, into.size)]).toEqual([5]);
    settle(own, into, 1e-3, 0);
    expect([into.size, into.scale]).toEqual([0, -Infinity]);
  });
});
