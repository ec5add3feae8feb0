import { align, foldedIndex, score, type Score } from "./align";
import { countsCylinders, memoriesOf, type Dialect, type Faults, type Memory } from "./dialect";
import { possibleFaults } from "./digits";
import { trackOf, type Evidence, type Track } from "./evidence";
import { flatten, type Flat } from "./flat";
import { OBSERVERS, type Observer } from "./observer";
import { firstLists, firstPairs, keyOf, neighbours, poolOf, type Hypothesis } from "./propose";
import { firstReading } from "./reading";
import { isEmpty, showOf, type Show, type Unit } from "./show";
import { likelyTempi, TEMPO_MAX, TEMPO_MIN } from "./tempo";

export type State = "codes" | "none" | "dark" | "steady" | "unclear";

/** What a reading says, and how surely. Certainties are posterior probabilities, 0 to 1. */
export interface Decoded {
  state: State;
  /** Faults shown in full, in the order shown; the union where there are two memories. */
  codes: string[];
  memories: Partial<Record<Memory, string[]>>;
  cylinders: number | null;
  /** Every fault of the list was shown in full: nothing more to come. */
  complete: boolean;
  completeness: number;
  confidence: number;
  codeConfidence: Record<string, number>;
  /** The best rival that says something else. */
  runnerUp: { codes: string[]; state: State; probability: number } | null;
  /** Factor of this unit on the dialect's nominal times. */
  tempo: number;
  /** Onsets of the marks that were used, ms, and for each what it belongs to; null for a spurious one. */
  onsets: number[];
  assignment: (Assigned | null)[];
  /** Flashes that should have been seen and were not, with the time at which they should have come. */
  missed: (Assigned & { at: number; ms: number })[];
  /** How often each code was shown in full. */
  timesShown: Record<string, number>;
  /** In how many rounds of the list each code was shown in full. */
  roundsShown: Record<string, number>;
  /** Why the marks do not fit the dialect, or null where they do. */
  misfit: string | null;
}

/** A mark's place in the show. */
export interface Assigned {
  unit: Unit;
  digit: number;
  /** Each digit is a run of its own (else one run is the whole code). */
  counted: boolean;
  /** Flash of that digit, from 0. */
  flash: number;
  /** Round of the list, from 0 for the first one seen. */
  pass: number;
  /** Which showing since watching began, from 0; marks of one showing share it. */
  showing: number;
}

export interface DecodeOptions {
  /** Codes that exist on this vehicle: likelier than others, never required. */
  table?: readonly string[];
}

interface Candidate {
  h: Hypothesis;
  show: Show;
  flat: Flat;
  logPrior: number;
  score: Score;
  log: number;
  /** As many codes would explain the same as well; only one of them was tried. */
  multiplicity: number;
}

/** Share of the prior that stays with codes outside the table. */
const OUTSIDE_TABLE = 0.08;
/** Each further code in a list costs this factor. */
const ONE_MORE = 0.6;
const CYLINDERS = [4, 6, 8, 3, 5, 10, 12];
const BEAM_WIDTH = 3;
const MAX_ROUNDS = 14;

/**
 * Decodes what was seen of a lamp: analysis by synthesis. Lists are proposed from a first reading and from their
 * neighbours; each is played through the dialect's own grammar and aligned with the marks; certainty is the posterior
 * probability over all that were tried.
 *
 * The same evidence gives the same answer, however it arrived. Never throws on evidence of any shape.
 */
export function decode(dialect: Dialect, evidence: Evidence, options: DecodeOptions = {}): Decoded {
  const track = trackOf(evidence, dialect.rest);
  if (track.onset.length === 0) return nothingSeen(dialect, track);
  const prior = priorOf(dialect, options.table);
  const observers = OBSERVERS[track.mode];
  const tried = new Map<string, Candidate>();
  let observer = observers[Math.min(1, observers.length - 1)];
  const tempi = likelyTempi(dialect, track, observer.onsetSd);
  const engines = countsCylinders(dialect) ? CYLINDERS : [];

  // Proposals, at each likely tempo; the best of them fixes the tempo to go on with.
  const firsts = tempi.map((tempo) => ({ tempo, showings: firstReading(dialect, track, tempo) }));
  const pool = poolOf(
    dialect,
    firsts.map((f) => f.showings),
  );
  const poolCodes = [...pool]
    .sort((a, b) => b[1] - a[1])
    .slice(0, 30)
    .map(([c]) => c);
  const two = memoriesOf(dialect).length > 1;
  let tempo = tempi[0];
  let best: Candidate | null = null;
  for (const first of firsts) {
    const lists: Faults[] = two
      ? firstPairs(dialect, first.showings)
      : firstLists(dialect, first.showings).map((l) => ({ [memoriesOf(dialect)[0]]: l }));
    for (const faults of lists)
      for (const cylinders of engines.length ? engines.slice(0, 3) : [null]) {
        const c = assess(dialect, track, { faults, cylinders }, first.tempo, observer, prior, best?.score);
        if (c && (!best || c.log > best.log)) {
          best = c;
          tempo = first.tempo;
        }
      }
  }
  if (!best) return misfitAnswer(dialect, track, tempo);

  const climb = (): void => {
    tried.clear();
    const from = assess(dialect, track, best!.h, tempo, observer, prior);
    if (!from) return;
    best = from;
    tried.set(keyOf(best.h), best);
    let beam = [best];
    const expanded = new Set<string>();
    for (let round = 0; round < MAX_ROUNDS; round++) {
      const next = beam.filter((c) => !expanded.has(keyOf(c.h)));
      if (!next.length) break;
      for (const c of next) {
        expanded.add(keyOf(c.h));
        for (const h of neighbours(dialect, c.h, poolCodes, engines)) {
          const key = keyOf(h);
          if (tried.has(key)) continue;
          const candidate = assess(dialect, track, h, tempo, observer, prior, best.score);
          if (!candidate) continue;
          tried.set(key, candidate);
          if (candidate.log > best.log) best = candidate;
        }
      }
      beam = [...tried.values()].sort((a, b) => b.log - a.log).slice(0, BEAM_WIDTH);
      beam = beam.filter((c) => c.log > best!.log - 12);
    }
  };

  climb();
  // Tempo and observer again, from the best alignment; then once more with them.
  for (let again = 0; again < 2; again++) {
    const before = { tempo, observer, key: keyOf(best.h) };
    tempo = refit(track, best, tempo, observer);
    const fits = observers.map((o) => ({ o, log: score(track, best!.flat, tempo, o).logLik }));
    observer = fits.sort((a, b) => b.log - a.log)[0].o;
    if (Math.abs(tempo / before.tempo - 1) < 0.002 && observer === before.observer) break;
    climb();
  }
  addUnseen(dialect, track, best, tempo, observer, prior, tried);
  return conclude(dialect, track, tried, tempo, observer);
}

function assess(
  dialect: Dialect,
  track: Track,
  h: Hypothesis,
  tempo: number,
  observer: Observer,
  prior: (h: Hypothesis) => number,
  against?: Score,
): Candidate | null {
  const show = showOf(dialect, h.faults, h.cylinders ?? undefined);
  const flat = flatten(show, track.mode);
  const logPrior = prior(h);
  const s = score(track, flat, tempo, observer, against);
  if (s.logLik === -Infinity) return null;
  return { h, show, flat, logPrior, score: s, log: s.logLik + logPrior, multiplicity: 1 };
}

/** Log prior of a list: its length, and each code's share; ascending lists have one order, stored ones all. */
function priorOf(dialect: Dialect, table?: readonly string[]): (h: Hypothesis) => number {
  const possible = possibleFaults(dialect);
  const known = new Set(table?.filter((c) => possible.includes(c)));
  const outside = Math.max(1, possible.length - known.size);
  const log = (code: string) =>
    known.size
      ? Math.log(known.has(code) ? (1 - OUTSIDE_TABLE) / known.size : OUTSIDE_TABLE / outside)
      : Math.log(1 / possible.length);
  return (h) => {
    let sum = h.cylinders ? Math.log([4, 6, 8].includes(h.cylinders) ? 0.3 : 0.02) : 0;
    for (const list of Object.values(h.faults)) {
      sum +=
        Math.log(list.length === 0 ? 0.3 : 0.7 * (1 - ONE_MORE)) + Math.max(0, list.length - 1) * Math.log(ONE_MORE);
      for (const [i, code] of list.entries()) sum += log(code) + (dialect.order === "ascending" ? Math.log(i + 1) : 0);
    }
    return sum;
  };
}

/** Least squares of onsets on the show's times along the best alignment, step by step. */
function refit(track: Track, c: Candidate, tempo: number, o: Observer): number {
  const { flash } = align(track, c.flat, tempo, o);
  const at = unrolledTimes(c.flat, Math.max(0, ...flash));
  let xy = 0;
  let xx = 0;
  let previous = -1;
  for (let m = 0; m < flash.length; m++) {
    if (flash[m] < 0) continue;
    if (previous >= 0) {
      const x = at[flash[m]] - at[flash[previous]];
      const variance = 2 * o.onsetSd ** 2 + (0.022 * x) ** 2;
      xy += ((track.onset[m] - track.onset[previous]) * x) / variance;
      xx += (x * x) / variance;
    }
    previous = m;
  }
  // The prior pulls a little where there is little to go by.
  const weight = 1 / 0.15 ** 2;
  const fitted = (xy + weight) / (xx + weight);
  return Math.min(TEMPO_MAX, Math.max(TEMPO_MIN, fitted));
}

function unrolledTimes(flat: Flat, upTo: number): number[] {
  const at = [flat.first];
  for (let u = 1; u <= upTo; u++) at.push(at[u - 1] + flat.step[foldedIndex(flat, u - 1).index]);
  return at;
}

/** Lists with one more code that has not come yet: they explain the marks as well, unless the list came round. */
function addUnseen(
  dialect: Dialect,
  track: Track,
  best: Candidate,
  tempo: number,
  observer: Observer,
  prior: (h: Hypothesis) => number,
  tried: Map<string, Candidate>,
): void {
  const possible = possibleFaults(dialect);
  for (const memory of memoriesOf(dialect)) {
    const list = best.h.faults[memory] ?? [];
    const open =
      dialect.order === "ascending"
        ? possible.filter((c) => !list.length || Number(c) > Number(list.at(-1)))
        : possible.filter((c) => !list.includes(c));
    const code = open.at(-1);
    if (!code || list.includes(code)) continue;
    const h: Hypothesis = { ...best.h, faults: { ...best.h.faults, [memory]: [...list, code] } };
    const key = `${keyOf(h)}+`;
    const c = assess(dialect, track, h, tempo, observer, prior, best.score);
    if (!c || tried.has(keyOf(h))) continue;
    c.multiplicity = open.length;
    c.log += Math.log(open.length);
    tried.set(key, c);
  }
}

interface Told {
  c: Candidate;
  p: number;
  state: State;
  shown: string[];
  all: string[];
  memories: Partial<Record<Memory, string[]>>;
  complete: boolean;
}

function conclude(
  dialect: Dialect,
  track: Track,
  tried: Map<string, Candidate>,
  tempo: number,
  observer: Observer,
): Decoded {
  const ranked = [...tried.values()].sort((a, b) => b.log - a.log);
  const top = ranked.filter((c) => c.log > ranked[0].log - 14).slice(0, 40);
  const noise = noiseLog(track);
  const logs = top.map((c) => c.log);
  const max = Math.max(noise, ...logs);
  const sum = logs.reduce((s, l) => s + Math.exp(l - max), 0) + Math.exp(noise - max);
  const told: Told[] = top.map((c) => ({
    c,
    p: Math.exp(c.log - max) / sum,
    ...tell(dialect, track, c, tempo, observer),
  }));
  const pNoise = Math.exp(noise - max) / sum;
  if (pNoise > 0.5) return misfitAnswer(dialect, track, tempo);

  // The answer is the one most probably exact: right state, all that was shown in full, nothing that is not stored.
  const answers = new Map(told.map((t) => [`${t.state} ${t.shown.join(" ")}`, t]));
  const judged = [...answers.values()].map((a) => ({
    a,
    p: told.reduce((s, t) => s + (agrees(a, t) ? t.p : 0), 0),
  }));
  judged.sort((x, y) => y.p - x.p);
  const { a, p } = judged[0];
  const lead = told.filter((t) => agrees(a, t)).sort((x, y) => y.p - x.p)[0];
  const rival = told.find(
    (t) => !agrees(a, t) && `${t.state} ${t.shown.join(" ")}` !== `${a.state} ${a.shown.join(" ")}`,
  );
  const completeness = told.reduce(
    (s, t) => s + (t.complete && sameList(t.shown, a.shown) && t.state === a.state ? t.p : 0),
    0,
  );
  const placed = place(dialect, track, lead.c, tempo, observer);
  const codeConfidence: Record<string, number> = {};
  for (const code of a.shown) codeConfidence[code] = told.reduce((s, t) => s + (t.all.includes(code) ? t.p : 0), 0);
  return {
    state: a.state,
    codes: a.shown,
    memories: a.memories,
    cylinders: lead.c.h.cylinders,
    complete: completeness > 0.99,
    completeness,
    confidence: p,
    codeConfidence,
    runnerUp: rival ? { codes: rival.shown, state: rival.state, probability: rival.p } : null,
    tempo,
    misfit: null,
    ...placed,
  };
}

function sameList(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((c, i) => c === b[i]);
}

/** Would this answer be exact if `truth` were so? The rule of the corpora. */
function agrees(answer: Told, truth: Told): boolean {
  const state =
    answer.state === truth.state ||
    (!truth.shown.length && [answer.state, truth.state].every((s) => s === "unclear" || s === "codes"));
  if (!state) return false;
  const places = answer.shown.map((c) => truth.all.indexOf(c));
  return (
    places.every((x, i) => x >= 0 && (i === 0 || x > places[i - 1])) &&
    truth.shown.every((c) => answer.shown.includes(c))
  );
}

/** What a hypothesis says was shown in full. */
function tell(dialect: Dialect, track: Track, c: Candidate, tempo: number, o: Observer): Omit<Told, "c" | "p"> {
  const spans = unitSpans(dialect, track, c, tempo, o);
  const full = spans.filter((s) => s.full);
  const all: string[] = [];
  const shown: string[] = [];
  const memories: Partial<Record<Memory, string[]>> = {};
  const two = memoriesOf(dialect).length > 1;
  for (const memory of memoriesOf(dialect)) if (two) memories[memory] = [];
  for (const memory of memoriesOf(dialect))
    for (const code of c.h.faults[memory] ?? []) if (!all.includes(code)) all.push(code);
  const seen = new Set(full.filter((s) => s.unit.kind === "code").map((s) => `${s.unit.memory} ${s.unit.code}`));
  for (const memory of memoriesOf(dialect))
    for (const code of c.h.faults[memory] ?? [])
      if (seen.has(`${memory} ${code}`)) {
        if (!shown.includes(code)) shown.push(code);
        memories[memory]?.push(code);
      }
  if (isEmpty(dialect, c.h.faults)) {
    const said = full.some(
      (s) => s.unit.kind === "fixed" || (s.unit.kind === "group" && s.unit.means === "clear") || s.unit.kind === "even",
    );
    const state: State = said ? "none" : c.show.loop || c.show.ends === "rest" ? "dark" : "steady";
    return { state: said ? state : track.litAtEnd ? "steady" : state, shown, all, memories, complete: said };
  }
  const complete = memoriesOf(dialect).every((memory) => {
    const list = c.h.faults[memory] ?? [];
    if (list.length) return list.every((code) => seen.has(`${memory} ${code}`));
    return (
      !two ||
      dialect.empty === null ||
      full.some(
        (s) => s.unit.kind === "fixed" && s.unit.means === "pass" && phaseMemory(dialect, s.unit.phase) === memory,
      )
    );
  });
  return { state: shown.length ? "codes" : "unclear", shown, all, memories, complete };
}

function phaseMemory(dialect: Dialect, phase: number): Memory | null {
  const p = dialect.phases[phase];
  return p?.kind === "stored" ? p.memory : null;
}

interface Span {
  unit: Unit;
  pass: number;
  full: boolean;
  /** Unrolled indices of its first and last flash. */
  from: number;
  to: number;
}

/** The showings that fall into the time of watching, by the best alignment; full ones lay in it whole, with rest around. */
function unitSpans(dialect: Dialect, track: Track, c: Candidate, tempo: number, o: Observer): Span[] {
  const { flat } = c;
  const { flash } = align(track, flat, tempo, o);
  const firstMark = flash.findIndex((f) => f >= 0);
  if (firstMark < 0) return [];
  const lastMark = flash.findLastIndex((f) => f >= 0);
  const { gaps } = dialect;
  const restNeeded = ((gaps.digit + Math.min(gaps.code || Infinity, gaps.repeat || Infinity)) / 2) * tempo;
  const reach = flash[lastMark] + 60;
  const at = unrolledTimes(flat, reach).filter(Number.isFinite);
  // The time of a flash: that of its mark, else carried over from the nearest mark before (or the first).
  const timeOf = timer(track, flash, at, tempo);
  const spans: Span[] = [];
  const begin = Math.max(0, flash[firstMark] - 40);
  for (let u = begin; u < at.length; u++) {
    const { index, round } = foldedIndex(flat, u);
    const f = flat.flashes[index];
    const last = spans.at(-1);
    if (last && last.unit === f.unit && last.pass === round) last.to = u;
    else spans.push({ unit: f.unit, pass: round, full: false, from: u, to: u });
  }
  for (const s of spans) {
    const start = timeOf(s.from);
    const end = timeOf(s.to) + flat.length[foldedIndex(flat, s.to).index] * tempo;
    // Cut by the window of this list of spans: its first flash may lie before.
    const whole = s.from > begin || begin === 0 || timeOf(begin) < -restNeeded;
    s.full =
      whole && start >= restNeeded * (s.from === 0 ? 0 : 1) - o.onsetSd && end + restNeeded <= track.until + o.onsetSd;
  }
  return spans.filter((s) => timeOf(s.to) > 0 && timeOf(s.from) < track.until);
}

function timer(track: Track, flash: Int32Array, at: number[], tempo: number): (u: number) => number {
  const marks: { u: number; t: number }[] = [];
  for (let m = 0; m < flash.length; m++) if (flash[m] >= 0) marks.push({ u: flash[m], t: track.onset[m] });
  return (u) => {
    let lo = 0;
    let hi = marks.length - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if (marks[mid].u <= u) lo = mid;
      else hi = mid - 1;
    }
    const base = marks[lo];
    return base.t + ((at[u] ?? Infinity) - at[base.u]) * tempo;
  };
}

function place(
  dialect: Dialect,
  track: Track,
  c: Candidate,
  tempo: number,
  o: Observer,
): Pick<Decoded, "onsets" | "assignment" | "missed" | "timesShown" | "roundsShown"> {
  const { flat } = c;
  const { flash } = align(track, flat, tempo, o);
  const used = [...flash].filter((f) => f >= 0);
  const onsets = [...track.onset];
  if (!used.length)
    return { onsets, assignment: [...flash].map(() => null), missed: [], timesShown: {}, roundsShown: {} };
  const first = used[0];
  const last = used.at(-1)!;
  const firstRound = foldedIndex(flat, first).round;
  const at = unrolledTimes(flat, last);
  const timeOf = timer(track, flash, at, tempo);
  const assigned: Assigned[] = [];
  let showing = -1;
  let before: Unit | null = null;
  let beforePass = -1;
  for (let u = first; u <= last; u++) {
    const { index, round } = foldedIndex(flat, u);
    const f = flat.flashes[index];
    if (f.unit !== before || round !== beforePass) showing++;
    before = f.unit;
    beforePass = round;
    let k = 0;
    for (let i = index - 1; i >= 0 && flat.flashes[i].unit === f.unit && flat.flashes[i].digit === f.digit; i--) k++;
    assigned.push({
      unit: f.unit,
      digit: f.digit,
      counted: dialect.digits.style === "counted",
      flash: k,
      pass: round - firstRound,
      showing,
    });
  }
  const seen = new Set(used);
  const missed = assigned.flatMap((a, i) => {
    const u = first + i;
    return seen.has(u) ? [] : [{ ...a, at: timeOf(u), ms: flat.length[foldedIndex(flat, u).index] * tempo }];
  });
  const timesShown: Record<string, number> = {};
  const rounds = new Map<string, Set<string>>();
  for (const s of unitSpans(dialect, track, c, tempo, o)) {
    if (!s.full || s.unit.kind !== "code") continue;
    const code = s.unit.code!;
    timesShown[code] = (timesShown[code] ?? 0) + 1;
    if (!rounds.has(code)) rounds.set(code, new Set());
    rounds.get(code)!.add(`${s.unit.phase} ${s.pass}`);
  }
  const roundsShown = Object.fromEntries([...rounds].map(([code, set]) => [code, set.size]));
  return {
    onsets,
    assignment: [...flash].map((f) => (f < 0 ? null : assigned[f - first])),
    missed,
    timesShown,
    roundsShown,
  };
}

/** Marks without any dialect: intervals of any length, scale-free. A show that explains less than this explains nothing. */
function noiseLog(track: Track): number {
  let log = Math.log(1e-4);
  for (let m = 0; m < track.onset.length; m++) {
    log += m ? -Math.log(Math.max(60, track.onset[m] - track.onset[m - 1]) * Math.log(200)) : -Math.log(5000);
    if (track.length[m] === track.length[m]) log -= Math.log(Math.max(60, track.length[m]) * Math.log(50));
    if (track.said[m]) log += Math.log(0.5);
  }
  return log;
}

function nothingSeen(dialect: Dialect, track: Track): Decoded {
  const show = showOf(dialect, {});
  const empty =
    show.ends === "opposite"
      ? dialect.rest === "lit"
        ? "dark"
        : "steady"
      : dialect.rest === "lit"
        ? "steady"
        : "dark";
  const state: State = track.litAtEnd === null ? empty : track.litAtEnd ? "steady" : "dark";
  const enough = track.until > 12_000;
  return {
    ...blank(track, 1),
    state,
    confidence: enough ? 0.95 : 0.5,
  };
}

function misfitAnswer(dialect: Dialect, track: Track, tempo: number): Decoded {
  return {
    ...blank(track, tempo),
    state: "unclear",
    misfit: `${track.onset.length} marks do not follow the rhythm of "${dialect.title}".`,
  };
}

function blank(track: Track, tempo: number): Decoded {
  return {
    state: "unclear",
    codes: [],
    memories: {},
    cylinders: null,
    complete: false,
    completeness: 0,
    confidence: 0,
    codeConfidence: {},
    runnerUp: null,
    tempo,
    onsets: [...track.onset],
    assignment: Array.from(track.onset, () => null),
    missed: [],
    timesShown: {},
    roundsShown: {},
    misfit: null,
  };
}
