import { SHORTEST_MS, type Dialect, type Phase } from "../dialect/dialect";
import { seeded } from "../dialect/encode";
import { grammarOf } from "../walk/grammar";
import { walksOf, type Pace } from "../walk/walks";
import { glance, GLANCED, type Glanced, type Look } from "./glance";

/** Walks from which rests are taken anew. */
const DRAWS = 6;
/** Rests that differ by less are the same, as a factor. */
export const APART = 1.12;

/**
 * A way of talking with its rests as walks through its grammar find them among the marks, where that explains more: what a walk takes for
 * missed, or for put in, lengthens and shortens no rest (a step of Monte Carlo EM: Wei and Tanner 1990). Rests that are the same stay so.
 */
export function fitted(from: Glanced, looks: readonly Look[]): Glanced {
  const own = glance(refitted(from.dialect, looks), looks, from);
  return own.log > from.log ? own : from;
}

/** Walks through a way of talking, in proportion to their probability. */
export function drawsOf(dialect: Dialect, { track, o }: Look, draws: number, most = GLANCED): Pace[][] {
  const random = seeded(1);
  const walks = walksOf(grammarOf(dialect), track, 1, o, most);
  return Array.from({ length: draws }, () => walks.draw(random));
}

function refitted(dialect: Dialect, looks: readonly Look[]): Dialect {
  const rests = new Map<number, number[]>();
  const longs: number[] = [];
  const { marks, gaps } = dialect;
  const flash = Math.round(gaps.flash);
  for (const look of looks)
    for (const paces of drawsOf(dialect, look, DRAWS))
      for (let i = 1; i < paces.length; i++) {
        const [a, b] = [paces[i - 1], paces[i]];
        if (a.mark < 0 || b.mark < 0 || Number.isNaN(b.step)) continue;
        const rest = Math.round(b.step - a.node.ms);
        const period = look.track.onset[b.mark] - look.track.onset[a.mark];
        // Of taps nothing else tells how long the long flashes are.
        if (a.node.long && rest === flash && look.track.mode === "taps") longs.push(period - gaps.flash);
        else add(rests, rest, period - a.node.ms);
      }
  const long = marks.long === undefined || !longs.length ? marks.long : Math.max(1.6 * marks.short, middle(longs));
  const changed = asOne(
    withRests(dialect, (ms) => {
      const own = rests.get(Math.round(ms));
      return own ? Math.max(SHORTEST_MS, middle(own)) : ms;
    }),
  );
  return long === undefined ? changed : { ...changed, marks: { ...marks, long: Math.round(long) } };
}

/** Rests of the list that are nearly as long are as long: no eye tells them apart, and no maker means them to differ. */
function asOne(dialect: Dialect): Dialect {
  const { flash, digit, repeat, code, pass } = dialect.gaps;
  const like = (a: number, b: number) => (Math.abs(Math.log(a / b)) < Math.log(APART) ? b : a);
  return { ...dialect, gaps: { flash, digit, repeat: like(repeat, code), code, pass: like(pass, code) } };
}

function add(to: Map<number, number[]>, key: number, ms: number): void {
  const own = to.get(key);
  if (own) own.push(ms);
  else to.set(key, [ms]);
}

function middle(of: number[]): number {
  of.sort((a, b) => a - b);
  return Math.round(of[of.length >> 1]);
}

/** A way of talking with each of its rests changed. */
function withRests(dialect: Dialect, to: (ms: number) => number): Dialect {
  const { flash, digit, repeat, code, pass } = dialect.gaps;
  const around = (p: Phase): Phase =>
    p.kind === "group" ? { ...p, beforeMs: to(p.beforeMs), afterMs: to(p.afterMs) } : p;
  return {
    ...dialect,
    gaps: { flash: to(flash), digit: to(digit), repeat: to(repeat), code: to(code), pass: to(pass) },
    phases: dialect.phases.map(around),
  };
}
