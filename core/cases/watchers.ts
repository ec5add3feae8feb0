import type { Dialect } from "../flash/dialect/dialect";
import { normal } from "../flash/dialect/encode";
import { runsOf } from "../flash/dialect/digits";
import type { Tap } from "../flash/seen/evidence";
import type { Played } from "./lamp";

type Random = () => number;
export type Profile = "clean" | "normal" | "hard";
export const PROFILES: readonly Profile[] = ["clean", "normal", "hard"];

/** How a made-up person errs. Within a kind, people differ. */
export interface Person {
  /** Constant reaction time and its scatter, ms. */
  reaction: number;
  sd: number;
  /** Share of flashes missed, marked twice, and called by the wrong length. */
  miss: number;
  double: number;
  misname: number;
  /** Share of called numbers that are off by one. */
  miscount: number;
}

export function personOf(profile: Profile, random: Random): Person {
  const spread = () => 0.8 + 0.4 * random();
  const reaction = 190 + 140 * random();
  if (profile === "clean") return { reaction, sd: 14 * spread(), miss: 0, double: 0, misname: 0, miscount: 0 };
  if (profile === "normal")
    return { reaction, sd: 62 * spread(), miss: 0.01 * spread(), double: 0.004, misname: 0.007, miscount: 0.026 };
  return { reaction, sd: 107 * spread(), miss: 0.034 * spread(), double: 0.02, misname: 0.03, miscount: 0.042 };
}

/** Flashes that somebody sees begin within the watch. */
const begun = (played: Played) => played.flashes.filter((f) => f.start > 0 && f.start < played.until);

/** One press a flash; lamp tests and a steady lamp are not tapped. */
export function tap(dialect: Dialect, played: Played, p: Person, random: Random): Tap[] {
  const two = dialect.digits.style === "long-short";
  return begun(played)
    .filter((f) => f.flash.unit.kind !== "steady" && random() >= p.miss)
    .flatMap((f): Tap[] => {
      const t = f.start + p.reaction + p.sd * normal(random);
      const long = f.flash.long !== random() < p.misname;
      const press = (at: number): Tap => (two ? [at, long ? "l" : "s"] : at);
      return random() < p.double ? [press(t), press(t + 110 + 150 * random())] : [press(t)];
    });
}

/** A key held while the lamp is away from its rest. */
export function hold(played: Played, p: Person, random: Random): (readonly [number, number])[] {
  const holds: [number, number][] = [];
  for (const f of begun(played)) {
    if (random() < p.miss || f.end > played.until) continue;
    const down = Math.max(f.start + p.reaction + p.sd * normal(random), (holds.at(-1)?.[1] ?? -Infinity) + 30);
    const up = Math.max(f.end + p.reaction + p.sd * normal(random), down + 40);
    if (random() < p.double && up - down > 250) {
      const slip = down + (up - down) * (0.3 + 0.4 * random());
      holds.push([down, slip], [slip + 40, up]);
    } else holds.push([down, up]);
  }
  return holds;
}

/** How a made-up camera errs when it reports edges. */
export interface Camera {
  sd: number;
  miss: number;
  /** Short glitches per ms. */
  glitches: number;
}

export const CAMERAS: Record<Profile, Camera> = {
  clean: { sd: 10, miss: 0, glitches: 1e-6 },
  normal: { sd: 12, miss: 0.0005, glitches: 6e-6 },
  hard: { sd: 20, miss: 0.018, glitches: 3.3e-5 },
};

/** Edges as a camera reports them: each a little off, some flashes lost, short glitches put in. */
export function film(played: Played, c: Camera, random: Random): [number, 0 | 1][] {
  const first = played.edges[0];
  const away = played.edges.slice(1);
  const kept: { t: number; lit: 0 | 1 }[] = [];
  let i = 0;
  // The first change ends what was already on; after that they come in pairs.
  const begunOn = played.flashes.some((f) => f.start <= 0);
  if (begunOn && away.length) kept.push({ t: away[i][0] + c.sd * normal(random), lit: away[i++][1] });
  for (; i < away.length; i += 2) {
    if (random() < c.miss) continue;
    for (const e of away.slice(i, i + 2)) kept.push({ t: e[0] + c.sd * normal(random), lit: e[1] });
  }
  const out: [number, 0 | 1][] = [[0, first[1]]];
  let state = first[1];
  const glitchesUpTo = (until: number) => {
    let t = out[out.length - 1][0];
    for (;;) {
      t += -Math.log(1 - random()) / c.glitches;
      const ms = 15 + 120 * random();
      if (t < 20 || t + ms + 20 > until) break;
      out.push([t, (1 - state) as 0 | 1], [t + ms, state]);
      t += ms;
    }
  };
  for (const e of kept.sort((a, b) => a.t - b.t)) {
    if (e.t <= out[out.length - 1][0]) e.t = out[out.length - 1][0] + 5;
    if (e.t >= played.until) break;
    glitchesUpTo(e.t);
    if (e.lit !== state) out.push([e.t, e.lit]);
    state = e.lit;
  }
  glitchesUpTo(played.until);
  return out;
}

/** The runs of a watch that were seen whole, as somebody calls them out. */
export function callOut(dialect: Dialect, played: Played, p: Person, random: Random): (number | [number, number])[] {
  const two = dialect.digits.style === "long-short";
  const off = (n: number) => (random() < p.miscount ? Math.max(two ? 0 : 1, n + (random() < 0.5 ? 1 : -1)) : n);
  const out: (number | [number, number])[] = [];
  const all = played.flashes.filter((f) => f.flash.unit.kind !== "steady");
  for (let i = 0; i < all.length;) {
    const { unit, digit } = all[i].flash;
    let j = i;
    if (unit.kind === "even") j = all.length - 1;
    else
      while (
        j + 1 < all.length &&
        all[j + 1].flash.unit === unit &&
        all[j + 1].flash.digit === digit &&
        all[j + 1].flash.at > all[j].flash.at
      )
        j++;
    const run = all.slice(i, j + 1);
    const expected = unit.code ? runsOf(dialect, unit.code)?.[digit] : undefined;
    const whole =
      unit.kind === "even" ||
      (run[0].start > 0 &&
        run[run.length - 1].end < played.until &&
        (!expected || run.length === expected.long + expected.short));
    if (whole) {
      const long = run.filter((f) => f.flash.long).length;
      out.push(two ? [off(long), off(run.length - long)] : off(run.length));
    }
    i = j + 1;
  }
  return out;
}
