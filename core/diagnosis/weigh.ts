import { checksOf, minutesOf, type Check, type Tool } from "./checks";
import { worthOf } from "./choose";
import type { Graph } from "./graph";
import type { Suspect } from "./suspect";
import { evidence, posterior, weighing } from "./infer";
import type { Failure } from "./kinds";
import type { Observed } from "./observations";
import { MOST_PRESENT, type Finding, type Network, type Seen } from "./network";

/** What was found out, in the terms of the graph. */
export interface Found {
  /** Codes that are there, as `system:code`. */
  present: readonly string[];
  /** Codes that the unit would have set and did not. */
  absent: readonly string[];
  /** Checks that were done, by their ids, and how each came out. */
  checks: readonly { id: string; bad: boolean }[];
  /** What was told and seen besides. */
  observed: Observed;
}

export const codeKey = (system: string, code: string): string => `${system}:${code}`;

/** A suspect with its chance, and the codes that it explains. */
export interface Weighed extends Suspect {
  /** Probability that it is wrong, after all that was found. */
  p: number;
  /** Codes that are there and that it can have set, as `system:code`. */
  explains: string[];
}

export interface ProposedCheck extends Check {
  /** Probability that it comes out bad, and what it tells a minute, bits. */
  bad: number;
  bitsPerMinute: number;
}

export interface Weighing {
  /** The likeliest first. */
  suspects: Weighed[];
  /** Checks not done yet, those that tell most a minute first. */
  checks: ProposedCheck[];
  /** Codes left out because too many are there at once. */
  leftOut: string[];
  /** Two checks, by their ids, whose outcomes hardly go together: one of them is best done again. */
  clash: [string, string] | null;
  /** Suspects, by their ids, of which each check that was done tells surely. */
  tested: Record<string, string[]>;
}

/** Suspects that somebody would call one thing: the wires of a circuit, whichever way they are damaged. */
export interface Group {
  id: string;
  /** The likeliest of them first. */
  suspects: Weighed[];
  /** Probability that at least one of them is wrong, taken as independent. */
  p: number;
}

/** Failures that are one thing to look at, whichever of them it is. */
const ONE_THING: Readonly<Partial<Record<Failure, string>>> = {
  "wire-open": "wires",
  "wire-short": "wires",
  "fuel-low": "fuel-pressure",
  "fuel-high": "fuel-pressure",
  unit: "the-unit",
  program: "the-unit",
};

/** The suspects as they are told, the likeliest first. */
export function grouped(suspects: readonly Weighed[]): Group[] {
  const by = new Map<string, Weighed[]>();
  for (const s of suspects) {
    const one = ONE_THING[s.failure];
    const id = one ? `${s.circuit?.id ?? s.system}/${one}` : s.id;
    by.set(id, [...(by.get(id) ?? []), s]);
  }
  return [...by]
    .map(([id, of]) => ({ id, suspects: of, p: 1 - of.reduce((q, s) => q * (1 - s.p), 1) }))
    .sort((a, b) => b.p - a.p);
}

/** The part of a graph that can explain what is there. */
function narrowed({ suspects, codes, observations }: Graph, present: readonly string[]): Graph {
  const there = codes.filter((c) => present.includes(codeKey(c.system, c.code)));
  const kept = [...new Set(there.flatMap((c) => c.links.map(([i]) => i)))].sort((a, b) => a - b);
  const place = new Map(kept.map((i, k) => [i, k]));
  const narrow = <F extends Finding>(f: F): F => ({
    ...f,
    links: f.links.flatMap(([i, shows]): [number, number][] => (place.has(i) ? [[place.get(i)!, shows]] : [])),
  });
  return {
    suspects: kept.map((i) => suspects[i]),
    codes: codes.map(narrow),
    observations: observations.map(narrow),
  };
}

/** What each check that is not done costs and tells. */
export interface AtHand {
  /** Tools that are there; null: all. */
  tools: readonly Tool[] | null;
}

/**
 * Suspects and checks by what was found: the posterior of a noisy-or network, and the checks by expected information a
 * minute. A check's outcome is a finding like a code.
 */
export function weigh(graph: Graph, found: Found, atHand: AtHand = { tools: null }): Weighing {
  const all = graph.codes.map((c) => codeKey(c.system, c.code)).filter((k) => found.present.includes(k));
  // Of very many bad outcomes the newest are weighed, so that codes keep their place.
  const bad = found.checks.filter((c) => c.bad).slice(-MOST_BAD);
  const present = all.slice(0, MOST_PRESENT - bad.length);
  const g = narrowed(graph, present);
  const checks = checksOf({ ...g, codes: g.codes.filter((c) => present.includes(codeKey(c.system, c.code))) });
  const findings: Finding[] = [...g.codes];
  const seen = { present: [] as number[], absent: [] as number[] };
  for (const [i, c] of g.codes.entries()) {
    const key = codeKey(c.system, c.code);
    if (present.includes(key)) seen.present.push(i);
    else if (found.absent.includes(key)) seen.absent.push(i);
  }
  // The rest of what was told is left aside where there is much: each finding that is present doubles the work.
  const told = found.observed.present.slice(0, Math.max(0, MOST_TOLD - present.length - bad.length));
  for (const o of g.observations) {
    if (told.includes(o.key)) seen.present.push(findings.length);
    else if (found.observed.absent.includes(o.key)) seen.absent.push(findings.length);
    else continue;
    findings.push(o);
  }
  const done = new Map(found.checks.filter((c) => !c.bad || bad.includes(c)).map((c) => [c.id, c.bad]));
  for (const check of checks)
    if (done.has(check.id)) {
      (done.get(check.id) ? seen.present : seen.absent).push(findings.length);
      findings.push(check);
    }
  const net: Network = { causes: g.suspects, findings };
  const p = posterior(net, seen);
  const before = checks.filter((c) => done.has(c.id));
  const open = checks.filter((c) => !done.has(c.id) && (!c.tool || (atHand.tools?.includes(c.tool) ?? true)));
  const worth = worthOf(net, seen, p, open);
  const suspects = g.suspects.map((s, i): Weighed => {
    const explains = g.codes.filter(
      (c) => present.includes(codeKey(c.system, c.code)) && c.links.some(([k, shows]) => k === i && shows >= SHOWS),
    );
    return { ...s, p: p[i], explains: explains.map((c) => codeKey(c.system, c.code)) };
  });
  const sorted = suspects.sort((a, b) => b.p - a.p);
  const [top] = grouped(sorted);
  // What is nearly sure is looked at, however little that tells: it is what gets mended.
  const confirms = (c: Check) =>
    top &&
    top.p >= STANDS_OUT &&
    c.links.some(([i, shows]) => shows >= CONFIRMS && top.suspects.some((x) => x.id === g.suspects[i].id));
  return {
    suspects: sorted,
    checks: open
      .map((c, i) => {
        const minutes = minutesOf(c, before);
        return { ...c, minutes, bad: worth[i].bad, bitsPerMinute: worth[i].bits / minutes };
      })
      .sort((a, b) => Number(confirms(b)) - Number(confirms(a)) || b.bitsPerMinute - a.bitsPerMinute),
    leftOut: all.slice(present.length),
    tested: Object.fromEntries(
      before.map((c) => [c.id, c.links.flatMap(([i, shows]) => (shows >= CONFIRMS ? [g.suspects[i].id] : []))]),
    ),
    clash: clashIn(
      net,
      seen,
      before.map((c) => [c.id, findings.indexOf(c)] as const),
    ),
  };
}

/** An outcome that was to be expected so seldom after all else that was found does not fit. */
const SELDOM = 0.06;
/** And one that is so likely again without one of the others does not fit with that one. */
const FITS = 0.15;

/** The outcome that fits least with all the rest, and the other outcome that it does not go with. */
function clashIn(
  net: Network,
  seen: Seen,
  done: readonly (readonly [id: string, finding: number])[],
): Weighing["clash"] {
  if (done.length < 2) return null;
  const without = (...left: number[]) =>
    evidence(
      weighing(net, {
        present: seen.present.filter((f) => !left.includes(f)),
        absent: seen.absent.filter((f) => !left.includes(f)),
      }),
    );
  const whole = without();
  const chances = done.map(([id, f]) => ({ id, f, p: whole / without(f) })).sort((a, b) => a.p - b.p);
  const [odd] = chances;
  if (!odd || !(odd.p < SELDOM)) return null;
  const [against] = chances
    .filter((x) => x !== odd)
    .map((x) => ({ ...x, fits: without(x.f) / without(odd.f, x.f) }))
    .sort((a, b) => b.fits - a.fits);
  return against && against.fits > FITS ? [odd.id, against.id] : null;
}

/** From here on a suspect stands out: it is looked at and mended before anything else is. */
export const STANDS_OUT = 0.8;
/** So surely a check shows what it is made to confirm. */
const CONFIRMS = 0.5;

/** Codes, bad outcomes and what was told, up to which what was told is weighed. */
const MOST_TOLD = 12;

/** So many bad outcomes are weighed at once. */
const MOST_BAD = 8;

/** A suspect that sets a code more seldom than that is not said to explain it. */
const SHOWS = 0.1;
