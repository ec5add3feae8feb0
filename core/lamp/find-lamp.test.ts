import { describe, expect, it } from "vitest";
import { encode } from "../flash/dialect/encode";
import { dialect } from "../testing/dialects";
import { drawFilm, type DrawnLamp } from "../testing/pictures";
import { Eye } from "./eye";
import type { Found } from "./find-lamp";
import { boxOf } from "./patch";

const even = dialect("even-when-clear");
const lamp = (codes: string[], x: number, y: number, ms = 60_000): DrawnLamp => ({
  x,
  y,
  edges: encode(even, { stored: codes }, ms),
});

/** Goes through a search at once; `between` is done after each step. */
function whole(search: Generator<void, Found[]>, between: () => void = () => undefined): Found[] {
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
    between();
  }
}

const lampAt = (eye: Eye, found: readonly Found[], x: number, y: number): Found | undefined =>
  found.find((f) => {
    const box = boxOf(f, eye.raster);
    return Math.hypot(box.x + box.w / 2 - x, box.y + box.h / 2 - y) < 0.06;
  });

describe("searchLamps", () => {
  it("finds the same whether pictures come in between or not, also where the ring of pictures is full", () => {
    // Sixty a second: half a minute fills all that is held, and what is searched begins with the oldest.
    const pictures = drawFilm([lamp(["24"], 0.5, 0.55)], 34, 3, { noise: 3, shake: 1 }, 60);
    const [eye, other] = [new Eye(320, 180), new Eye(320, 180)];
    for (const picture of pictures) {
      eye.see(picture);
      other.see(picture);
      if (picture.t > 33_000) break;
    }
    const still = whole(eye.search());
    let steps = 0;
    const moved = whole(other.search(), () => {
      steps++;
      const next = pictures.next();
      if (!next.done) other.see(next.value);
    });
    expect(steps).toBeGreaterThan(5);
    expect(still.length).toBeGreaterThan(0);
    expect(moved).toEqual(still);
    expect(lampAt(eye, still, 0.5, 0.55)).toBeDefined();
  });

  it("finds the lamp beside a needle that sweeps, wherever in the picture it is; the red one that stays lit it does not", () => {
    for (const [seed, x, y] of [
      [1, 0.12, 0.85],
      [2, 0.5, 0.45],
      [3, 0.88, 0.15],
    ]) {
      const eye = new Eye(320, 180);
      for (const picture of drawFilm([lamp(["31"], x, y)], 20, seed, { noise: 3, shake: 1 })) eye.see(picture);
      const found = whole(eye.search());
      expect(lampAt(eye, found, x, y)?.score).toBeGreaterThan(2);
      expect(lampAt(eye, found, 158 / 320, 27 / 180)).toBeUndefined();
    }
  });

  it("tells the states at which the lamp was lit, and how many changes there were", () => {
    const eye = new Eye(320, 180);
    const own = lamp(["24"], 0.5, 0.5);
    for (const picture of drawFilm([own], 20, 7, { noise: 3 })) eye.see(picture);
    const found = lampAt(eye, whole(eye.search()), 0.5, 0.5)!;
    const stateAt = (t: number) => own.edges.findLast(([at]) => at <= t)?.[1] ?? 0;
    // A bulb takes its time: near a change either is right.
    const clear = found.t.filter((t) => own.edges.every(([at]) => Math.abs(at - t) > 120));
    const wrong = clear.filter((t) => found.lit[found.t.indexOf(t)] !== stateAt(t));
    expect(wrong).toEqual([]);
    const within = own.edges.filter(([t]) => t > 100 && t < 19_900).length;
    expect(Math.abs(found.changes - within)).toBeLessThanOrEqual(2);
  });

  it("finds nothing in less than was looked at, or where nothing changes", () => {
    const eye = new Eye(320, 180);
    expect(whole(eye.search())).toEqual([]);
    const [picture] = drawFilm([], 0.04, 1);
    for (let k = 0; k < 300; k++) eye.see({ ...picture, t: k * 33 });
    expect(whole(eye.search())).toEqual([]);
  });
});
