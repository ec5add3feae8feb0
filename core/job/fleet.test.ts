import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DUE_DAYS, inOrder, isDue, isShown, ORDERS, SHOWN } from "./fleet";

const day = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 86_400_000).toISOString().slice(0, 10);
const row = fc
  .record({
    plate: fc.string({ minLength: 1, maxLength: 5 }),
    inspection: fc.option(fc.integer({ min: 0, max: 700 }).map(day), { nil: undefined }),
    archivedAt: fc.option(fc.constant("2026-02-03T04:05:06.000Z"), { nil: undefined }),
    open: fc.integer({ min: 0, max: 2 }),
    touched: fc.integer({ min: 0, max: 700 }).map((n) => `${day(n)}T00:00:00.000Z`),
  })
  .map(({ open, touched, ...vehicle }) => ({ vehicle, face: { open: Array(open).fill({}) as never[], touched } }));

describe("the rows of a garage", () => {
  it("an archived vehicle is in the archive alone, any other one in the garage and never there", () => {
    fc.assert(
      fc.property(row, fc.integer({ min: 0, max: 700 }).map(day), (r, today) => {
        const where = SHOWN.filter((s) => isShown(r, s, today));
        expect(where.includes("archived")).toBe(r.vehicle.archivedAt !== undefined);
        expect(where.includes("here")).toBe(r.vehicle.archivedAt === undefined);
        if (r.vehicle.archivedAt) expect(where).toEqual(["archived"]);
        else expect(where.includes("open")).toBe(r.face.open.length > 0);
      }),
    );
  });

  it("an inspection is due so many days before its day, and after it", () => {
    expect(isDue({ plate: "A", inspection: day(100) }, day(100 - DUE_DAYS))).toBe(true);
    expect(isDue({ plate: "A", inspection: day(100) }, day(99 - DUE_DAYS))).toBe(false);
    expect(isDue({ plate: "A", inspection: day(100) }, day(400))).toBe(true);
    expect(isDue({ plate: "A" }, day(400))).toBe(false);
  });

  it("no order loses a row, and each is what it says", () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 20 }), (rows) => {
        for (const order of ORDERS) {
          const sorted = inOrder(rows, order);
          expect(new Set(sorted)).toEqual(new Set(rows));
          for (let i = 1; i < sorted.length; i++) {
            const [a, b] = [sorted[i - 1], sorted[i]];
            if (order === "touched") expect(a.face.touched >= b.face.touched).toBe(true);
            if (order === "due" && b.vehicle.inspection)
              expect(a.vehicle.inspection && a.vehicle.inspection <= b.vehicle.inspection).toBeTruthy();
          }
        }
      }),
    );
    const plates = ["ET 70", "ET 9", "SM 1"].map((plate) => ({ vehicle: { plate }, face: { open: [], touched: "" } }));
    expect(inOrder(plates, "plate").map((r) => r.vehicle.plate)).toEqual(["ET 9", "ET 70", "SM 1"]);
  });
});
