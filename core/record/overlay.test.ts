import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { encode } from "../flash/dialect/encode";
import { dialect } from "../testing/dialects";
import { overlay } from "./overlay";
import type { Mark } from "./types";

const edges = encode(dialect("lead-in"), { stored: ["26", "43"] }, 120_000);
const first: Mark[] = edges.filter(([t, lit]) => lit && t > 0).map(([t], i) => ({ id: i + 1, t }));

describe("overlay", () => {
  it("finds what one of two people missed, whenever each began and however late each is", () => {
    const n = first.length;
    fc.assert(
      fc.property(
        fc.integer({ min: -60_000, max: 60_000 }),
        fc.uniqueArray(fc.integer({ min: 2, max: n - 3 }), { maxLength: 4 }),
        fc.array(fc.integer({ min: -90, max: 90 }), { minLength: n, maxLength: n }),
        (begun, missed, late) => {
          const second = first
            .filter((_, i) => !missed.includes(i))
            .map((m, i) => ({ id: 1000 + m.id, t: m.t + begun + late[i] }));
          const found = overlay(first, second)!;
          expect(Math.abs(found.offset + begun)).toBeLessThan(120);
          expect(found.onlyFirst).toEqual(missed.map((i) => first[i].id).sort((a, b) => a - b));
          expect(found.onlySecond).toEqual([]);
          expect(found.same.every(([a, b]) => b === 1000 + a)).toBe(true);
        },
      ),
    );
  });

  it("does not bring together what is another show", () => {
    const other = first.map((m, i) => ({ id: i + 1, t: i * 7919 }));
    expect(overlay(first, other)).toBeNull();
    expect(overlay(first, [])).toBeNull();
  });
});
