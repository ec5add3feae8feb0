import { READY_SHAPES, type Connector, type Pack, type Place, type Variant } from "./pack";
import { holds, trapsFor, type VehicleFacts } from "./scope";
import { connectorIdOf, tellsByDashLamp, type Trap, type Way } from "./way";

/** What somebody can say who stands at the vehicle. All of it may be missing. */
export interface Asked {
  make?: string;
  variant?: string;
  year?: number;
  engine?: string;
  market?: string;
  seen: Seen;
}

export interface Seen {
  /** A ready shape, or the words of one that a pack draws. */
  shape?: string;
  colour?: string;
  cavities?: number;
  place?: Place;
  symbol?: string;
  /** Does a lamp of the unit light in the dash with the key on? */
  lamp?: "yes" | "no";
}

export interface FoundWay {
  pack: Pack;
  variant: Variant;
  way: Way;
  connector: Connector | null;
  /** Systems that it reads here. */
  systems: string[];
  probability: number;
  reasons: string[];
  against: string[];
  traps: Trap[];
}

/** Something to look at that tells the likely ways apart. */
export interface Question {
  what: keyof Seen | "year" | "engine" | "market";
  question: string;
  /** For each answer, the models that it would leave. */
  answers: { answer: string; ways: string[] }[];
}

export interface Finding {
  ways: FoundWay[];
  /** Probability that no table here holds for the vehicle. */
  outside: number;
  /** Why, where that is the likeliest. */
  outsideWhy: string | null;
  tellApart: Question[];
}

/** How often a thing is seen as the pack has it; colours fade and shells were swapped. */
const FITS: Record<keyof Seen, number> = {
  shape: 0.88,
  colour: 0.8,
  cavities: 0.93,
  place: 0.85,
  symbol: 0.9,
  lamp: 0.93,
};
/** The same thing on any vehicle at all. */
const ANYWHERE: Record<keyof Seen, number> = {
  shape: 0.25,
  colour: 0.2,
  cavities: 0.08,
  place: 0.2,
  symbol: 0.12,
  lamp: 0.5,
};
/** Who looks at a plug mostly does so where the way in is one. */
const NO_PLUG = 0.7;
/** Vehicles that are in no pack. */
const OUTSIDE = 0.2;
const LIKELY = 0.04;

/** Ranked ways in, by Bayes' rule over all variants of all packs and the vehicles outside them; each with its reasons. */
export function findWays(packs: readonly Pack[], asked: Asked): Finding {
  const candidates = packs.flatMap((pack) => pack.variants.flatMap((variant) => candidatesOf(pack, variant, asked)));
  const total = candidates.length || 1;
  let sum = OUTSIDE * (asked.make ? 0.15 : 1);
  for (const key of Object.keys(asked.seen) as (keyof Seen)[]) if (asked.seen[key] !== undefined) sum *= ANYWHERE[key];
  const outsideWeight = sum;
  const weighed = candidates.map((c) => {
    const { weight, reasons, against } = weigh(c, asked);
    sum += weight / total;
    return { ...c, weight: weight / total, reasons, against };
  });
  const ways = weighed
    .map(({ weight, ...c }) => ({ ...c, probability: weight / sum }))
    .filter((c) => c.probability > 0.005)
    .sort((a, b) => b.probability - a.probability);
  const outside = outsideWeight / sum;
  return {
    ways,
    outside,
    outsideWhy: whyOutside(packs, asked, ways, outside),
    tellApart: questions(
      ways.filter((w) => w.probability > LIKELY),
      asked,
    ),
  };
}

type Candidate = Omit<FoundWay, "probability" | "reasons" | "against">;

function candidatesOf(pack: Pack, variant: Variant, asked: Asked): Candidate[] {
  if (asked.make && asked.make !== pack.id) return [];
  if (asked.variant && asked.variant !== variant.id) return [];
  if (asked.engine && !variant.engines.some((e) => e.id === asked.engine)) return [];
  if (asked.market && !variant.markets.includes(asked.market)) return [];
  if (asked.year && (asked.year < variant.years[0] || asked.year > variant.years[1])) return [];
  const traps = possibleTraps(variant, asked);
  const facts = factsOf(variant, asked);
  if (facts && trapsFor(variant, facts).some((t) => t.outside)) return [];
  const byWay = new Map<string, Candidate>();
  for (const s of variant.systems) {
    const way = pack.ways.find((w) => w.id === s.way);
    const system = pack.systems.find((x) => x.id === s.system);
    const inScope = facts
      ? holds(s.scope, facts)
      : !asked.year || !s.scope?.years || (asked.year >= s.scope.years[0] && asked.year <= s.scope.years[1]);
    if (!way || !system || !inScope) continue;
    const connector = pack.connectors.find((c) => c.id === connectorIdOf(way)) ?? null;
    const known = byWay.get(way.id) ?? { pack, variant, way, connector, systems: [], traps };
    byWay.set(way.id, { ...known, systems: [...known.systems, system.name] });
  }
  return [...byWay.values()];
}

/** All facts, where all are known. */
function factsOf(variant: Variant, asked: Asked): VehicleFacts | null {
  const engine = asked.engine ?? (variant.engines.length === 1 ? variant.engines[0].id : undefined);
  const market = asked.market ?? (variant.markets.length === 1 ? variant.markets[0] : undefined);
  if (!asked.year || !engine || !market) return null;
  return { variant: variant.id, year: asked.year, engine, market };
}

/** Traps that may lie at this vehicle, as far as it is known. */
function possibleTraps(variant: Variant, asked: Asked): Trap[] {
  return (variant.traps ?? []).filter(({ scope }) => {
    const { year, engine, market } = asked;
    if (year && scope?.years && (year < scope.years[0] || year > scope.years[1])) return false;
    if (engine && scope?.engines && !scope.engines.includes(engine)) return false;
    return !(market && scope?.markets && !scope.markets.includes(market));
  });
}

function weigh(c: Candidate, asked: Asked): { weight: number; reasons: string[]; against: string[] } {
  const reasons: string[] = [];
  const against: string[] = [];
  let weight = 1;
  if (asked.make) reasons.push(`${c.pack.make}, as you say`);
  if (asked.year) reasons.push(`${asked.year} lies in ${c.variant.years.join(" to ")}`);
  for (const key of Object.keys(asked.seen) as (keyof Seen)[]) {
    const value = asked.seen[key];
    if (value === undefined) continue;
    const has = valueOf(c, key);
    // A way without a plug says little about the plug that was looked at.
    if (has === null) {
      weight *= ANYWHERE[key] * NO_PLUG;
      continue;
    }
    const fits = has.some((h) => String(h).toLowerCase() === String(value).toLowerCase());
    weight *= fits ? FITS[key] : (1 - FITS[key]) * ANYWHERE[key] * 2;
    (fits ? reasons : against).push(fits ? sayFit(key, String(value)) : sayMisfit(key, has.map(String)));
  }
  return { weight, reasons, against };
}

/** What a way has of a thing that can be seen; null where it has nothing of the kind. */
function valueOf({ way, connector }: Candidate | FoundWay, key: keyof Seen): (string | number)[] | null {
  if (key === "lamp") return [tellsByDashLamp(way) ? "yes" : "no"];
  if (!connector) return null;
  switch (key) {
    case "shape":
      return [shapeOf(connector)];
    case "colour":
      return [connector.colour];
    case "cavities":
      return [connector.cavities.length];
    case "place":
      return [connector.place];
    case "symbol":
      return connector.symbols?.length ? connector.symbols : ["none"];
  }
}

export const PLACE_WORDS: Record<Place, string> = {
  "under-dash": "under the dash",
  glovebox: "behind the glovebox",
  "engine-bay": "in the engine bay",
  "under-seat": "under a seat",
  boot: "in the boot",
  console: "in the console",
};
const SHAPE_WORDS: Record<(typeof READY_SHAPES)[number], string> = {
  block: "a rectangular block",
  "round-ended": "rounded at both ends",
  round: "round",
  trapezoid: "wider on one side",
};
export const shapeWords = (shape: string): string => (SHAPE_WORDS as Record<string, string>)[shape] ?? shape;

/** How a plug's shape is called among others: a ready one by its name, one of its own by its words. */
export const shapeOf = ({ shape, outline }: Pick<Connector, "shape" | "outline">): string => outline?.words ?? shape;

/** A shape to choose among, with what it takes to draw it. */
export interface PlugShape extends Pick<Connector, "shape" | "outline"> {
  id: string;
  /** Of the drawing, where the outline is its own. */
  size?: Connector["size"];
}

/** The ready shapes, and each one that a pack draws. */
export function shapesIn(packs: readonly Pack[]): PlugShape[] {
  const own = packs
    .flatMap((p) => p.connectors)
    .filter((c) => c.outline)
    .map((c) => ({ id: shapeOf(c), shape: c.shape, outline: c.outline, size: c.size }));
  const ready = READY_SHAPES.map((shape) => ({ id: shape, shape }));
  return [...ready, ...new Map(own.map((s) => [s.id, s])).values()];
}

const sayFit = (key: keyof Seen, value: string) =>
  ({
    shape: `it is ${shapeWords(String(value))}`,
    colour: `it is ${value}`,
    cavities: `it has ${value} cavities`,
    place: `it sits ${PLACE_WORDS[value as Place]}`,
    symbol: `"${value}" stands on it`,
    lamp: value === "yes" ? "its lamp is there" : "it needs no lamp in the dash",
  })[key];
const sayMisfit = (key: keyof Seen, has: string[]) =>
  ({
    shape: `its plug is ${shapeWords(has[0])}`,
    colour: `its plug is ${has.join(" or ")}`,
    cavities: `its plug has ${has[0]} cavities`,
    place: `its plug sits ${PLACE_WORDS[has[0] as Place]}`,
    symbol: has[0] === "none" ? "nothing stands on its plug" : `"${has.join('", "')}" should stand on it`,
    lamp: has[0] === "yes" ? "it needs a lamp in the dash" : "it needs no lamp in the dash",
  })[key];

function whyOutside(packs: readonly Pack[], asked: Asked, ways: readonly FoundWay[], outside: number): string | null {
  const pack = packs.find((p) => p.id === asked.make);
  if (pack && !ways.length) {
    const variants = pack.variants.filter((v) => !asked.variant || v.id === asked.variant);
    for (const v of variants) {
      const facts = factsOf(v, asked);
      const trap = facts && trapsFor(v, facts).find((t) => t.outside);
      if (trap && facts.year >= v.years[0] && facts.year <= v.years[1]) return trap.text;
    }
    const span = variants.map((v) => `${v.model} ${v.years.join(" to ")}`).join("; ");
    return `${pack.make} of ${asked.year ?? "that year"} is outside these tables. They cover ${span}.`;
  }
  if (outside < 0.5) return null;
  return "What you see fits no table here. A code from another make's table would mislead: look for the vehicle's own manual.";
}

const QUESTIONS: Record<keyof Seen, string> = {
  shape: "What shape is the plug?",
  colour: "What colour is its shell?",
  cavities: "How many cavities does it have?",
  place: "Where does it sit?",
  symbol: "What stands on it or in its lid?",
  lamp: "Does a lamp of the unit light in the dash with the key on?",
};

/** What to look at next: that whose answer would leave least in doubt (expected entropy), the best three. */
function questions(ways: readonly FoundWay[], asked: Asked): Question[] {
  if (ways.length < 2) return [];
  const nameOf = (w: FoundWay) => w.variant.model;
  const say = (key: keyof Seen, value: string | number) =>
    key === "shape" ? shapeWords(String(value)) : key === "place" ? PLACE_WORDS[value as Place] : String(value);
  const total = ways.reduce((s, w) => s + w.probability, 0);
  const asks = (Object.keys(QUESTIONS) as (keyof Seen)[])
    .filter((key) => asked.seen[key] === undefined)
    .map((key) => {
      const groups = new Map<string, FoundWay[]>();
      for (const w of ways) {
        const answer = valueOf(w, key)?.[0];
        const text = answer === undefined ? "there is no plug" : say(key, answer);
        groups.set(text, [...(groups.get(text) ?? []), w]);
      }
      const left = [...groups.values()].reduce((s, g) => {
        const share = g.reduce((x, w) => x + w.probability, 0) / total;
        return s + share * entropy(g.map((w) => w.probability));
      }, 0);
      return { key, left, groups };
    })
    .filter((q) => q.groups.size > 1)
    .sort((a, b) => a.left - b.left);
  return asks.slice(0, 3).map(({ key, groups }) => ({
    what: key,
    question: QUESTIONS[key],
    answers: [...groups].map(([answer, g]) => ({ answer, ways: [...new Set(g.map(nameOf))] })),
  }));
}

function entropy(weights: readonly number[]): number {
  const sum = weights.reduce((a, b) => a + b, 0);
  return -weights.reduce((s, w) => s + (w > 0 ? (w / sum) * Math.log2(w / sum) : 0), 0);
}
