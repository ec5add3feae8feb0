import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { normal, seeded } from "../flash/encode";
import { emptyCells, gather, gatherSome, samplingOf, type Picture } from "./picture";
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

const sampling = samplingOf(W, H);
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
          let state = follower(profileOf(wall(0, 0, 1, noise, 1), sampling));
          // A hand does not jump: it comes by steps.
          for (const share of [0.5, 1]) {
            const [x, y] = [Math.round(dx * share), Math.round(dy * share)];
            state = follow(state, profileOf(wall(x, y, gain, noise, 2), sampling));
          }
          expect([state.last.dx, state.last.dy, state.lost]).toEqual([dx, dy, 0]);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("takes a camera that sees nothing to stand still, and one that sees something else to be lost", () => {
    let state = follower(profileOf(wall(4, 0, 1, 0, 1), sampling));
    state = follow(state, profileOf(wall(0, 0, 1, 0, 1, false), sampling));
    expect([state.last.dx, state.last.dy, state.lost]).toEqual([0, 0, 0]);
    const other = wall(0, 0, 1, 0, 1);
    for (let k = 0; k < other.y.length; k++) other.y[k] = (Math.floor((k % W) / 7) * 53) % 200;
    for (let k = 0; k < 3; k++) state = follow(state, profileOf(other, sampling));
    expect(state.lost).toBe(3);
  });
});

describe("gather", () => {
  it("gives the same cells wherever the camera has moved, and some of them alone like all of them", () => {
    const still = gather(wall(0, 0, 1, 0, 1), sampling, 0, 0, emptyCells(sampling.raster));
    const { across, down } = sampling.raster;
    fc.assert(
      fc.property(near, near, (dx, dy) => {
        const moved = wall(dx, dy, 1, 0, 1);
        const all = gather(moved, sampling, dx, dy, emptyCells(sampling.raster));
        const inner: number[] = [];
        for (let j = 3; j < down - 3; j++) for (let i = 3; i < across - 3; i++) inner.push(j * across + i);
        expect(inner.map((c) => all.y[c])).toEqual(inner.map((c) => still.y[c]));
        const some = emptyCells(sampling.raster);
        gatherSome(moved, sampling, dx, dy, inner, some);
        expect(inner.map((c) => some.y[c])).toEqual(inner.map((c) => all.y[c]));
      }),
      { numRuns: 20 },
    );
  });
});
