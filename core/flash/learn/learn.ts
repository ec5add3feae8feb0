import { logAdd } from "../trellis/log";
import type { Decoded } from "../answer";
import { decide } from "../judge/decide";
import type { Dialect } from "../dialect/dialect";
import { trackOf, type Evidence, type Filmed } from "../seen/evidence";
import { priorOf } from "../search/prior";
import { search, sketch } from "../search/search";
import { timedView } from "../explain/timed-view";
import { edgesOf } from "./film";
import { marksOf } from "./marks";
import { nothing } from "./nothing";
import { PROPERTIES, same, toldApart, type Property } from "./properties";
import type { Known, Proposed } from "./propose";
import { sortedWays } from "./sorted";
import { likelier, waysOf } from "./ways";

export type { Property } from "./properties";

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

/** Before anything is seen, a blinking lamp is something else so often. */
const NOTHING = 0.4;
/** A search over a way of talking that may be wrong need not go to the end. */
const EFFORT = 0.4;
/** A short one tells which are worth more: so many. */
const ROUGH = 0.2;
const LONGER = 11;
/** A reading less certain than this explains nothing well; so many ways are then gone into without sparing. */
const UNSURE = 0.5;
const UNSPARED = 4;
/** After so many that explain nothing, no other is tried. */
const ENOUGH = 9;
/** A way so far behind the likeliest has no share that could be told, nats. */
const BEATEN = 25;
/** One that is closer than this is read by a lamp that sorts its codes too, nats. */
const CLOSE = 6;
/** What is so far behind is surely not so, nats. */
const SURELY = { edges: 60, holds: 12, taps: 12 } as const;

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
 * How a lamp talks, from marks alone: ways of talking are proposed from the rests between the flashes and made better one by one; each is
 * held against what was seen by the same search that reads a known lamp, and the probabilities are shared out by that (Bayesian model
 * comparison; every free length pays for itself in the prior). Several watches of one lamp add up.
 * @param seen watches of the same lamp, each with its own codes
 */
export function learn(seen: readonly (Evidence | Filmed)[], known: Known = {}): Learned {
  const watches = seen.flatMap((w) => (w.mode === "levels" ? (edgesOf(w) ?? []) : w));
  const taken = watches.map(marksOf);
  const mode = watches.find((w) => w.mode !== "edges")?.mode ?? "edges";
  const none = Math.log(NOTHING) + nothing(taken);
  const first: Searched[] = [];
  const hopeless = () => first.every((w) => w.log < none - SURELY[mode]);
  // A short search tells which ways are worth a longer one.
  const rough = waysOf(taken, watches, known)
    .map((p) => ({ p, log: sketched(p, watches) }))
    .sort(likelier);
  for (const { p } of rough.slice(0, LONGER)) {
    first.push(weigh(p, watches, EFFORT));
    if (first.length >= ENOUGH && hopeless()) break;
  }
  first.sort(likelier);
  const weighed = hopeless()
    ? first.slice(0, 1).map(told)
    : likeliest(
        toldApart(first, ({ p }) => p.dialect),
        watches,
      );
  weighed.push(...risen(weighed, watches));
  weighed.sort(likelier);
  if (!weighed.length || !Number.isFinite(weighed[0].log))
    return { dialect: null, certainty: blank(0), decoded: [], none: 1, settles: ["longer"] };
  const sum = weighed.reduce((all, w) => logAdd(all, w.log + Math.log(1 - NOTHING) + Math.log1p(w.alike)), none);
  const list = Math.log(1 - NOTHING);
  /** @param each whether ways that show the same count as well, though they mean another code as fixed */
  const mean = (of: (w: Weighed) => number, each = false): number =>
    Math.min(
      1,
      weighed.reduce((all, w) => all + of(w) * (each ? 1 + w.alike : 1) * Math.exp(w.log + list - sum), 0),
    );
  // What is said most probably, by whichever way; of the ways that say so the likeliest.
  const probably = (own: Weighed) =>
    mean((w) => w.decoded.reduce((all, d, i) => all * saidBy(d, own.decoded[i].codes), 1));
  const most = weighed.map((w) => ({ w, p: probably(w) })).reduce((a, b) => (b.p > a.p ? b : a));
  const lead = most.w;
  const certainty = Object.fromEntries(
    PROPERTIES.map((p) => [p, mean((w) => Number(same(p, w.dialect, lead.dialect)), p !== "fixed")]),
  ) as Record<Property, number>;
  return {
    dialect: lead.dialect,
    certainty,
    decoded: lead.decoded.map((d, i) => shared(d, i, mean)),
    none: Math.exp(none - sum),
    settles: settlesOf(lead, certainty),
  };
}

const told = ({ p, log, readings }: Searched): Weighed => ({ ...p, log, decoded: readings.map((read) => read()) });

/** What the likeliest of the ways read; where none explains it well, but it may be a list, these are gone into without sparing. */
function likeliest(first: readonly Searched[], watches: readonly Evidence[]): Weighed[] {
  const read = first.filter((w) => w.log > first[0].log - BEATEN).map(told);
  if (read[0].decoded.every((d) => d.confidence >= UNSURE)) return read;
  const few = first.slice(0, UNSPARED).map(({ p }) => told(weigh(p, watches, 1)));
  return [...few, ...read.slice(UNSPARED)].sort(likelier);
}

/** Where the codes that were read rise, from wherever their list is come upon, the lamp may sort them: so they are read too. */
function risen(weighed: readonly Weighed[], watches: readonly Evidence[]): Weighed[] {
  return weighed
    .filter(({ log, decoded }) => log > weighed[0].log - CLOSE && decoded.some(({ codes }) => codes.length > 1))
    .flatMap((w) => sortedWays(w))
    .map((p) => told(weigh(p, watches, EFFORT)));
}

/** What a short search finds a way to explain. */
function sketched(p: Proposed, watches: readonly Evidence[]): number {
  return watches.reduce(
    (sum, watch) =>
      sum + sketch(p.dialect, timedView(p.dialect, trackOf(watch, p.dialect)), priorOf(p.dialect), ROUGH, p.read),
    p.logPrior,
  );
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

/** How probably a reading's list is this one. */
function saidBy({ codes, confidence, runnerUp }: Decoded, said: readonly string[]): number {
  if (codes.join(" ") === said.join(" ")) return confidence;
  return runnerUp && runnerUp.codes.join(" ") === said.join(" ") ? runnerUp.probability : 0;
}

/** Certainties of a reading, with what the other ways of talking read of the same watch. */
function shared(d: Decoded, watch: number, mean: (of: (w: Weighed) => number) => number): Decoded {
  const read = (w: Weighed) => w.decoded[watch];
  return {
    ...d,
    confidence: mean((w) => saidBy(read(w), d.codes)),
    codeConfidence: Object.fromEntries(d.codes.map((code) => [code, mean((w) => read(w).codeConfidence[code] ?? 0)])),
    complete: d.complete && mean((w) => Number(read(w).complete)) > 0.99,
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
