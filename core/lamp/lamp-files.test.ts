import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { patchOf, boxOf, turned } from "./patch";
import { pictureOfRgba, rasterOf } from "./picture";
import { writeVcd } from "./vcd";
import type { Trace } from "./trace";

const share = fc.double({ min: 0, max: 0.9, noNaN: true });
const box = fc.record({
  x: share,
  y: share,
  w: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
  h: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
});

describe("patches", () => {
  it("four quarter turns bring a box back, and a turn back undoes a turn", () => {
    fc.assert(
      fc.property(box, fc.constantFrom(90, 180, 270), (b, turn) => {
        const back = turned(turned(b, turn), (360 - turn) as 90);
        for (const k of ["x", "y", "w", "h"] as const) expect(back[k]).toBeCloseTo(b[k], 9);
      }),
    );
  });

  it("a drawn box becomes the cells under it, within half a cell, in pictures of any size", () => {
    fc.assert(
      fc.property(box, fc.integer({ min: 160, max: 4000 }), fc.integer({ min: 120, max: 3000 }), (b, w, h) => {
        const raster = rasterOf(w, h);
        const patch = patchOf(b, raster);
        const [cw, ch] = [6 / raster.width, 6 / raster.height];
        const out = boxOf(patch, raster);
        expect(Math.abs(out.x - b.x)).toBeLessThanOrEqual(cw);
        expect(Math.abs(out.y + out.h - b.y - b.h)).toBeLessThanOrEqual(1.51 * ch);
        expect(patch.cells.every((c) => c >= 0 && c < raster.across * raster.down)).toBe(true);
        // Whole steps: the raster is about 640 wide, never twice that.
        expect(Math.max(raster.width, raster.height)).toBeLessThan(960);
      }),
    );
  });

  it("amber has less blue and more red than grey, in either order of bytes", () => {
    const amber = new Uint8Array(16).map((_, i) => [255, 176, 31, 255][i % 4]);
    const p = pictureOfRgba(0, 2, 2, amber);
    expect([p.y[0], p.u[0] < 90, p.v[0] > 150]).toEqual([183, true, true]);
    const swapped = amber.map((_, i) => [31, 176, 255, 255][i % 4]);
    expect(pictureOfRgba(0, 2, 2, swapped, "bgra")).toEqual(p);
  });
});

describe("writeVcd", () => {
  const traceOf = (gaps: number[]): Trace => {
    let t = 0;
    const edges = gaps.map((gap, i) => [(t += gap), (i % 2) as 0 | 1] as [number, 0 | 1]);
    return { edges: [[0, 1], ...edges], until: t + 500 };
  };
  it("writes both signals in one order of time, and they can be read back", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 4000 }), { maxLength: 30 }),
        fc.array(fc.integer({ min: 1, max: 4000 }), { maxLength: 30 }),
        (a, b) => {
          const signals = [
            { name: "CHECK ENGINE", trace: traceOf(a) },
            { name: "ABS!", trace: traceOf(b) },
          ];
          const text = writeVcd(signals, "2026-01-01");
          expect(text).toContain("$var wire 1 ! CHECK_ENGINE $end");
          const back: Record<string, [number, number][]> = { "!": [], '"': [] };
          let at = -1;
          for (const line of text.split("$enddefinitions $end\n")[1].trim().split("\n")) {
            if (line.startsWith("#")) {
              expect(Number(line.slice(1))).toBeGreaterThan(at);
              at = Number(line.slice(1));
            } else back[line.slice(1)].push([at, Number(line[0])]);
          }
          expect(back["!"]).toEqual(signals[0].trace.edges);
          expect(back['"']).toEqual(signals[1].trace.edges);
          expect(at).toBe(Math.max(...signals.map((s) => s.trace.until)));
        },
      ),
    );
  });
});
