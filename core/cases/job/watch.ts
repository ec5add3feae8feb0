import { decode } from "../../flash/decode";
import type { Decoded } from "../../flash/answer";
import type { Dialect } from "../../flash/dialect/dialect";
import type { Lit } from "../../flash/dialect/encode";
import { EVEN } from "../../flash/seen/called";
import { nothingMore } from "../../flash/judge/settle";
import { evidenceOf } from "../../record/evidence";
import { seenWhole, watchOf } from "../../record/inputs";
import { resultFrom } from "../../record/readings";
import type { Input, Mark, Reading } from "../../record/types";
import { flashesNow } from "../../simulated/answers";
import type { LampNow } from "../../simulated/state";
import { callOut, CAMERAS, film, hold, tap, type Person } from "../watchers";
import type { Played } from "../lamp";

/** How one lamp is watched: from when to when, with which input, and what goes wrong. */
export interface WatchPlan {
  dialect: Dialect;
  lamp: LampNow;
  /** Wall clock, ms: when the key went on, and when watching begins. */
  keyOnAt: number;
  from: number;
  input: Input;
  eyes: Person;
  /** Watching ends before Klinko says so, after so many ms. */
  stopAfter: number | null;
  tapsLampTest: boolean;
  tapsKeyOn: boolean;
  miscallsLeadIn: boolean;
  reload: boolean;
  table: readonly string[];
  random: () => number;
}

/** The longest that anybody watches one lamp in one go, ms. */
const LONGEST = 420_000;
/** After so many looks at what Klinko says, even a patient person stops. */
const LOOKS = 5;

/** The flashes of a lamp from a time on, as they are seen from there, for so long. */
function seenFrom(lamp: LampNow, dialect: Dialect, from: number): Played {
  const now = flashesNow(lamp);
  const flashes: Lit[] = [];
  for (const f of now.flashes as Iterable<Lit>) {
    const start = now.since + f.start - from;
    if (start > LONGEST) break;
    const end = now.since + f.end - from;
    if (end > 0) flashes.push({ ...f, start, end });
  }
  const rest = dialect.rest === "lit" ? 1 : 0;
  const edges: Played["edges"] = [[0, rest]];
  for (const f of flashes) {
    if (f.start <= 0) edges[0][1] = (1 - rest) as 0 | 1;
    else edges.push([f.start, (1 - rest) as 0 | 1]);
    if (f.end < LONGEST) edges.push([f.end, rest]);
  }
  return { flashes, edges, until: LONGEST };
}

/** Watches a lamp until Klinko says that it is enough, or patience ends; what comes of it, and how long it took. */
export function watchLamp(plan: WatchPlan, blank: Reading): { reading: Reading; took: number } {
  const { dialect, input, random } = plan;
  const played = seenFrom(plan.lamp, dialect, plan.from);
  // A lamp that only shows its test has not blinked.
  const all = played.flashes.some((f) => f.flash.unit.kind !== "steady") ? marksOf(plan, played) : [];
  const round = roundOf(played);
  let until = plan.stopAfter ?? Math.min(LONGEST, round.lead + 1.2 * round.loop + 4000);
  const pause: [number, number] | null = plan.reload ? [until * 0.4, until * 0.4 + 4000 + 4000 * random()] : null;
  let reading = blank;
  for (let look = 0; ; look++) {
    // A flash that is seen to begin and not to end is told as that: the app leaves it out, and ends the watch before it.
    const begun = all
      .filter((m) => m.t < until && !(pause && m.t > pause[0] && m.t < pause[1]))
      .map((m) => (m.up !== undefined && m.up >= until ? { id: m.id, t: m.t } : m));
    const ends = watchOf(input).lengths ? seenWhole(begun, until) : { marks: begun, until };
    const { marks } = ends;
    const called = input === "counts" ? counted(plan, played, until) : null;
    reading = {
      ...blank,
      marks: called === null ? marks : [],
      ...(called !== null && { counts: called }),
      pauses: pause && called === null ? [pause] : [],
      until: called === null ? Math.round(ends.until) : 0,
    };
    const decoded: Decoded = decode(dialect, evidenceOf(reading, until, dialect), { table: plan.table });
    reading = { ...reading, result: resultFrom(decoded) };
    if (plan.stopAfter !== null || nothingMore(decoded) || look >= LOOKS || until >= LONGEST || !round.loop) break;
    until = Math.min(LONGEST, until + Math.max(6000, 0.6 * round.loop));
  }
  return { reading, took: until };
}

/** How long the show takes before it goes round, and how long a round is, as a person notes it, ms. */
function roundOf({ flashes }: Played): { lead: number; loop: number } {
  const first = flashes.find((f) => f.flash.unit.kind !== "steady");
  if (!first) return { lead: 20_000, loop: 0 };
  const even = first.flash.unit.kind === "even";
  if (even) return { lead: first.start + 8000, loop: 1 };
  const again = flashes.find((f) => f.start > first.start + 1000 && f.flash === first.flash);
  const last = flashes[flashes.length - 1];
  if (!again) return { lead: last.end + 9000, loop: 0 };
  return { lead: first.start, loop: again.start - first.start };
}

function marksOf(plan: WatchPlan, played: Played): Mark[] {
  const { dialect, input, eyes, random } = plan;
  const numbered = (list: Omit<Mark, "id">[]): Mark[] =>
    list
      .map((m) => ({ ...m, t: Math.max(0, Math.round(m.t)), ...(m.up !== undefined && { up: Math.round(m.up) }) }))
      .sort((a, b) => a.t - b.t)
      .map((m, i) => ({ ...m, id: i + 1 }));
  if (input === "hold") return numbered(hold(played, eyes, random).map(([t, up]) => ({ t, up })));
  if (input === "camera") {
    const edges = film(played, CAMERAS.normal, random);
    const away = dialect.rest === "lit" ? 0 : 1;
    const spans: Omit<Mark, "id">[] = [];
    for (let i = 0; i + 1 < edges.length; i++)
      if (edges[i][1] === away) spans.push({ t: edges[i][0], up: edges[i + 1][0] });
    return numbered(spans);
  }
  const taps = tap(dialect, played, eyes, random).map((t): Omit<Mark, "id"> =>
    typeof t === "number" ? { t } : { t: t[0], kind: t[1] },
  );
  const kind = dialect.digits.style === "long-short" ? ("l" as const) : undefined;
  const extra = (at: number) => taps.push({ t: at + eyes.reaction, ...(kind && input === "keys" && { kind }) });
  const test = played.flashes.find((f) => f.flash.unit.kind === "steady");
  if (plan.tapsLampTest && test && test.start > 0) extra(test.start);
  if (plan.tapsKeyOn && plan.keyOnAt > plan.from) extra(plan.keyOnAt - plan.from);
  return numbered(input === "tap" ? taps.map(({ t }) => ({ t })) : taps);
}

function counted(plan: WatchPlan, played: Played, until: number): string {
  const { dialect, eyes, random } = plan;
  const runs = callOut(
    dialect,
    { ...played, until, flashes: played.flashes.filter((f) => f.start < until) },
    eyes,
    random,
  );
  const lead = dialect.phases.find((p) => p.kind === "code" && p.means === "mode");
  // Nobody counts what flashes evenly without end.
  if (played.flashes.find((f) => f.flash.unit.kind !== "steady")?.flash.unit.kind === "even") return EVEN;
  const words = runs.map((r) => (typeof r === "number" ? String(r) : `${r[0]}-${r[1]}`));
  if (plan.miscallsLeadIn && lead?.kind === "code") return [...words.slice(0, 2 * lead.times), ...words].join(" ");
  return words.join(" ");
}
