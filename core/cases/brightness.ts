import { normal } from "../flash/dialect/encode";
import type { Played } from "./lamp";
import type { Profile } from "./watchers";

/** A made-up film of a lamp: the brightness of a small patch of picture at each frame. */
export interface Film {
  /** Frames a second, and the shares of their times' jitter and of frames lost. */
  fps: number;
  frameJitter: number;
  lost: number;
  /** Brightness of the unlit lamp, what the lit one adds, and the noise of a frame (standard deviation), 0 to 255. */
  base: number;
  contrast: number;
  noise: number;
  /** Time constants of the bulb, ms. */
  rise: number;
  fall: number;
  /** Daylight: random walk per square root of a second, and shadows and steps per second. */
  drift: number;
  shadows: number;
  steps: number;
}

export function filmOf(profile: Profile, random: () => number): Film {
  const from = (a: number, b: number) => a + (b - a) * random();
  if (profile === "clean")
    return {
      fps: 30,
      frameJitter: 0,
      lost: 0,
      base: from(35, 60),
      contrast: from(80, 120),
      noise: 1.2,
      rise: 20,
      fall: 20,
      drift: 0,
      shadows: 0,
      steps: 0,
    };
  if (profile === "normal")
    return {
      fps: 30,
      frameJitter: 0.1,
      lost: 0.01,
      base: from(20, 90),
      contrast: from(45, 105),
      noise: from(1.5, 4),
      rise: from(40, 80),
      fall: from(50, 110),
      drift: 3,
      shadows: 0,
      steps: 0,
    };
  return {
    fps: from(15, 24),
    frameJitter: 0.1,
    lost: 0.04,
    base: from(60, 140),
    contrast: from(14, 40),
    noise: from(3.5, 8),
    rise: from(40, 100),
    fall: from(50, 120),
    drift: 8,
    shadows: 0.02,
    steps: 0.03,
  };
}

/** The brightness at each frame. */
export function brightness(played: Played, f: Film, random: () => number): { t: number[]; y: number[] } {
  const t: number[] = [];
  const y: number[] = [];
  const frame = 1000 / f.fps;
  let lit: number = played.edges[0][1];
  let bulb = lit;
  let next = 1;
  let daylight = f.base;
  let shadow = 0;
  let shadowUntil = 0;
  let at = 0;
  for (let nominal = frame * random(); nominal < played.until; nominal += frame) {
    const when = nominal + f.frameJitter * frame * normal(random);
    if (when <= at || when >= played.until) continue;
    // The bulb warms and cools between the changes of its lamp.
    let clock = at;
    while (next < played.edges.length && played.edges[next][0] <= when) {
      bulb = toward(bulb, lit, played.edges[next][0] - clock, f);
      clock = played.edges[next][0];
      lit = played.edges[next++][1];
    }
    bulb = toward(bulb, lit, when - clock, f);
    const seconds = (when - at) / 1000;
    at = when;
    daylight += f.drift * Math.sqrt(seconds) * normal(random);
    daylight = Math.min(190, Math.max(15, daylight));
    if (random() < f.steps * seconds) daylight += 25 * normal(random);
    if (random() < f.shadows * seconds) {
      shadow = -20 - 40 * random();
      shadowUntil = when + 300 + 900 * random();
    }
    if (random() < f.lost) continue;
    const value = daylight + f.contrast * bulb + (when < shadowUntil ? shadow : 0) + f.noise * normal(random);
    t.push(Math.round(when * 10) / 10);
    y.push(Math.round(Math.min(255, Math.max(0, value))));
  }
  return { t, y };
}

function toward(bulb: number, lit: number, ms: number, f: Film): number {
  return lit + (bulb - lit) * Math.exp(-ms / (lit > bulb ? f.rise : f.fall));
}
