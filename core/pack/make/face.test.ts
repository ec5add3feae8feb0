import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Connector } from "../pack";
import { checkPack } from "../schema";
import { newPack, withPlug } from "./build";
import { faceFault, faceOf, placeOf, withFace, type Face, type Point } from "./face";
import { laidOut, rowsOf } from "./plug";

const pack = newPack(
  { id: "mine", make: "Harrowgate", model: "Coupe", years: [1986, 1991], engine: "2.0", cylinders: 4 },
  "1",
);
const plug = (rows: string): Connector => laidOut({ ...pack.connectors[0] }, rows);
const square: Point[] = [[0.1, 0.1], [0.9, 0.1], [0.9, 0.9], [0.1, 0.9]]; // prettier-ignore
const at = (x: number, y: number): Point => [x, y];

describe("a plug's face as it is drawn", () => {
  it("becomes a connector that a pack can hold, drawn as it was, no cavity over another, mirrored where it was seen from behind", () => {
    // Corners around a middle, each at its own distance: a shell that never crosses itself.
    const shell = fc.array(fc.double({ min: 0.25, max: 0.48, noNaN: true }), { minLength: 5, maxLength: 20 }).map((r) =>
      r.map((far, i): Point => {
        const a = (2 * Math.PI * i) / r.length;
        return [0.5 + far * Math.cos(a), 0.5 + far * Math.sin(a)];
      }),
    );
    const spot = fc.tuple(fc.double({ min: 0.4, max: 0.6, noNaN: true }), fc.double({ min: 0.4, max: 0.6, noNaN: true })); // prettier-ignore
    fc.assert(
      fc.property(
        shell,
        fc.tuple(spot, spot, spot),
        fc.double({ min: 0.4, max: 2, noNaN: true }),
        fc.boolean(),
        (corners, spots, tall, mirrored) => {
          const face: Face = { corners, places: { A: spots[0], B: spots[1], C: spots[2] } };
          const fault = faceFault(face, ["A", "B", "C"], tall);
          if (fault) {
            expect(fault).toMatch(/nearly on one another|outside the shell/);
            return;
          }
          const made = withFace(plug("A B C"), face, tall, "odd", mirrored);
          const whole = checkPack(withPlug(pack, made));
          expect("faults" in whole ? whole.faults : []).toEqual([]);
          const [a, b, c] = made.cavities.map((x) => x.at);
          for (const [p, q] of [[a, b], [b, c], [a, c]]) expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeGreaterThan(59); // prettier-ignore
          // Drawn on once more it is the same face, whatever its scale.
          const again = withFace(made, faceOf(made, tall), tall, "odd");
          for (const [i, { at }] of again.cavities.entries())
            for (const k of [0, 1] as const)
              expect(at[k] / again.size[k]).toBeCloseTo(made.cavities[i].at[k] / made.size[k], 1);
          const right = Math.sign(spots[0][0] - spots[1][0]) * (mirrored ? -1 : 1);
          if (Math.abs(a[0] - b[0]) > 2) expect(Math.sign(a[0] - b[0])).toBe(right);
        },
      ),
    );
  });

  it("says what keeps it from being taken over", () => {
    const fault = (face: Partial<Face>, names = ["A", "B"]) =>
      faceFault({ corners: square, places: { A: at(0.3, 0.5), B: at(0.7, 0.5) }, ...face }, names, 0.6);
    expect(fault({})).toBeNull();
    expect(fault({ corners: square.slice(2) })).toMatch(/three at least/);
    expect(fault({ corners: [square[0], square[2], square[1], square[3]] })).toMatch(/cross/);
    expect(fault({ places: { A: at(0.3, 0.5) } })).toBe("Not placed yet: B.");
    expect(fault({ places: { A: at(0.3, 0.5), B: at(0.95, 0.5) } })).toBe("B lies outside the shell.");
    expect(fault({ places: { A: at(0.5, 0.5), B: at(0.501, 0.5) } })).toMatch(/nearly on one another/);
  });

  it("grows a corner at the edge that was touched", () => {
    expect(placeOf([0.5, 0.05], square)).toBe(1);
    expect(placeOf([0.05, 0.5], square)).toBe(4);
    expect(placeOf([0.5, 0.5], square.slice(0, 2))).toBe(2);
  });

  it("keeps its places under other names, and lists them row by row", () => {
    const places = { A: at(0.2, 0.3), B: at(0.5, 0.31), C: at(0.35, 0.7) };
    const made = withFace(plug("A B C"), { corners: square, places }, 0.6, "odd");
    expect(rowsOf(made)).toBe("A B\nC");
    const named = laidOut(made, "1 2\n3");
    expect(named.cavities.map((c) => c.at)).toEqual(made.cavities.map((c) => c.at));
    expect([rowsOf(named), named.outline]).toEqual(["1 2\n3", made.outline]);
    expect(laidOut(made, "1 2 3\n4").outline).toBeUndefined();
  });
});
