import { logAdd } from "../trellis/log";
import type { Decoded } from "../answer";
import { anythingLog } from "../explain/anything";
import { decide } from "../judge/decide";
import type { Dialect } from "../dialect/dialect";
import { firstOf, trackOf, type Evidence, type Filmed } from "../seen/evidence";
import { grammarOf } from "../walk/grammar";
import { OBSERVERS } from "../seen/observer";
import { priorOf } from "../search/prior";
import { search } from "../search/search";
import { timedView } from "../explain/timed-view";
import { walksOf } from "../walk/walks";
import { edgesOf } from "./film";
import { marksOf, type Marks } from "./marks";
import { propose, type Known, type Proposed } from "./propose";

/** What can be said of how a lamp talks. */
const PROPERTIES = [
  "rest",
  "style",
  "digits",
  "flash",
  "digitGap",
  "repeat",
  "code",
  "pass",
  "times",
  "fixed",
  "round",
  "order",
] as const;
export type Property = (typeof PROPERTIES)[number];

/** What would make surer how it talks: the rest of the round, a second code, an empty memory, more of the same. */
export type Settles = "a-round" | "two-codes" | "after-the-clear" | "longer";

export interface Learned {
  /** The likeliest way, ready for a pack; null where nothing was seen that could be a list. */
  dialect: Dialect | null;
  /** Probability of each of its properties; the codes' own are in `decoded`. */
  certainty: Record<Property, number>;
  /** What each watch says by the likeliest way, the certainties shared with the other ways. */
  decoded: Decoded[];
  /** Probability that it is no list that the format could show. */
  none: number;
  settles: Settles[];
}

/** Ways that are weighed whole, of all that were proposed; what a quick look at them leaves so far behind is not. */
const WEIGHED = 14;
/** So many more ways in which a code belongs to the show. */
const FIXED = 4;
/** A way this far behind the best at the first look, or behind no list at all, is not gone into, nats. */
const BEHIND = 60;
/** Of a hand anything follows some grammar more or less; of a camera's edges the first look is poorer. */
const HOPELESS = { edges: 400, holds: 14, taps: 14 } as const;
/** A look at a way goes over so many marks. */
const GLANCED = 120;
/** Before anything is seen, a blinking lamp is something else so often. */
const NOTHING = 0.4;
/** A search over a way of talking that may be wrong need not go to the end. */
const EFFORT = 0.4;
/** A reading less certain than this explains nothing well; so many ways are then gone into without sparing. */
const UNSURE = 0.5;
const UNSPARED = 4;
/** After so many that explain nothing, no other is tried. */
const ENOUGH = 9;
/** A way so far behind the likeliest has no share that could be told, nats. */
const BEATEN = 25;
/** What is so far behind is surely not so, nats. */
const SURELY = { edges: 60, holds: 12, taps: 12 } as const;
/** Rests that differ by less are the same rest. */
const SAME = 0.15;

/** A way, what it explains, and the lists by which it does. */
interface Searched {
  p: Proposed;
  log: number;
  readings: (() => Decoded)[];
}

interface Weighed extends Proposed {
  log: number;
  decoded: Decoded[];
}

/**
 * How a lamp talks, from marks alone: ways of talking are proposed from the rests between the flashes, each is held against what was seen
 * by the same search that reads a known lamp, and the probabilities are shared out by that (Bayesian model comparison; every free length
 * pays for itself in the prior). Several watches of one lamp add up.
 * @param seen watches of the same lamp, each with its own codes
 */
export function learn(seen: readonly (Evidence | Filmed)[], known: Known = {}): Learned {
  const watches = seen.flatMap((w) => (w.mode === "levels" ? (edgesOf(w) ?? []) : w));
  const taken = watches.map(marksOf);
  const proposed = distinct(taken.flat().flatMap((m) => propose(m, known)));
  const quick = proposed.map((p) => ({
    p,
    log: p.logPrior + watches.reduce((sum, w) => sum + glance(p.dialect, w), 0),
  }));
  quick.sort((a, b) => b.log - a.log);
  const mode = watches.find((w) => w.mode !== "edges")?.mode ?? "edges";
  const none = Math.log(NOTHING) + nothing(taken);
  // What no walk through a way's grammar explains, no list of it does.
  const least = Math.max((quick[0]?.log ?? 0) - BEHIND, nothing(taken, GLANCED) - HOPELESS[mode]);
  const able = quick.filter((q) => q.log > least);
  // That a code belongs to the show is always tried too: else it would be surely told as a fault.
  const best = [...able.slice(0, WEIGHED), ...able.slice(WEIGHED).filter(hasFixed).slice(0, FIXED)];
  const first: Searched[] = [];
  const hopeless = () => first.every((w) => w.log < none - SURELY[mode]);
  for (const { p } of best) {
    first.push(weigh(p, watches, EFFORT));
    if (first.length >= ENOUGH && hopeless()) break;
  }
  first.sort(likelier);
  const weighed = hopeless() ? first.slice(0, 1).map(told) : likeliest(first, watches);
  if (!weighed.length || !Number.isFinite(weighed[0].log))
    return { dialect: null, certainty: blank(0), decoded: [], none: 1, settles: ["longer"] };
  const list = Math.log(1 - NOTHING);
  const sum = weighed.reduce((all, w) => logAdd(all, w.log + list + Math.log1p(w.alike)), none);
  /** @param each whether ways that show the same count as well, though they mean another code as fixed */
  const share = (holds: (w: Weighed) => boolean, each = false): number =>
    Math.min(
      1,
      weighed.reduce((all, w) => all + (holds(w) ? (each ? 1 + w.alike : 1) * Math.exp(w.log + list - sum) : 0), 0),
    );
  // Among ways that say the same the likeliest; among what they say what is likeliest in all.
  const said = (w: Weighed) => w.decoded.map((d) => d.codes.join(" ")).join("|");
  const most = weighed.map((w) => ({ w, p: share((v) => said(v) === said(w)) })).reduce((a, b) => (b.p > a.p ? b : a));
  const lead = most.w;
  const certainty = Object.fromEntries(
    PROPERTIES.map((p) => [p, share((w) => same(p, w.dialect, lead.dialect), p !== "fixed")]),
  ) as Record<Property, number>;
  return {
    dialect: lead.dialect,
    certainty,
    decoded: lead.decoded.map((d, i) => shared(d, i, share)),
    none: Math.exp(none - sum),
    settles: settlesOf(lead, certainty),
  };
}

const hasFixed = ({ p }: { p: Proposed }) => p.dialect.phases.some((phase) => phase.kind === "code");

const likelier = (a: { log: number }, b: { log: number }) => b.log - a.log;

const told = ({ p, log, readings }: Searched): Weighed => ({ ...p, log, decoded: readings.map((read) => read()) });

function distinct(proposed: readonly Proposed[]): Proposed[] {
  const rough = (ms: number) => Math.round(Math.log(Math.max(1, ms)) / Math.log(1.08));
  const key = ({ dialect: { gaps, marks, digits, order, phases, loopFrom, rest } }: Proposed) =>
    JSON.stringify([
      Object.values(gaps).map(rough),
      rough(marks.short),
      rough(marks.long ?? 1),
      digits,
      order,
      phases.map((p) => (p.kind === "group" ? p.flashes : p.kind === "steady" ? p.kind : p)),
      loopFrom,
      rest,
    ]);
  return [...new Map(proposed.map((p) => [key(p), p])).values()];
}

/** What a way explains whatever the list: one look, far cheaper than the search for its best list. */
function glance(dialect: Dialect, watch: Evidence): number {
  const track = trackOf(watch, dialect);
  if (track.onset.length < 2) return 0;
  const grammar = grammarOf(dialect);
  return Math.max(...OBSERVERS[track.mode].map((o) => walksOf(grammar, track, 1, o, GLANCED, false).logLik));
}

/** What the likeliest of the ways read; where none explains it well, but it may be a list, these are gone into without sparing. */
function likeliest(first: readonly Searched[], watches: readonly Evidence[]): Weighed[] {
  const read = first.filter((w) => w.log > first[0].log - BEATEN).map(told);
  if (read[0].decoded.every((d) => d.confidence >= UNSURE)) return read;
  const few = first.slice(0, UNSPARED).map(({ p }) => told(weigh(p, watches, 1)));
  return [...few, ...read.slice(UNSPARED)].sort(likelier);
}

function weigh(p: Proposed, watches: readonly Evidence[], effort: number): Searched {
  let log = p.logPrior;
  const readings = watches.map((watch) => {
    const track = trackOf(watch, p.dialect);
    const view = timedView(p.dialect, track);
    const found = search(p.dialect, view, priorOf(p.dialect), effort, p.read);
    log += found.reduce((sum, c) => logAdd(sum, c.log), -Infinity);
    return () => decide(p.dialect, view, found, [...track.onset]);
  });
  return { p, log, readings };
}

/** Log probability of all watches, or of their first marks, if there is no list in them. */
function nothing(taken: readonly (readonly Marks[])[], most = Infinity): number {
  return taken.reduce(
    (sum, ways) => sum + (ways.length ? Math.max(...ways.map(({ track }) => anythingLog(firstOf(track, most)))) : 0),
    0,
  );
}

const near = (a: number, b: number) => Math.abs(Math.log(Math.max(1, a) / Math.max(1, b))) < SAME;

function same(property: Property, a: Dialect, b: Dialect): boolean {
  switch (property) {
    case "rest":
      return a.rest === b.rest;
    case "style":
      return a.digits.style === b.digits.style;
    case "digits":
      return a.digits.style === b.digits.style && a.digits.count.join() === b.digits.count.join();
    case "flash":
      return near(a.gaps.flash, b.gaps.flash) && near(a.marks.short, b.marks.short);
    case "digitGap":
      return near(a.gaps.digit, b.gaps.digit);
    case "repeat":
    case "code":
    case "pass":
      return near(a.gaps[property], b.gaps[property]);
    case "times":
      return timesOf(a) === timesOf(b);
    case "fixed":
      return fixedOf(a) === fixedOf(b);
    case "round":
      return (a.loopFrom === null) === (b.loopFrom === null);
    case "order":
      return a.order === b.order;
  }
}

const timesOf = ({ phases }: Dialect) => phases.find((p) => p.kind === "stored")?.times;
const fixedOf = ({ phases }: Dialect) =>
  phases
    .map((p) => (p.kind === "code" ? `${p.means} ${p.code} ${p.times}` : p.kind === "group" ? `${p.flashes}` : ""))
    .join("/");

/** Certainties of a reading, with what the other ways of talking read of the same watch. */
function shared(d: Decoded, watch: number, share: (holds: (w: Weighed) => boolean) => number): Decoded {
  const codesOf = (w: Weighed) => w.decoded[watch].codes;
  const said = d.codes.join(" ");
  return {
    ...d,
    confidence: d.confidence * share((w) => codesOf(w).join(" ") === said),
    codeConfidence: Object.fromEntries(
      d.codes.map((c) => [c, (d.codeConfidence[c] ?? 0) * share((w) => codesOf(w).includes(c))]),
    ),
    complete: d.complete && share((w) => w.decoded[watch].complete) > 0.99,
  };
}

function settlesOf({ decoded, dialect }: Weighed, certainty: Record<Property, number>): Settles[] {
  const settles: Settles[] = [];
  const rounds = Math.max(0, ...decoded.flatMap((d) => Object.values(d.roundsShown)));
  const codes = new Set(decoded.flatMap((d) => d.codes));
  if (dialect.loopFrom !== null && rounds < 2) settles.push("a-round");
  if (codes.size < 2) settles.push("two-codes");
  if (certainty.fixed < 0.95 && codes.size) settles.push("after-the-clear");
  if (!settles.length && PROPERTIES.some((p) => certainty[p] < 0.8)) settles.push("longer");
  return settles;
}

const blank = (p: number) => Object.fromEntries(PROPERTIES.map((name) => [name, p])) as Record<Property, number>;
