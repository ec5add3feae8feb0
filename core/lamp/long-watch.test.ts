import { describe, expect, it } from "vitest";
import { leftOut } from "./long-watch";

describe("a watch that goes on for hours", () => {
  it("keeps its first and its newest ten minutes, however long it is, and all of a shorter one", () => {
    const minute = 60_000;
    let t: number[] = [];
    let most = 0;
    let cuts = 0;
    for (let at = 0; at <= 180 * minute; at += 200) {
      t.push(at);
      const out = leftOut(t);
      if (out) {
        t = [...t.slice(0, out.from), ...t.slice(out.to)];
        cuts++;
      }
      most = Math.max(most, t.length);
      if (at === 20 * minute) expect(t).toHaveLength((20 * minute) / 200 + 1);
      // What was seen last is never left out, nor how it began.
      expect([t[0], t.at(-1)]).toEqual([0, at]);
    }
    expect(most).toBeLessThan((22 * minute) / 200);
    expect(cuts).toBeGreaterThan(100);
    const gap = t.findIndex((x, i) => i > 0 && x - t[i - 1] > 200);
    expect([t[gap - 1], t.at(-1)! - t[gap]].map((ms) => Math.round(ms / minute))).toEqual([10, 10]);
  });
});
