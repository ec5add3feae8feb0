import { expect, test } from "vitest";
import { seeded } from "../dialect/encode";
import type { Dialect } from "../dialect/dialect";
import { showOf } from "../dialect/show";
import { climbed } from "./climb";
import { changesOf } from "./changes";
import { cleaned } from "./cleaned";
import { glance } from "./glance";

const TALK: Dialect = {
  id: "t",
  title: "A lamp",
  rest: "dark",
  marks: { short: 400 },
  gaps: { flash: 450, digit: 1300, repeat: 3000, code: 3000, pass: 6000 },
  digits: { style: "counted", count: [2], zero: null },
  max: 99,
  order: "stored",
  phases: [{ kind: "stored", times: 2, memory: "stored" }],
  loopFrom: 0,
  advance: "self",
  empty: null,
};

/** Taps of three codes for five rounds by a hand that is out by 60 ms, and misses one flash in 25. */
function taps(seed: number): { t: number[]; shown: number } {
  const random = seeded(seed);
  const { loop } = showOf(TALK, { stored: ["24", "31", "52"] });
  const t: number[] = [];
  let shown = 0;
  for (let round = 0; round < 5; round++)
    for (const { at } of loop!.flashes) {
      shown++;
      if (random() > 0.04) t.push(round * loop!.ms + at + 1000 + 60 * (random() + random() + random() - 1.5) * 2);
    }
  return { t, shown };
}

test("from a way that is wrong in its rests, its digits and its showings the right one is climbed to, and what was missed is put back", () => {
  const wrong: Dialect = {
    ...TALK,
    gaps: { flash: 560, digit: 900, repeat: 2300, code: 2300, pass: 2300 },
    digits: { style: "counted", count: [3], zero: null },
    max: 999,
    phases: [{ kind: "stored", times: 1, memory: "stored" }],
  };
  const rests = [450, 560, 900, 1300, 2300, 3000, 6000];
  for (const seed of [3, 4, 5, 6]) {
    const { t, shown } = taps(seed);
    const watch = { mode: "taps" as const, taps: t, until: t[t.length - 1] + 3000 };
    const found = climbed(wrong, [watch], rests, -Infinity);
    const { gaps, digits } = found.dialect;
    expect(digits.count, `seed ${seed}`).toEqual([2]);
    for (const [name, ms] of [
      ["digit", 1300],
      ["code", 3000],
      ["pass", 6000],
    ] as const)
      expect(Math.abs(Math.log(gaps[name] / ms)), `seed ${seed}, ${name} ${gaps[name]}`).toBeLessThan(0.12);
    // What is given up on the way is truly behind; all else is as in one go.
    for (const change of changesOf(found.dialect, rests, true)) {
      const [short, whole] = [glance(change, found.looks, found), glance(change, found.looks)];
      if (short.log === -Infinity) expect(whole.log, `seed ${seed}`).toBeLessThan(found.log);
      else expect(short.log).toBe(whole.log);
    }
    const [marks] = cleaned(found);
    expect(Math.abs(marks.long.length - shown), `seed ${seed}`).toBeLessThanOrEqual(2);
    expect(marks.long.length).toBeGreaterThan(t.length);
  }
});
