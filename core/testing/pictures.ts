import { normal, seeded } from "../flash/dialect/encode";
import type { Picture } from "../lamp/picture";

/** What goes wrong in a drawn film; all off by default. */
export interface Trouble {
  shake?: number;
  noise?: number;
  /** Exposure steps a second, hands that pass a second. */
  steps?: number;
  hands?: number;
  /** Brightness that the sun lays over the picture. */
  sun?: number;
  /** Frames whose lamp a pulsed supply leaves dark, as a share. */
  pulsed?: number;
  /** How much of its light and colour the lamp gives, 0 to 1. */
  strength?: number;
}

export interface DrawnLamp {
  /** Middle, in shares of the picture. */
  x: number;
  y: number;
  /** Changes of state, ms, and the state then. */
  edges: readonly (readonly [t: number, lit: 0 | 1])[];
}

const W = 320;
const H = 180;

/** Pictures of a dashboard: gauges with white edges, a red lamp that stays lit, a needle that sweeps, and lamps that blink. */
export function* drawFilm(
  lamps: readonly DrawnLamp[],
  seconds: number,
  seed: number,
  trouble: Trouble = {},
  fps = 30,
): Generator<Picture> {
  const random = seeded(seed);
  const still = backdrop();
  // Noise is drawn once and laid over each picture at another place: a normal deviate a pixel would take most of the time.
  const grain = Float32Array.from({ length: 1 << 16 }, () => (trouble.noise ?? 0) * normal(random));
  let g = 0;
  let [sx, sy, exposure, hand] = [0, 0, 1, -1];
  // A lamp that is lit at first has been so for long.
  const bulbs: number[] = lamps.map((lamp) => lamp.edges.findLast(([at]) => at <= 0)?.[1] ?? 0);
  const shades = new Float64Array(256);
  const across = new Int32Array(W);
  for (let k = 0; k < seconds * fps; k++) {
    const t = (k * 1000) / fps;
    if (trouble.shake) {
      sx = 0.94 * sx + 0.35 * trouble.shake * normal(random);
      sy = 0.94 * sy + 0.35 * trouble.shake * normal(random);
    }
    if (random() < (trouble.steps ?? 0) / fps) exposure = 0.75 + 0.5 * random();
    if (hand < 0 && random() < (trouble.hands ?? 0) / fps) hand = 0;
    const [dx, dy] = [Math.round(sx), Math.round(sy)];
    g = Math.floor(random() * 65536);
    const y = new Uint8Array(W * H);
    const u = new Uint8Array((W * H) / 4).fill(128);
    const v = new Uint8Array((W * H) / 4).fill(128);
    const light = (value: number) =>
      Math.min(255, Math.max(0, value * exposure + (trouble.sun ?? 0) + grain[g++ & 0xffff]));
    // The same light by table: nearly all of the time of a film goes into these pixels.
    for (let value = 0; value < 256; value++) shades[value] = value * exposure + (trouble.sun ?? 0);
    for (let i = 0; i < W; i++) across[i] = Math.min(W - 1, Math.max(0, i - dx));
    for (let j = 0, to = 0; j < H; j++) {
      const row = Math.min(H - 1, Math.max(0, j - dy)) * W;
      for (let i = 0; i < W; i++) {
        const value = shades[still[row + across[i]]] + grain[g++ & 0xffff];
        y[to++] = value < 0 ? 0 : value > 255 ? 255 : value;
      }
    }
    const box = (x: number, top: number, w: number, h: number, luma: number, cu: number, cv: number) => {
      for (let j = Math.round(top + dy); j < top + dy + h; j++)
        for (let i = Math.round(x + dx); i < x + dx + w; i++) {
          if (i < 0 || j < 0 || i >= W || j >= H) continue;
          y[j * W + i] = light(luma);
          const c = (j >> 1) * (W / 2) + (i >> 1);
          [u[c], v[c]] = [cu, cv];
        }
    };
    box(150, 22, 16, 10, 120, 110, 215);
    box(226 + 18 * Math.sin(t / 700), 80, 3, 30, 150, 118, 190);
    for (const [n, lamp] of lamps.entries()) {
      const lit = lamp.edges.findLast(([at]) => at <= t)?.[1] ?? 0;
      bulbs[n] += (lit - bulbs[n]) * (1 - Math.exp(-1000 / fps / (lit > bulbs[n] ? 40 : 80)));
      const on = bulbs[n] * (trouble.strength ?? 1) * (random() < (trouble.pulsed ?? 0) ? 0 : 1);
      box(lamp.x * W - 8, lamp.y * H - 6, 16, 12, 62 + 110 * on, 128 - 48 * on, 128 + 34 * on);
    }
    if (hand >= 0) {
      box(hand * (W + 90) - 90 - dx, 20, 80, H, 95, 120, 140);
      hand += 1 / (0.8 * fps);
      if (hand > 1) hand = -1;
    }
    yield { t, width: W, height: H, y, yStride: W, u, v, cStride: W / 2, cStep: 1 };
  }
}

/** What never moves by itself. */
function backdrop(): Uint8Array {
  const y = new Uint8Array(W * H).fill(52);
  for (const cx of [70, 240])
    for (let j = 0; j < H; j++)
      for (let i = 0; i < W; i++) {
        const r = Math.hypot(i - cx, j - 100);
        if (r < 56)
          y[j * W + i] =
            r > 52 ? 205 : r > 44 && Math.floor((Math.atan2(j - 100, i - cx) + 4) * 4) % 3 === 0 ? 170 : 24;
      }
  return y;
}
