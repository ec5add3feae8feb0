import { describe, expect, it } from "vitest";
import { normal, seeded } from "../flash/dialect/encode";
import { framesOf, type Away } from "./levels";
import { marksOf, type LampMark } from "./marks";

/** How a lamp is filmed: pictures a second, brightness that it adds, noise and wander of a picture, share of pictures that are spikes. */
interface Filmed {
  fps: number;
  contrast: number;
  noise: number;
  wander?: number;
  spikes?: number;
  jumps?: number;
}

/** Stretches in which a lamp is away from its rest, of 0.25 to 1.6 s, with rests of 0.25 to 4 s. */
function stretches(seed: number, until: number): [number, number][] {
  const random = seeded(seed);
  const out: [number, number][] = [];
  for (let t = 700 + 500 * random(); ;) {
    const up = t + 250 + 1350 * random() ** 2;
    if (up > until - 600) return out;
    out.push([t, up]);
    t = up + 250 + 3750 * random() ** 3;
  }
}

/** Its brightness in pictures at uneven times, with a bulb that warms and cools. */
function film(away: readonly [number, number][], rest: 0 | 1, until: number, seed: number, f: Filmed) {
  const random = seeded(seed + 1000);
  const t: number[] = [];
  const y: number[] = [];
  let [bulb, daylight, last] = [rest as number, 60 + 60 * random(), 0];
  for (let at = 0; at < until; at += (1000 / f.fps) * (0.9 + 0.2 * random())) {
    const on = away.some(([a, b]) => at >= a && at < b) ? 1 - rest : rest;
    bulb += (on - bulb) * (1 - Math.exp(-(at - last) / (on > bulb ? 40 : 65)));
    daylight += (f.wander ?? 0) * Math.sqrt((at - last) / 1000) * normal(random);
    if (random() < ((f.jumps ?? 0) * (at - last)) / 1000) daylight += 30 * normal(random);
    last = at;
    const spike = random() < (f.spikes ?? 0) ? 60 * normal(random) : 0;
    t.push(at);
    y.push(Math.min(255, Math.max(0, daylight + f.contrast * bulb + f.noise * normal(random) + spike)));
  }
  return { t, y };
}

const AWAY = { longest: 1700, endless: false };
const SECONDS = 40_000;

function read(seed: number, rest: 0 | 1, f: Filmed): { truth: [number, number][]; marks: LampMark[] } {
  const truth = stretches(seed, SECONDS);
  const away: Away = { ...AWAY, lit: rest ? 0 : 1 };
  const frames = framesOf(film(truth, rest, SECONDS, seed, f), away);
  return { truth, marks: frames ? marksOf(frames, away.lit) : [] };
}

const near = (m: LampMark, [a, b]: [number, number], slack: number) =>
  Math.abs(m.t - a) < slack && Math.abs(m.up - b) < slack + 60;

describe("marks from brightness", () => {
  const kinds: [string, number, Filmed][] = [
    ["a clear lamp, 30 a second", 75, { fps: 30, contrast: 90, noise: 4 }],
    ["a weak one, 30 a second", 110, { fps: 30, contrast: 32, noise: 5 }],
    ["one under drifting daylight, 24 a second", 75, { fps: 24, contrast: 70, noise: 4, wander: 6 }],
    ["one with spikes, 60 a second", 75, { fps: 60, contrast: 80, noise: 5, spikes: 0.005 }],
  ];
  it.each(kinds)("are those that were there, no more and no fewer, of %s, within %i ms", (_, slack, filmed) => {
    for (let seed = 1; seed <= 12; seed++)
      for (const rest of [0, 1] as const) {
        const { truth, marks } = read(seed, rest, filmed);
        const likely = marks.filter((m) => m.p > 0.5);
        const lost = truth.filter((s) => !likely.some((m) => near(m, s, slack)));
        const made = likely.filter((m) => !truth.some((s) => near(m, s, slack)));
        expect({ seed, rest, lost, made }).toEqual({ seed, rest, lost: [], made: [] });
      }
  });

  it("are told with a probability that keeps its word where the light jumps", () => {
    let [sure, right] = [0, 0];
    for (let seed = 1; seed <= 30; seed++) {
      const { truth, marks } = read(seed, 0, { fps: 30, contrast: 30, noise: 8, wander: 8, jumps: 0.2 });
      for (const m of marks.filter((m) => m.p > 0.95)) {
        sure++;
        if (truth.some(([a, b]) => m.t < b && m.up > a)) right++;
      }
    }
    expect(sure).toBeGreaterThan(200);
    expect(right / sure).toBeGreaterThan(0.95);
  });

  it("are none where nothing changes, or too little was seen", () => {
    const still = film([], 0, SECONDS, 3, { fps: 30, contrast: 80, noise: 5 });
    const frames = framesOf(still, { ...AWAY, lit: 1 });
    expect((frames ? marksOf(frames, 1) : []).filter((m) => m.p > 0.9)).toEqual([]);
    expect(framesOf({ t: [0, 33], y: [50, 150] }, { ...AWAY, lit: 1 })).toBeNull();
    expect(framesOf({ t: [], y: [] }, { ...AWAY, lit: 1 })).toBeNull();
  });

  it("do not change with the order of the pictures, nor with one that came twice or without a value", () => {
    const away: Away = { ...AWAY, lit: 1 };
    const { t, y } = film(stretches(5, SECONDS), 0, SECONDS, 5, { fps: 30, contrast: 80, noise: 5 });
    const order = t.map((_, i) => i).reverse();
    const other = { t: [...order.map((i) => t[i]), t[40], NaN], y: [...order.map((i) => y[i]), y[40], 10] };
    expect(marksOf(framesOf(other, away)!, 1)).toEqual(marksOf(framesOf({ t, y }, away)!, 1));
  });
});
