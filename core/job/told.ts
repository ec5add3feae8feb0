import { memoriesOf, type Dialect, type Memory } from "../flash/dialect/dialect";
import { AT_A_GLANCE, CERTAIN, HEARD, roundsHeard, sureOf, type Sure } from "../flash/judge/sureness";
import { assumedOf } from "../pack/assumed";
import { entriesFor, type SystemAccess } from "../pack/scope";
import { beginsAfterMs, lampAtRest } from "../pack/way";
import { inputOf } from "../record/inputs";
import { readingOf } from "../record/readings";
import type { Reading, ReadingResult } from "../record/types";
import { accessOf, type JobCase } from "./case";
import { identityOf, type Look } from "./identity";

/** Why something is not surer than it is; each names what would settle it. */
export type Doubt =
  /** Another unit could have answered: which lamp, or which socket, was it? */
  | { kind: "look"; look: Look }
  /** Heard once without a slip, or never. */
  | { kind: "heard-once" }
  /** Another list explains it nearly as well. */
  | { kind: "rival" }
  /** The list has not come round. */
  | { kind: "not-round" }
  /** It is shown once with each start, where a slip leaves no trace. */
  | { kind: "shown-once" }
  /** No table of the system has it. */
  | { kind: "no-table"; codes: string[] }
  /** All codes stand in another system's table, and none in this one's. */
  | { kind: "other-table"; system: string }
  /** It is shown once with each start, and the start was not seen. */
  | { kind: "start-unseen" }
  /** That counting began with the key is the person's word, and the digits pair up by it. */
  | { kind: "told-start" }
  /** Typed by hand, once. */
  | { kind: "typed" }
  /** A wire without contact, or a unit without power, looks just like that. */
  | { kind: "looks-alike"; way: "no-contact" | "no-power" | "not-asked" }
  /** Recorded before it was kept how it was heard. */
  | { kind: "old" }
  /** Nobody has said how this lamp talks: it is read as most lamps do. */
  | { kind: "talk-assumed" };

/**
 * How well something is known: a probability, how often it was heard without a slip, and how sure it can be at most, whatever these
 * say, since one slip would spoil it all.
 */
export interface Weight {
  p: number;
  heard: number;
  most: Sure;
  /** Counted in the head and called out: who counts wrong once does so again. */
  called?: boolean;
  /** Copied off a display or sent: what is wrong with one says nothing of the next. */
  apart?: boolean;
}

export interface CodeTold extends Weight {
  code: string;
  /** null where the dialect knows but one memory, of what was stored. */
  memory: Memory | null;
  sure: Sure;
}

/** What one reading says of one system, and how surely. */
export interface Told {
  reading: Reading;
  /** `none`: nothing is stored; `unclear`: nothing could be read; `no-answer`: it was not asked rightly; `other-unit`: another unit answered. */
  answer: "codes" | "none" | "unclear" | "no-answer" | "other-unit";
  codes: CodeTold[];
  /** Of "nothing is stored", or of "that is the whole list". */
  weight: Weight;
  none: Sure;
  whole: Sure;
  doubts: Doubt[];
  /** The unit whose answer it was instead, where that is known. */
  other: SystemAccess | null;
}

const RANK = { unsure: 0, likely: 1, certain: 2 } as const;
export const atMost = (a: Sure, b: Sure): Sure => (RANK[a] < RANK[b] ? a : b);
export const atLeast = (a: Sure, b: Sure): boolean => RANK[a] >= RANK[b];
export const sureOfWeight = ({ p, heard, most, called }: Weight): Sure => atMost(sureOf(p, heard, called), most);

type Of = Pick<JobCase, "vehicle" | "pack" | "systems">;

const NO_WEIGHT: Weight = { p: 0, heard: 0, most: "unsure" };
/** Somebody who copies a display writes one line in some dozens wrongly. */
const COPIED = 0.95;
/** Who begins a watch as the key goes on is so much ahead of it at most, ms; a code that was missed would take longer. */
const AHEAD_MS = 2500;
/** The first flash may come so much sooner or later than the unit's tempo says, as a share. */
const OFF_TEMPO = 0.12;

/** What a recorded reading says of a system, or null where it says nothing of it, was taken back, or is no reading of codes. */
export function toldOf(c: Of, reading: Reading, system: string): Told | null {
  const access = accessOf(c, system);
  const own = readingOf(reading, system);
  const result = own?.result;
  if (!access || !own?.recordedAt || own.withdrawnAt || own.readiness || !result) return null;
  const identity = identityOf(access, c.systems, own.looked);
  if (identity.is === "other") return blank(own, "other-unit", [], identity.system);
  const doubts: Doubt[] = identity.is === "open" ? [{ kind: "look", look: identity.look }] : [];
  if (talkAssumed(c.pack, access)) doubts.push({ kind: "talk-assumed" });
  const most: Sure = doubts.length ? "likely" : "certain";
  if (own.lists) return copied(c, access, own, result, doubts, most);
  if (!access.dialect) return blank(own, "unclear", doubts);
  if (result.state === "dark" || result.state === "steady") return restedOf(access, own, doubts, most);
  return watched(c, access, own, result, doubts, most);
}

function blank(
  reading: Reading,
  answer: Told["answer"],
  doubts: Doubt[] = [],
  other: SystemAccess | null = null,
): Told {
  return { reading, answer, codes: [], weight: NO_WEIGHT, none: "unsure", whole: "unsure", doubts, other };
}

function noneTold(reading: Reading, weight: Weight, doubts: Doubt[]): Told {
  const sure = sureOfWeight(weight);
  return { ...blank(reading, "none", doubts), weight, none: sure, whole: sure };
}

function codesTold(
  c: Of,
  access: SystemAccess,
  reading: Reading,
  codes: Omit<CodeTold, "sure">[],
  whole: Weight,
  doubts: Doubt[],
): Told {
  const sure = codes.map((x) => ({ ...x, sure: sureOfWeight(x) }));
  const all = sure.reduce<Sure>((s, x) => atMost(s, x.sure), "certain");
  return withTable(c, access, {
    ...blank(reading, "codes", doubts),
    codes: sure,
    weight: whole,
    whole: atMost(all, sureOfWeight(whole)),
  });
}

/** Characters that somebody copied off a display; a serial unit's reply proves itself by its sum. */
function copied(
  c: Of,
  access: SystemAccess,
  reading: Reading,
  result: ReadingResult,
  doubts: Doubt[],
  most: Sure,
): Told {
  const sent = inputOf(reading.input).known === "sent";
  const weight: Weight = sent
    ? { p: 1, heard: HEARD, most, apart: true }
    : // Who takes one character for another does so again, however often the display is read.
      { p: COPIED, heard: 1, most: atMost(most, "likely"), apart: true };
  const here: Doubt[] = sent ? doubts : [...doubts, { kind: "typed" }];
  if (result.state === "none") return noneTold(reading, weight, here);
  if (!result.codes.length) return blank(reading, "unclear", here);
  const codes = result.codes.map((code) => ({ code, memory: null, ...weight }));
  return codesTold(c, access, reading, codes, result.complete ? weight : NO_WEIGHT, here);
}

/**
 * Could a code be another one of the same reading, a flash off? A press whose last flash was missed shows the code below, and nothing
 * tells that it was missed; who counts in the head may be one off either way, and so again and again.
 */
function oneOff(
  { code, heard }: { code: string; heard: number },
  others: readonly { code: string }[],
  called: boolean,
): boolean {
  const off = others.map((y) => Number(y.code) - Number(code));
  return called ? off.includes(1) || off.includes(-1) : heard <= HEARD && off.includes(1);
}

/** A lamp that was watched, or whose counts were called out. */
function watched(
  c: Of,
  access: SystemAccess,
  reading: Reading,
  result: ReadingResult,
  doubts: Doubt[],
  limit: Sure,
): Told {
  const dialect = access.dialect!;
  const { heard } = result;
  const called = inputOf(reading.input).known === "called";
  let most = heard ? limit : atMost(limit, "likely");
  if (!heard) doubts.push({ kind: "old" });
  if (startUnseen(access, reading)) {
    // Numbers carry no times: that counting began with the key is the person's word.
    const told = called && reading.keyOn;
    doubts.push({ kind: told ? "told-start" : "start-unseen" });
    most = atMost(most, result.state === "none" && !told ? "unsure" : "likely");
  }
  const round = !heard || heard.wholeRound ? HEARD : 1;
  const notWhole: Doubt = {
    kind: dialect.loopFrom === null && dialect.advance === "self" ? "shown-once" : "not-round",
  };
  if (result.state === "none") {
    // Of two memories one may have told of itself and the other not, or not to its end.
    const p = Math.min(result.confidence, heard?.completeness ?? 1);
    if (p < 0.5) return blank(reading, "unclear", [...doubts, notWhole]);
    if (p < CERTAIN) doubts.push({ kind: "rival" });
    else if (called || round < HEARD) doubts.push({ kind: "heard-once" });
    return noneTold(reading, { p, heard: round, most, called }, doubts);
  }
  if (!result.codes.length) return blank(reading, "unclear", doubts);
  const memories = memoriesOf(dialect);
  const two = memories.length > 1;
  const only = memories[0] === "live" ? ("live" as const) : null;
  if (called && reading.keyOn && pairsFromStart(dialect)) {
    doubts.push({ kind: "told-start" });
    most = atMost(most, "likely");
  }
  // Of two memories only one was seen: without what parts them, which of the two it was rests on the start alone.
  if (two && !result.complete && memories.some((m) => !result.memories[m]?.length)) most = atMost(most, "likely");
  const seen = memories.flatMap((memory) =>
    (two ? (result.memories[memory] ?? []) : result.codes).map((code) => ({
      code,
      memory: two ? memory : only,
      p: heard?.memoryConfidence[memory]?.[code] ?? result.codeConfidence[code] ?? 0,
      heard: heard ? (heard.exactShown[memory]?.[code] ?? 0) : 1,
      called,
      // Where the run is the code, one flash more or less is another code.
      most: called && dialect.digits.style === "total" && Number(code) > AT_A_GLANCE ? atMost(most, "likely") : most,
    })),
  );
  const rival = seen.some((x) => x.p < CERTAIN);
  const pressed = dialect.advance === "button" && dialect.digits.style === "total";
  const isShort = (x: (typeof seen)[number]) => pressed && oneOff(x, seen, called);
  if (seen.some(isShort)) most = atMost(most, "likely");
  // Who miscalled one run may have miscalled the next.
  const codes = seen.map((x) => ((rival && called) || isShort(x) ? { ...x, most: atMost(x.most, "likely") } : x));
  if (rival) doubts.push({ kind: "rival" });
  else if (codes.some((x) => x.heard < HEARD + Number(called))) doubts.push({ kind: "heard-once" });
  const alone = pressed && mayHideNeighbour(result);
  if (!result.complete || alone) doubts.push(notWhole);
  // Who counts a run wrong two times alike still does not leave out the same code in two rounds.
  const rounds = heard ? roundsHeard({ ...heard, codes: result.codes }) : HEARD;
  const completeness = heard?.completeness ?? (result.complete ? result.confidence : 0);
  return codesTold(
    c,
    access,
    reading,
    codes,
    // Numbers that somebody called out make sense wherever they leave off, and a press that asked nothing leaves no number.
    {
      p: Math.min(completeness, result.confidence),
      heard: rounds,
      most: called || alone ? atMost(most, "likely") : most,
    },
    doubts,
  );
}

/** Where nothing in the list tells where it begins, the digits called out pair up as the person says that counting began. */
const pairsFromStart = ({ digits, phases }: Dialect): boolean =>
  digits.style === "counted" && !phases.some((p) => p.kind === "code" || p.kind === "group");

/** A neighbour that was pressed for between and counted one short looks like the same code again: two rounds of both are needed. */
const mayHideNeighbour = ({ codes, heard }: ReadingResult): boolean =>
  codes.length === 1 && (heard?.roundsShown[codes[0]] ?? 0) < 2 * HEARD;

/** Codes that no table of the system has are miscounted, or another unit's: they are not certain. */
function withTable(c: Of, access: SystemAccess, told: Told): Told {
  const tableOf = (system: string) => new Set(entriesFor(c.pack, c.vehicle, system).map((e) => e.code));
  const here = tableOf(access.system);
  const strange = told.codes.filter((x) => !here.has(x.code)).map((x) => x.code);
  if (!strange.length) return told;
  const all = strange.length === told.codes.length;
  const other = c.systems.find(
    (s) =>
      s.unit !== access.unit && s.dialect?.id === access.dialect?.id && strange.every((x) => tableOf(s.system).has(x)),
  );
  const doubt: Doubt =
    all && other ? { kind: "other-table", system: other.system } : { kind: "no-table", codes: strange };
  // A display writes no code that does not exist, so it was copied wrongly.
  const limit: Sure = (all && other) || inputOf(told.reading.input).known === "copied" ? "unsure" : "likely";
  const codes = told.codes.map((x) =>
    all || strange.includes(x.code) ? { ...x, most: atMost(x.most, limit), sure: atMost(x.sure, limit) } : x,
  );
  const weight = { ...told.weight, most: atMost(told.weight.most, limit) };
  return { ...told, codes, weight, whole: atMost(told.whole, limit), doubts: [...told.doubts, doubt] };
}

/**
 * A list that is shown once with each start, whose start was not seen: codes may have gone by before. Of two memories that follow one
 * another, who came late cannot know which it was.
 */
function startUnseen(access: SystemAccess, reading: Reading): boolean {
  const { dialect } = access;
  const once = dialect?.loopFrom === null && dialect.advance === "self";
  return once && (!shownTwice(access) || memoriesOf(dialect).length > 1) && !startSeen(access, reading);
}

/** How sure a reading's codes can be at most while it is made, whatever is heard: by which lamp it was, and by how it was begun. */
export function mostOf(access: SystemAccess, { pack, systems }: Pick<Of, "pack" | "systems">, reading: Reading): Sure {
  const identity = identityOf(access, systems, reading.looked);
  if (identity.is === "other") return "unsure";
  return identity.is === "open" || talkAssumed(pack, access) || startUnseen(access, reading) ? "likely" : "certain";
}

/** Is how the lamp talks only as it mostly is? */
const talkAssumed = (pack: Of["pack"], { way }: SystemAccess): boolean =>
  way.tells.kind === "lamp" && assumedOf(pack, way).includes("talk");

/** Each list is shown two times at least with one start: who came late to the first has seen the second. */
function shownTwice({ dialect }: SystemAccess): boolean {
  return dialect!.phases.every(
    (p) =>
      p.kind !== "stored" ||
      dialect!.phases.filter((q) => q.kind === "stored" && q.memory === p.memory).length > 1 ||
      p.times > 1,
  );
}

/**
 * Was a show that comes once watched from its start? The watch began as the key went on, and a flash came when the first one does
 * at the unit's tempo. Marks before it, of the key going on, are no flashes of the show.
 */
function startSeen({ dialect, way }: SystemAccess, reading: Reading): boolean {
  if (!dialect || !reading.keyOn) return false;
  const tempo = reading.result?.heard?.tempo ?? 1;
  const first = dialect.phases[0];
  const test = first?.kind === "steady" ? first.ms : 0;
  const expected =
    beginsAfterMs(way) + (test ? test + dialect.gaps.code : first?.kind === "group" ? first.beforeMs : 0) * tempo;
  const [soonest, latest] = [expected * (1 - OFF_TEMPO) - AHEAD_MS / 5, expected * (1 + OFF_TEMPO) + AHEAD_MS];
  // Held keys and films show the lamp test itself; it is no flash either.
  const flash = reading.marks.find(
    (m) => m.t >= soonest && !(m.up !== undefined && test && m.up - m.t > 0.6 * test * tempo),
  );
  return flash !== undefined && flash.t <= latest;
}

/** A lamp that did not blink: what that means depends on what an empty memory shows, and on what the lamp does when nobody asks. */
function restedOf(access: SystemAccess, reading: Reading, doubts: Doubt[], most: Sure): Told {
  const { empty, phases } = access.dialect!;
  const seen = reading.rested ?? (reading.result!.state === "steady" ? "lit" : "dark");
  const ends = seen === "lit" ? "lit" : "dark";
  if (empty?.kind !== "steady" || empty.lamp !== ends) return blank(reading, "no-answer", doubts);
  const unproven = (way: Extract<Doubt, { kind: "looks-alike" }>["way"]) =>
    blank(reading, "none", [...doubts, { kind: "looks-alike", way }]);
  // Dark throughout is what a unit without power does too; that it was lit for a moment tells them apart.
  if (ends === "dark" && !(seen === "lit-then-dark" && phases[0]?.kind === "steady")) return unproven("no-power");
  // The same as the lamp does when nobody asks proves nothing of the asking.
  if (lampAtRest(access.way) === ends) return unproven(ends === "lit" ? "no-contact" : "not-asked");
  return noneTold(
    reading,
    { p: Math.min(reading.result!.confidence, COPIED), heard: 1, most: atMost(most, "likely") },
    [...doubts, { kind: "heard-once" }],
  );
}

/** Was a code there, surely not there, or is it not known? */
export function seenIn(t: Told, code: string, memory: Memory | null): boolean | null {
  if (t.codes.some((x) => x.code === code && x.memory === memory)) return true;
  return (t.answer === "none" && atLeast(t.none, "likely")) || (t.answer === "codes" && atLeast(t.whole, "likely"))
    ? false
    : null;
}
