import { blankAnswer, type Decoded, type State } from "../answer";
import { memoriesOf, type Dialect, type Memory } from "../dialect/dialect";
import type { Candidate } from "../search/search";
import { isEmpty, type Show } from "../dialect/show";
import type { Span, View } from "../explain/view";

/** `complete` is claimed only above this. */
const SURE_OF_WHOLE = 0.99;

/** Log of the margin by which the grammar has to explain more than the lists that were tried. */
const UNTRIED = -3;

/** What a hypothesis says was shown in full. */
interface Told<P> {
  c: Candidate<P>;
  p: number;
  state: State;
  shown: string[];
  all: string[];
  memories: Partial<Record<Memory, string[]>>;
  complete: boolean;
  over: boolean;
}

/**
 * The answer from all lists that were tried, best first: the one that is most probably exact, that is, has the right state,
 * all that was shown in full, and nothing that is not stored.
 */
export function decide<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  candidates: readonly Candidate<P>[],
  onsets: readonly number[],
): Decoded {
  const misfit = view.even > view.foreign ? "even" : "foreign";
  if (!candidates.length) return { ...blankAnswer(onsets, 1), misfit };
  // What the grammar explains beyond all lists that were tried belongs to lists that were not.
  const max = Math.max(view.noise, view.even, candidates[0].log);
  const tried = candidates.reduce((s, c) => s + Math.exp(c.log - max), 0);
  const any = Math.exp(view.anyList(candidates[0].prepared, candidates[0].score) + UNTRIED - max);
  const sum = tried + Math.exp(view.noise - max) + Math.exp(view.even - max) + Math.max(0, any - tried);
  if (Math.max(view.foreign, view.even) > candidates[0].log) return { ...blankAnswer(onsets, 1), misfit };
  const told: Told<P>[] = candidates.flatMap((c) => {
    const p = Math.exp(c.log - max) / sum;
    const spans = view.spans(c.prepared);
    if (p < NEGLIGIBLE)
      return [
        {
          c,
          p,
          ...tell(
            dialect,
            view,
            c,
            spans.filter((s) => s.full > 0.5),
            spans,
          ),
        },
      ];
    return worlds(spans).map((w) => ({ c, p: p * w.p, ...tell(dialect, view, c, w.full, spans) }));
  });

  // Rounding may carry a sum of probabilities a hair above 1.
  const share = (holds: (t: Told<P>) => boolean) =>
    Math.min(
      1,
      told.reduce((s, t) => s + (holds(t) ? t.p : 0), 0),
    );
  const says = (t: Told<P>) =>
    `${t.state} ${t.shown.join(" ")} ${Object.entries(t.memories)
      .map(([m, list]) => `${m}:${list.join(" ")}`)
      .join("|")}`;
  const answers = [...new Map(told.map((t) => [says(t), t])).values()];
  // Among answers that are as probably exact, the one whose memories are the likeliest.
  const [{ a, p }] = answers
    .map((answer) => ({ a: answer, p: share((t) => agrees(answer, t)), own: share((t) => says(t) === says(answer)) }))
    .sort((x, y) => (Math.abs(y.p - x.p) > 1e-9 ? y.p - x.p : y.own - x.own));
  const lead = told.filter((t) => agrees(a, t)).sort((x, y) => y.p - x.p)[0];
  const rival = told.find((t) => !agrees(a, t) && says(t) !== says(a));
  const completeness = share((t) => t.complete && says(t) === says(a));
  const codeConfidence = Object.fromEntries(a.shown.map((code) => [code, share((t) => t.all.includes(code))]));
  const memoryConfidence = Object.fromEntries(
    Object.entries(a.memories).map(([m, list]) => [
      m,
      Object.fromEntries(list.map((code) => [code, share((t) => t.memories[m as Memory]?.includes(code) ?? false)])),
    ]),
  );
  return {
    state: a.state,
    codes: a.shown,
    memories: a.memories,
    cylinders: lead.c.h.cylinders,
    complete: completeness > SURE_OF_WHOLE,
    completeness,
    over: share((t) => t.over && says(t) === says(a)) > SURE_OF_WHOLE,
    confidence: p,
    codeConfidence,
    memoryConfidence,
    runnerUp: rival ? { codes: rival.shown, state: rival.state, probability: rival.p } : null,
    tempo: view.tempoOf(lead.c.prepared),
    misfit: null,
    ...view.place(lead.c.prepared),
    ...countShown(view, lead.c),
  };
}

/** Would this answer be exact if `truth` were so? The rule of the corpora. */
function agrees<P>(answer: Told<P>, truth: Told<P>): boolean {
  const either = (s: State) => s === "unclear" || s === "codes";
  if (answer.state !== truth.state && (truth.shown.length > 0 || !either(answer.state) || !either(truth.state)))
    return false;
  const places = answer.shown.map((c) => truth.all.indexOf(c));
  return (
    places.every((x, i) => x >= 0 && (i === 0 || x > places[i - 1])) &&
    truth.shown.every((c) => answer.shown.includes(c))
  );
}

/** Probabilities below this are as good as none. */
const NEGLIGIBLE = 1e-3;
/** A showing at the edge of the watch is in question between these. */
const IN_DOUBT = 0.002;

/**
 * Which showings were full: those at the edges of the watch may or may not have been. Each way it may be, with its probability; not more
 * than two showings are in doubt, the first and the last.
 */
function worlds(spans: readonly Span[]): { full: Span[]; p: number }[] {
  const doubtful = spans.filter((s) => s.full > IN_DOUBT && s.full < 1 - IN_DOUBT);
  const edge = doubtful.length > 2 ? [doubtful[0], doubtful[doubtful.length - 1]] : doubtful;
  const sure = spans.filter((s) => !edge.includes(s) && s.full > 0.5);
  return Array.from({ length: 2 ** edge.length }, (_, bits) => {
    const here = edge.filter((_, i) => bits & (1 << i));
    const p = edge.reduce((q, s) => q * (here.includes(s) ? s.full : 1 - s.full), 1);
    return { full: [...sure, ...here], p };
  });
}

function tell<S, P>(
  dialect: Dialect,
  view: View<S, P>,
  c: Candidate<P>,
  full: readonly Span[],
  within: readonly Span[],
): Omit<Told<P>, "c" | "p"> {
  const two = memoriesOf(dialect).length > 1;
  const seen = new Set(full.filter((s) => s.unit.kind === "code").map((s) => `${s.unit.memory} ${s.unit.code}`));
  const all: string[] = [];
  const heard = new Set<string>();
  const memories: Partial<Record<Memory, string[]>> = {};
  for (const memory of memoriesOf(dialect)) {
    const list = c.h.faults[memory] ?? [];
    const here = list.filter((code) => seen.has(`${memory} ${code}`));
    if (two) memories[memory] = here;
    for (const code of list) if (!all.includes(code)) all.push(code);
    for (const code of here) heard.add(code);
  }
  // The first press may show any code of the list: it is told from there on, as it was seen.
  const first =
    dialect.advance === "button" ? all.indexOf(within.find((s) => s.unit.kind === "code")?.unit.code ?? "") : -1;
  if (first > 0) all.push(...all.splice(0, first));
  // In the order of the whole, whichever of two memories it was that showed a code: answers are held against one another by it.
  const shown = all.filter((code) => heard.has(code));
  const last = c.show.loop ? undefined : c.show.lead.flashes.at(-1)?.unit;
  const over = last !== undefined && full.some((s) => s.unit === last);
  /** Of two memories each says by itself that it holds nothing. */
  const toldEmpty = (memory: Memory) =>
    !two ||
    dialect.empty === null ||
    full.some(({ unit: u }) => {
      const phase = dialect.phases[u.phase];
      return u.kind !== "code" && phase.kind === "stored" && phase.memory === memory;
    });
  if (isEmpty(dialect, c.h.faults)) {
    const saysEmpty = ({ unit: u }: Span) =>
      u.kind === "fixed" || u.kind === "even" || (u.kind === "group" && u.means === "clear");
    const proof = full.some(saysEmpty);
    // Every flash of it was marked: it was said, although the rests around do not prove where it began or ended.
    const said = proof || within.some((s) => saysEmpty(s) && s.exact && s.marked);
    const rest: State =
      view.litAtEnd !== null
        ? view.litAtEnd
          ? "steady"
          : "dark"
        : c.show.ends === "opposite" && !c.show.loop
          ? "steady"
          : "dark";
    // One memory that told of itself says nothing of the other.
    return {
      state: said ? "none" : rest,
      shown,
      all,
      memories,
      complete: proof && memoriesOf(dialect).every(toldEmpty),
      over,
    };
  }
  const complete = memoriesOf(dialect).every((memory) => {
    const list = c.h.faults[memory] ?? [];
    return list.length ? list.every((code) => seen.has(`${memory} ${code}`)) : toldEmpty(memory);
  });
  return { state: shown.length ? "codes" : "unclear", shown, all, memories, complete, over };
}

function countShown<S, P>(
  view: View<S, P>,
  c: Candidate<P>,
): Pick<Decoded, "timesShown" | "roundsShown" | "exactShown" | "wholeRound"> {
  const timesShown: Record<string, number> = {};
  const exactShown: Decoded["exactShown"] = {};
  const rounds = new Map<string, Map<Memory | undefined, Set<string>>>();
  const spans = view.spans(c.prepared);
  for (const { unit, pass, full, marked, exact } of spans) {
    if (full < 0.5 || !marked || unit.kind !== "code") continue;
    const code = unit.code!;
    timesShown[code] = (timesShown[code] ?? 0) + 1;
    if (exact) {
      const here = (exactShown[unit.memory!] ??= {});
      here[code] = (here[code] ?? 0) + 1;
    }
    const here = rounds.get(code) ?? new Map<Memory | undefined, Set<string>>();
    rounds.set(code, here.set(unit.memory, (here.get(unit.memory) ?? new Set()).add(`${unit.phase} ${pass}`)));
  }
  const fewest = (of: Map<unknown, Set<string>>) => Math.min(...[...of.values()].map((set) => set.size));
  return {
    timesShown,
    exactShown,
    roundsShown: Object.fromEntries([...rounds].map(([code, of]) => [code, fewest(of)])),
    wholeRound: roundWithoutSlip(c.show, spans),
  };
}

/** Even flashing proves itself by so many flashes, since two of them are soon seen in anything. */
const EVEN_FLASHES = 8;

/**
 * Was all that the show tells marked without a slip in one go: of a show that goes round, as many showings as a round has and the one
 * with which it began; of one that is shown once, all of them?
 */
function roundWithoutSlip(show: Show, spans: readonly Span[]): boolean {
  const told = (section: Show["lead"] | null) =>
    new Set(section?.flashes.flatMap((f) => (f.unit.kind === "steady" ? [] : [f.unit])));
  const round = told(show.loop);
  const goesRound = round.size > 0;
  const counted = goesRound ? round : told(show.lead);
  const even = [...round][0]?.kind === "even";
  const needed = even ? EVEN_FLASHES : counted.size + Number(goesRound);
  let inARow = 0;
  let most = 0;
  for (const s of spans) {
    if (!counted.has(s.unit)) continue;
    inARow = s.exact && s.full > 0.5 ? inARow + 1 : 0;
    most = Math.max(most, inARow);
  }
  return needed > 0 && most >= needed;
}
