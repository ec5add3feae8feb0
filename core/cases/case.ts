import { countsCylinders, memoriesOf, type Dialect, type Faults } from "../flash/dialect/dialect";
import { possibleFaults, runsOf, type Run } from "../flash/dialect/digits";
import { normal, seeded } from "../flash/dialect/encode";
import type { Called, Press, Tap } from "../flash/seen/evidence";
import { ordered, runSection, showOf } from "../flash/dialect/show";
import { brightness, filmOf } from "./brightness";
import { play } from "./lamp";
import { truthOf, type Truth } from "./truth";
import { callOut, CAMERAS, film, hold, personOf, tap, type Profile } from "./watchers";

export type CaseMode = "edges" | "taps" | "holds" | "counts" | "levels" | "button";

/** A made-up reading of a lamp with the truth beside it (format: a case). */
export interface MadeCase {
  id: string;
  dialect: string;
  mode: CaseMode;
  profile: Profile;
  speed: number;
  table: string[];
  until?: number;
  mid?: true;
  cut?: true;
  data: unknown;
  truth: Truth;
}

const JITTER = 0.03;

/** Makes a case: a unit with a random list and clock, watched for a while. The same seed gives the same case. */
export function makeCase(dialect: Dialect, mode: CaseMode, profile: Profile, seed: number): MadeCase {
  const random = seeded(Math.imul(seed + 1, 0x9e3779b1) ^ hash(dialect.id + mode + profile));
  const speed = 0.8 + 0.45 * random();
  const possible = possibleFaults(dialect);
  const faults: Faults = {};
  // A fault that is there now has often been stored too.
  let both: string[] = [];
  for (const memory of memoriesOf(dialect)) {
    const own = [...new Set([...both, ...pick(possible, listLength(random), random)])].slice(0, 5);
    faults[memory] = ordered(dialect, dialect.order === "stored" ? pick(own, own.length, random) : own);
    both = own.filter(() => random() < 0.4);
  }
  const cylinders = countsCylinders(dialect) ? [4, 6, 8][Math.floor(3 * random())] : null;
  const used = [...new Set(Object.values(faults).flat())];
  const table = [...new Set([...used, ...pick(possible, 25, random)])]
    .slice(0, 25)
    .sort((a, b) => Number(a) - Number(b));
  const head = { id: `${dialect.id}/${mode}/${profile}/${seed}`, dialect: dialect.id, mode, profile, speed, table };
  if (dialect.advance === "button") return { ...head, ...pressed(dialect, faults, mode, profile, speed, seed, random) };

  const show = showOf(dialect, faults, cylinders ?? undefined);
  const lead = show.lead.ms * speed;
  const loop = (show.loop?.ms ?? 0) * speed;
  const mid = dialect.loopFrom !== null && random() < 0.45;
  const watched = mid ? loop : lead + loop;
  const rounds = loop ? loop * (1.2 + 1.7 * random()) : 0;
  const even = show.loop?.flashes[0]?.unit.kind === "even";
  let until = even ? 15_000 + 17_000 * random() : loop ? watched - loop + rounds : lead + 4000 + 5000 * random();
  const wait = 150 + 1350 * random();
  const from = mid ? lead + loop * random() : -wait;
  if (!mid) until += wait;
  const cut = profile === "hard" && random() < 0.3;
  if (cut) until *= 0.4 + 0.6 * random();
  const played = play(dialect, faults, {
    seed: (seed * 7919 + 13) >>> 0,
    from,
    until,
    speed,
    jitter: JITTER,
    cylinders: cylinders ?? undefined,
  });
  const truth = truthOf(dialect, faults, played, speed, cylinders);
  const person = personOf(profile, random);
  const data =
    mode === "edges"
      ? film(played, CAMERAS[profile], random)
      : mode === "taps"
        ? tap(dialect, played, person, random).filter((t) => (typeof t === "number" ? t : t[0]) < until)
        : mode === "holds"
          ? hold(played, person, random).filter((h) => h[1] < until)
          : mode === "counts"
            ? callOut(dialect, played, person, random)
            : brightness(played, filmOf(profile, random), random);
  const notes = { ...(mid ? { mid: true as const } : {}), ...(cut ? { cut: true as const } : {}) };
  return { ...head, ...(mode === "counts" ? {} : { until }), ...notes, data, truth };
}

/** One code a press: the list round and round, each press watched to a rest. */
function pressed(
  dialect: Dialect,
  faults: Faults,
  mode: CaseMode,
  profile: Profile,
  speed: number,
  seed: number,
  random: () => number,
): Pick<MadeCase, "data" | "truth" | "until"> {
  const codes = Object.values(faults).flat();
  const clear =
    dialect.empty?.kind === "group" && typeof dialect.empty.flashes === "number" ? dialect.empty.flashes : 1;
  const before = dialect.empty?.kind === "group" ? dialect.empty.beforeMs : 1000;
  const list: Run[][] = codes.length ? codes.map((c) => runsOf(dialect, c)!) : [[{ long: 0, short: clear }]];
  const presses = Math.max(2, Math.round(list.length * (1.2 + 1.7 * random())));
  const person = personOf(profile, random);
  const shown = codes.filter((_, k) => k < presses);
  const truth: Truth = {
    state: codes.length ? "codes" : "none",
    codes,
    shown: codes.length ? shown : [],
    cylinders: null,
    complete: presses >= list.length,
  };
  if (mode === "counts") {
    const counts: Called["counts"] = Array.from({ length: presses }, (_, k) => {
      const n = list[k % list.length].reduce((sum, r) => sum + r.long + r.short, 0);
      return random() < person.miscount ? Math.max(1, n + (random() < 0.5 ? 1 : -1)) : n;
    });
    return { data: counts, truth };
  }
  const vary = (ms: number) => ms * speed * (1 + JITTER * normal(random));
  const data: Omit<Press, "until">[] = [];
  const rest = dialect.rest === "lit" ? 1 : 0;
  let t = 1000 + 2000 * random();
  const taps = seed % 2 === 1;
  for (let k = 0; k < presses; k++) {
    const press = t;
    const edges: [number, 0 | 1][] = [[0, rest]];
    const flashes = [];
    let at = 0;
    for (const flash of runSection(dialect, list[k % list.length], before).flashes) {
      t += vary(flash.at - at);
      const start = t - press;
      t += vary(flash.ms);
      const end = t - press;
      edges.push([start, (1 - rest) as 0 | 1], [end, rest]);
      flashes.push({ start, end, flash });
      at = flash.at + flash.ms;
    }
    // Who presses on knows that nothing more comes: it rested longer than between two digits.
    t += vary(Math.max(dialect.gaps.flash, dialect.gaps.digit)) + 1500 + 2500 * random();
    const played = { flashes, edges, until: t - press };
    data.push(
      taps
        ? {
            press,
            taps: tap(dialect, played, person, random).map((x): Tap =>
              typeof x === "number" ? x + press : [x[0] + press, x[1]],
            ),
          }
        : { press, edges: film(played, CAMERAS[profile], random).map(([x, lit]) => [x + press, lit] as const) },
    );
  }
  return { data, truth, until: t };
}

/** Mostly one or two faults, seldom none or five. */
function listLength(random: () => number): number {
  const u = random();
  const upTo = [0.1, 0.5, 0.72, 0.87, 0.94].findIndex((p) => u < p);
  return upTo < 0 ? 5 : upTo;
}

function pick(from: readonly string[], n: number, random: () => number): string[] {
  const left = [...from];
  const out: string[] = [];
  while (out.length < n && left.length) out.push(...left.splice(Math.floor(random() * left.length), 1));
  return out;
}

function hash(text: string): number {
  let h = 2166136261;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16777619);
  return h >>> 0;
}
