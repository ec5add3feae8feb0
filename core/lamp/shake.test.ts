import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { normal, seeded } from "../flash/dialect/encode";
import { emptyCells, gather, gatherCell, rasterOf, type Picture } from "./picture";
import { follow, follower, profileOf } from "./shake";

const W = 320;
const H = 180;

/** A wall of tiles that is seen shifted, brighter or darker, with noise; without tiles it is plain. */
function wall(dx: number, dy: number, gain: number, noise: number, seed: number, tiles = true): Picture {
  const random = seeded(seed);
  const y = new Uint8Array(W * H);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const [a, b] = [Math.floor((i - dx + 500) / 23), Math.floor((j - dy + 500) / 19)];
      const value = tiles ? 60 + ((a * 37) % 50) + ((b * 29) % 40) : 70;
      y[j * W + i] = Math.min(255, Math.max(0, value * gain + noise * normal(random)));
    }
  const chroma = new Uint8Array((W * H) / 4).fill(128);
  return { t: 0, width: W, height: H, y, yStride: W, u: chroma, v: chroma, cStride: W / 2, cStep: 1 };
}

const raster = rasterOf(W, H);
const near = fc.integer({ min: -12, max: 12 });

describe("follow", () => {
  it("finds where a trembling camera looks, whatever the exposure, and keeps the place of what it saw first", () => {
    fc.assert(
      fc.property(
        near,
        near,
        fc.double({ min: 0.75, max: 1.3, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (dx, dy, gain, noise) => {
          let state = follower(profileOf(wall(0, 0, 1, noise, 1), raster));
          // A hand does not jump: it comes by steps.
          for (const share of [0.5, 1]) {
            const [x, y] = [Math.round(dx * share), Math.round(dy * share)];
            state = follow(state, profileOf(wall(x, y, gain, noise, 2), raster));
          }
          expect([state.last.dx, state.last.dy, state.lost]).toEqual([dx, dy, 0]);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("takes a camera that sees nothing to stand still, and one that sees something else to be lost", () => {
    let state = follower(profileOf(wall(4, 0, 1, 0, 1), raster));
    state = follow(state, profileOf(wall(0, 0, 1, 0, 1, false), raster));
    expect([state.last.dx, state.last.dy, state.lost]).toEqual([0, 0, 0]);
    const other = wall(0, 0, 1, 0, 1);
    for (let k = 0; k < other.y.length; k++) other.y[k] = (Math.floor((k % W) / 7) * 53) % 200;
    for (let k = 0; k < 3; k++) state = follow(state, profileOf(other, raster));
    expect(state.lost).toBe(3);
  });
});

describe("gather", () => {
  it("gives the same cells wherever the camera has moved", () => {
    const still = gather(wall(0, 0, 1, 0, 1), raster, 0, 0, emptyCells(raster));
    const { across, down } = raster;
    fc.assert(
      fc.property(near, near, (dx, dy) => {
        const moved = wall(dx, dy, 1, 0, 1);
        const all = gather(moved, raster, dx, dy, emptyCells(raster));
        const inner: number[] = [];
        for (let j = 3; j < down - 3; j++) for (let i = 3; i < across - 3; i++) inner.push(j * across + i);
        expect(inner.map((c) => all.y[c])).toEqual(inner.map((c) => still.y[c]));
      }),
      { numRuns: 20 },
    );
  });

  it("gives each cell as if it were gathered alone, in pictures of any size and shift, beyond the edge too", () => {
    const size = fc.integer({ min: 1, max: 1400 });
    fc.assert(
      fc.property(size, size, fc.boolean(), fc.integer({ min: -90, max: 90 }), near, (width, height, apart, dx, dy) => {
        const picture = noise(width, height, apart);
        const own = rasterOf(width, height);
        const all = gather(picture, own, dx, dy, emptyCells(own));
        const one = emptyCells(own);
        for (let c = 0; c < one.y.length; c++) gatherCell(picture, own, dx, dy, c, one);
        expect(one).toEqual(all);
        for (const plane of [all.y, all.u, all.v]) expect(plane.every((x) => x >= 0 && x <= 255)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});

/** A picture of noise, with chroma planes apart or interleaved and lines longer than the picture. */
function noise(width: number, height: number, apart: boolean): Picture {
  const random = seeded(width * 31 + height);
  const plane = (n: number) => new Uint8Array(n).map(() => 256 * random());
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
  const yStride = width + 5;
  const y = plane(yStride * height);
  if (apart) return { t: 0, width, height, y, yStride, u: plane(cw * ch), v: plane(cw * ch), cStride: cw, cStep: 1 };
  const uv = plane(2 * cw * ch);
  return { t: 0, width, height, y, yStride, u: uv, v: uv.subarray(1), cStride: 2 * cw, cStep: 2 };
}
