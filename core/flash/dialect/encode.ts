import { countsCylinders, type Dialect, type Faults } from "./dialect";
import { showOf, type Flash } from "./show";

/** One stretch in which the lamp is away from its rest. Times in ms from the start of the show. */
export interface Lit {
  start: number;
  end: number;
  flash: Flash;
}

export interface EncodeOptions {
  /** Constant factor on every time: 1 is nominal, 0.8 to 1.25 in practice. */
  speed?: number;
  /** Relative standard deviation of each interval (0.03 in practice). */
  jitter?: number;
  /** Uniform random numbers in [0, 1). */
  random?: () => number;
  cylinders?: number;
}

/**
 * What a unit shows, flash by flash, without end where the show goes round. A generator, so that a
 * lamp can be driven in real time and a trace cut at any length.
 */
export function* flashesOf(dialect: Dialect, faults: Faults, options: EncodeOptions = {}): Generator<Lit> {
  const { speed = 1, jitter = 0, random = Math.random, cylinders = 4 } = options;
  const show = showOf(dialect, faults, countsCylinders(dialect) ? cylinders : undefined);
  const vary = (ms: number) => ms * speed * Math.max(0.5, 1 + jitter * normal(random));
  let t = 0;
  const play = function* (flashes: Flash[], length: number): Generator<Lit> {
    let nominal = 0;
    for (const flash of flashes) {
      t += vary(flash.at - nominal);
      const start = t;
      t += vary(flash.ms);
      yield { start, end: t, flash };
      nominal = flash.at + flash.ms;
    }
    t += vary(length - nominal);
  };
  yield* play(show.lead.flashes, show.lead.ms);
  if (show.loop) while (true) yield* play(show.loop.flashes, show.loop.ms);
  else if (show.ends === "opposite")
    yield {
      start: t,
      end: Infinity,
      flash: { at: 0, ms: Infinity, unit: { kind: "steady", phase: 0, repeat: 0 }, digit: 0, long: false },
    };
}

/**
 * The lamp's timeline from `from` to `until` (ms of the show) as edges `[t, lit]`, the first at 0 giving
 * the state at the start, times counted from `from`.
 */
export function encode(
  dialect: Dialect,
  faults: Faults,
  until: number,
  options: EncodeOptions & { from?: number } = {},
): [number, 0 | 1][] {
  const { from = 0 } = options;
  const rest = dialect.rest === "lit" ? 1 : 0;
  const away = (1 - rest) as 0 | 1;
  const edges: [number, 0 | 1][] = [[0, rest]];
  for (const { start, end } of flashesOf(dialect, faults, options)) {
    if (start >= until) break;
    if (end <= from) continue;
    // A lamp that goes from one mark straight into the next does not change.
    if (edges.length > 1 && start - from <= edges[edges.length - 1][0]) edges.pop();
    else if (start <= from) edges[0][1] = away;
    else edges.push([start - from, away]);
    if (end < until) edges.push([end - from, rest]);
  }
  return edges;
}

/** A standard normal deviate (Box and Muller). */
export function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** A small seeded generator of uniform numbers (mulberry32), so that cases and demo lamps can be repeated. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
