import { expect, it } from "vitest";
import { normal, seeded } from "../flash/dialect/encode";
import { blinksSeen } from "./blinks";

/** A lamp at 30 pictures a second, dark in these stretches, in a light that wanders. */
function filmed(
  dark: readonly (readonly [number, number])[],
  { noise = 4, seed = 1, gap = [0, 0], contrast = 90 } = {},
) {
  const random = seeded(seed);
  const levels = { t: [] as number[], y: [] as number[] };
  let light = 40;
  for (let t = 0; t < 34_000; t += 33) {
    light += 0.4 * normal(random);
    if (t > gap[0] && t < gap[1]) continue;
    const lit = !dark.some(([a, b]) => t >= a && t < b);
    levels.t.push(t);
    levels.y.push(light + (lit ? contrast : 0) + noise * normal(random));
  }
  return levels;
}
const blinks = (n: number, ms: number): [number, number][] =>
  Array.from({ length: n }, (_, i) => [21_000 + 2 * ms * i, 21_000 + 2 * ms * i + ms]);

it("counts the blinks of a lamp at any pace, none of a lamp that stays lit or goes out, and tells what it had no picture of", () => {
  for (let seed = 1; seed <= 12; seed++) {
    for (const ms of [250, 500, 800]) {
      const { flashes, unseen } = blinksSeen(filmed(blinks(7, ms), { seed }), 0, 33_900);
      expect(flashes.map((t, i) => Math.abs(t - blinks(7, ms)[i][0]) < 150)).toEqual(Array(7).fill(true));
      expect(unseen).toEqual([]);
    }
    // It lights as the key goes on, and stays so: a blink would have shown.
    const lit = filmed([[0, 3000]], { seed });
    expect(blinksSeen(lit, 3000, 33_900)).toEqual({ flashes: [], unseen: [], until: 30_900 });
    // A change at another moment is the light of the day, for all that is known.
    expect(blinksSeen(lit, 9000, 33_900).unseen).toEqual([[0, 24_900]]);
    // Nothing ever changed, or it drowns in the light: that no blink was seen says nothing.
    for (const dim of [filmed([], { seed }), filmed(blinks(7, 500), { seed, noise: 12, contrast: 0 })])
      expect(blinksSeen(dim, 0, 33_900)).toEqual({ flashes: [], unseen: [[0, 33_900]], until: 33_900 });
    expect(blinksSeen(filmed([[20_500, 99_000]], { seed }), 0, 33_900).flashes).toEqual([]);
  }
  const late = blinksSeen(filmed(blinks(7, 500), { gap: [22_000, 24_000] }), 1000, 33_900);
  expect(late.unseen).toHaveLength(1);
  expect(late.unseen[0][0]).toBeGreaterThan(20_900);
  expect(late.unseen[0][1]).toBeLessThan(23_100);
  expect(blinksSeen({ t: [], y: [] }, 0, 5000)).toEqual({ flashes: [], unseen: [[0, 5000]], until: 5000 });
});
