/** The brightness of a small patch of picture at each frame: times in ms, values 0 to 255. */
export interface Levels {
  t: readonly number[];
  y: readonly number[];
}

/** What the frames say of the lamp. */
export interface Frames {
  t: Float64Array;
  /** Log of how much likelier each frame is with the lamp lit than with it dark. */
  llr: Float64Array;
  /** The likeliest state at each frame, 1 where lit. */
  lit: Uint8Array;
  /** Brightness that the lit lamp adds, and the noise of a frame (standard deviation). */
  contrast: number;
  noise: number;
  /** How much longer a lit stretch seems than it was, since a bulb cools more slowly than it warms, ms. */
  glow: number;
}

/** What is known of the lamp beforehand: the state that is not its rest, and how long it lasts at most, ms. */
export interface Away {
  lit: 0 | 1;
  longest: number;
  /** It may also stay so for ever. */
  endless: boolean;
}

/** A lamp holds a state at least so long, ms: real marks and rests last 200 ms at the quickest tempo. */
const HOLD_MS = 150;
/** Time constant with which a bulb warms and cools, ms. */
const BULB_MS = 55;
/** Daylight wanders: variance per second, in brightness squared; and it may jump (a shadow, an exposure step). */
const WANDER = 40;
const JUMP = 900;
const JUMP_CHANCE = 0.003;
/** Chance of a spike in a frame, and how wide it is (standard deviation). */
const SPIKE_CHANCE = 0.01;
const SPIKE = 30;
/** A single frame does not weigh more than this, in nats: light plays tricks. */
const MOST = 5;
/** Neighbouring frames err alike: so many count as one. */
const CORRELATED = 2;
/** Cost of a state that lasts too long, nats per ms; and of one that lasts for ever, once. */
const OVERLONG = 0.06;
const ENDLESS = 8;
const ROUNDS = 3;

/**
 * Lit or dark at each frame, when the daylight wanders and jumps and neither it nor the lamp's own brightness is known: a
 * switching Kalman filter (the hidden state is lit or dark and for how long; the daylight is filtered along each
 * hypothesis), then a smoother for the daylight, over again with the contrast found.
 * @param away keeps a change of daylight from being taken for a lamp that stays lit
 * @returns null where there are too few frames or nothing ever changes
 */
export function framesOf({ t: times, y: values }: Levels, away: Away): Frames | null {
  const order = times.map((_, i) => i).filter((i) => Number.isFinite(times[i]) && Number.isFinite(values[i]));
  order.sort((a, b) => times[a] - times[b]);
  // Two frames at one time are one.
  const distinct = order.filter((i, k) => k === 0 || times[i] - times[order[k - 1]] > 0.01);
  const t = Float64Array.from(distinct, (i) => times[i]);
  const y = Float64Array.from(distinct, (i) => values[i]);
  if (t.length < 10) return null;
  const noise = Math.max(0.8, noiseOf(y));
  const guesses = contrastsOf(t, y, noise).filter((c) => c > 2.5 * noise);
  if (!guesses.length) return null;
  // The contrast is not known: the one under which the first stretch is explained best.
  const some = Math.min(t.length, 1500);
  const tried = guesses.map((c) => ({ c, log: filter(t.subarray(0, some), y.subarray(0, some), c, noise, away).log }));
  let contrast = tried.reduce((a, b) => (b.log > a.log ? b : a)).c;
  let lit: Uint8Array = new Uint8Array();
  let daylight: Float64Array = new Float64Array();
  for (let round = 0; round < ROUNDS; round++) {
    lit = filter(t, y, contrast, noise, away).lit;
    const bulb = warmth(t, lit);
    daylight = smooth(
      t,
      y.map((v, i) => v - contrast * bulb[i]),
      noise,
    );
    let xy = 0;
    let xx = 0;
    for (let i = 0; i < t.length; i++)
      if (bulb[i] > 0.8) {
        xy += bulb[i] * (y[i] - daylight[i]);
        xx += bulb[i] ** 2;
      }
    if (xx > 5 && round < ROUNDS - 1) contrast = Math.max(2 * noise, xy / xx);
  }
  return {
    t,
    llr: evidence(y, daylight, contrast, noise),
    lit,
    contrast,
    noise,
    glow: glowOf(t, y, daylight, lit, contrast / noise),
  };
}

/** The evidence of each frame, given the daylight. What is left of the daylight is much the same from frame to frame, so frames count less than one by one. */
function evidence(y: Float64Array, daylight: Float64Array, contrast: number, noise: number): Float64Array {
  const variance = (noise * noise + 2) * CORRELATED;
  return y.map((v, i) => {
    const x = v - daylight[i];
    return Math.max(-MOST, Math.min(MOST, (x * x - (x - contrast) ** 2) / (2 * variance)));
  });
}

/** Below this contrast over noise a flank's shape is not to be seen, and a bulb is taken to glow on so long at most, ms. */
const CLEAR = 6;
const LONGEST_GLOW = 120;

/**
 * From the medians of the times that rising and falling flanks take between a quarter and three quarters (ln 3 time constants
 * of a bulb); it crosses the half ln 2 time constants late.
 */
function glowOf(t: Float64Array, y: Float64Array, daylight: Float64Array, lit: Uint8Array, clear: number): number {
  if (clear < CLEAR) return 0;
  const times: [number[], number[]] = [[], []];
  const mean = [0, 0];
  const count = [0, 0];
  for (let i = 0; i < t.length; i++) {
    mean[lit[i]] += y[i] - daylight[i];
    count[lit[i]]++;
  }
  const [low, high] = [mean[0] / count[0], mean[1] / count[1]];
  const share = (i: number) => (y[i] - daylight[i] - low) / (high - low);
  /** When a flank around frame i crosses a share, going `up`. */
  const crossing = (i: number, at: number, up: boolean): number | null => {
    for (let k = Math.max(1, i - 6); k < Math.min(t.length, i + 7); k++) {
      const [a, b] = [share(k - 1), share(k)];
      if (up ? a < at && b >= at : a > at && b <= at) return t[k - 1] + ((at - a) / (b - a)) * (t[k] - t[k - 1]);
    }
    return null;
  };
  for (let i = 1; i < t.length; i++) {
    if (lit[i] === lit[i - 1]) continue;
    const up = lit[i] === 1;
    const [a, b] = [crossing(i, up ? 0.25 : 0.75, up), crossing(i, up ? 0.75 : 0.25, up)];
    if (a !== null && b !== null && b >= a) times[up ? 1 : 0].push(b - a);
  }
  if (times[0].length < 3 || times[1].length < 3) return 0;
  const median = (list: number[]) => list.sort((a, b) => a - b)[list.length >> 1];
  return Math.max(0, Math.min(LONGEST_GLOW, (Math.LN2 / Math.log(3)) * (median(times[0]) - median(times[1]))));
}

/** Noise of a frame from the smaller three quarters of the differences between neighbours (0.515: their mean, in deviations). */
function noiseOf(y: Float64Array): number {
  const d = Float64Array.from(y.subarray(1), (v, i) => Math.abs(v - y[i])).sort();
  const part = d.subarray(0, Math.ceil(d.length * 0.75));
  return part.reduce((a, b) => a + b, 0) / part.length / 0.515 / Math.SQRT2;
}

/** How far the brightness moves within a quarter of a second, where it moves most: guesses, since how often it does is not known. */
function contrastsOf(t: Float64Array, y: Float64Array, noise: number): number[] {
  const moves: number[] = [];
  for (let i = 0, k = 0; i < t.length; i++) {
    while (k < t.length - 1 && t[k] - t[i] < 220) k++;
    if (k > i) moves.push(Math.abs(y[k] - y[i]));
  }
  moves.sort((a, b) => a - b);
  const at = (q: number) => moves[Math.floor(moves.length * q)] - 0.5 * noise;
  const [usual, most] = [at(0.93), at(0.99)];
  return [0.6, 0.75, 0.9, 1.1].map((f) => f * usual).concat(most > 1.5 * usual ? [most, 0.7 * most] : []);
}

interface Hypothesis {
  lit: number;
  since: number;
  bulb: number;
  daylight: number;
  variance: number;
  log: number;
  /** Index of its parent among those of the frame before. */
  parent: number;
}

/** Keys of hypotheses: lit or dark, and frames since the change while it may not change again. */
const SLOTS = 12;

/** The switching Kalman filter; its likelihood and its likeliest path. */
function filter(
  t: Float64Array,
  y: Float64Array,
  contrast: number,
  noise: number,
  away: Away,
): { log: number; lit: Uint8Array } {
  const n = t.length;
  const parents = new Uint8Array(n * 2 * SLOTS);
  const states = new Uint8Array(n * 2 * SLOTS);
  const r = noise * noise;
  let alive: Hypothesis[] = [0, 1].map((lit) => ({
    lit,
    since: HOLD_MS,
    bulb: lit,
    daylight: y[0] - contrast * lit,
    variance: 4 * r,
    log: lit ? -1 : 0,
    parent: 0,
  }));
  for (const [k, h] of alive.entries()) states[k] = h.lit;
  for (let i = 1; i < n; i++) {
    const dt = Math.min(500, Math.max(1, t[i] - t[i - 1]));
    const decay = Math.exp(-dt / BULB_MS);
    const slots = new Map<number, Hypothesis>();
    const change = Math.min(0.3, dt / 700);
    const consider = (h: Hypothesis, parent: number, lit: number, since: number, log: number, jump: boolean): void => {
      const bulb = lit + (h.bulb - lit) * decay;
      const p = h.variance + (WANDER * dt) / 1000 + (jump ? JUMP : 0);
      const off = y[i] - h.daylight - contrast * bulb;
      const sum = p + r;
      const plain = ((1 - SPIKE_CHANCE) * Math.exp((-0.5 * off * off) / sum)) / Math.sqrt(sum);
      const wide = (SPIKE_CHANCE * Math.exp((-0.5 * off * off) / (sum + SPIKE ** 2))) / Math.sqrt(sum + SPIKE ** 2);
      const total = log + Math.log(plain + wide + 1e-30);
      const key = lit * SLOTS + (since >= HOLD_MS ? 0 : 1 + Math.min(SLOTS - 2, Math.floor(since / 16)));
      const known = slots.get(key);
      if (known && known.log >= total) return;
      const gain = plain > wide ? p / sum : p / (sum + SPIKE ** 2);
      slots.set(key, {
        lit,
        since,
        bulb,
        daylight: h.daylight + gain * off,
        variance: p * (1 - gain),
        log: total,
        parent,
      });
    };
    for (const [k, h] of alive.entries()) {
      const mayChange = h.since >= HOLD_MS;
      // Longer than any mark: hardly, unless it stays so for ever, which costs once.
      const over = h.lit === away.lit && h.since + dt > away.longest;
      const tooLong = !over ? 0 : !away.endless ? -OVERLONG * dt : h.since <= away.longest ? -ENDLESS : 0;
      const stay = h.log + Math.log(1 - (mayChange ? change : 0)) + tooLong;
      consider(h, k, h.lit, h.since + dt, stay, false);
      consider(h, k, h.lit, h.since + dt, stay + Math.log(JUMP_CHANCE), true);
      if (mayChange) consider(h, k, 1 - h.lit, 0, h.log + Math.log(change), false);
    }
    let best = -Infinity;
    for (const h of slots.values()) best = Math.max(best, h.log);
    alive = [...slots.values()].filter((h) => h.log > best - 40);
    for (const [k, h] of alive.entries()) {
      parents[i * 2 * SLOTS + k] = h.parent;
      states[i * 2 * SLOTS + k] = h.lit;
    }
  }
  let at = 0;
  for (const [k, h] of alive.entries()) if (h.log > alive[at].log) at = k;
  const { log } = alive[at];
  const lit = new Uint8Array(n);
  for (let i = n - 1; i >= 0; i--) {
    lit[i] = states[i * 2 * SLOTS + at];
    at = parents[i * 2 * SLOTS + at];
  }
  return { log, lit };
}

/** How warm the bulb is at each frame, 0 to 1, when it follows the lamp. */
function warmth(t: Float64Array, lit: Uint8Array): Float64Array {
  const bulb = new Float64Array(t.length);
  bulb[0] = lit[0];
  for (let i = 1; i < t.length; i++) bulb[i] = lit[i] + (bulb[i - 1] - lit[i]) * Math.exp(-(t[i] - t[i - 1]) / BULB_MS);
  return bulb;
}

/** The daylight from what is left when the lamp is taken off: filtered from both ends, single spikes left out. */
function smooth(t: Float64Array, z: Float64Array, noise: number): Float64Array {
  const pass = (from: number, step: number) => {
    const value = new Float64Array(t.length);
    const variance = new Float64Array(t.length);
    let v = z[from];
    let p = 4 * noise * noise;
    let spikes = 0;
    for (let i = from; i >= 0 && i < t.length; i += step) {
      const dt = i === from ? 0 : Math.abs(t[i] - t[i - step]);
      p += (WANDER * dt) / 1000;
      value[i] = v;
      variance[i] = p;
      let sum = p + noise * noise;
      const off = z[i] - v;
      if (off * off > 14 * sum) {
        if (++spikes < 3) continue;
        // It stays: the daylight has jumped.
        p += JUMP;
        sum = p + noise * noise;
      }
      spikes = 0;
      v += (p / sum) * off;
      p *= 1 - p / sum;
    }
    return { value, variance };
  };
  const before = pass(0, 1);
  const after = pass(t.length - 1, -1);
  const own = 2 * noise * noise;
  return z.map((v, i) => {
    const [a, b] = [1 / before.variance[i], 1 / after.variance[i]];
    const near = (before.value[i] * a + after.value[i] * b) / (a + b);
    const off = v - near;
    const c = off * off > 14 * (own + 1 / (a + b)) ? 0 : 1 / own;
    return (before.value[i] * a + after.value[i] * b + v * c) / (a + b + c);
  });
}
