import type { Memory } from "../flash/dialect/dialect";
import type { Sure } from "../flash/judge/sureness";
import type { RunSince } from "../record/types";
import type { JobCase } from "./case";
import { driveFits, epochsOf, ranIn, type Epoch } from "./epochs";
import { codeKind, type CodeKind } from "./faults";
import { knownIn } from "./known";
import { atLeast, atMost, seenIn, type Told } from "./told";

/**
 * - `hard`: back at once, with the key on or at idle, or shown as there now
 * - `intermittent`: away with the key on, back after a drive
 * - `back`: there again after a drive; whether it came at once was not looked at
 * - `still`: there again, and nothing shows that the clear took
 * - `gone`: stays away over the drive that the pack asks for, as the person told of it
 * - `quiet`: has not come back, but was not driven as it needs
 * - `open`: not known yet: no list since the clear was seen whole
 * - `new`: was not there before the clear
 * - `late`: there now; the list before the clear was not seen whole
 */
export type Persistence = "hard" | "intermittent" | "back" | "still" | "gone" | "quiet" | "open" | "new" | "late";

/** A code in the comparison of before and after. */
export interface Row {
  code: string;
  memory: Memory | null;
  kind: CodeKind;
  before: boolean;
  /** For each reading since the clear: there, not there, or not known. */
  after: (boolean | null)[];
  persistence: Persistence;
  sure: Sure;
}

/** What the readings since the last clear of a system prove. */
export interface Proof {
  system: string;
  cleared: boolean;
  /** The last readings before the clear, and those since. */
  before: Told[];
  after: Told[];
  ran: RunSince[];
  rows: Row[];
  /** Something that was stored is not any more: the clear did what it should. */
  clearTook: boolean;
  /** The last drive that was told of cannot have been: too little time had passed. */
  tooSoon: boolean;
  /** How the last reading could have shown a fault: nothing, or too little was done since the clear. */
  state: "not-cleared" | "not-read" | "not-fixed" | "not-proven" | "fixed" | "nothing";
}

const reads = (t: Told) => t.answer === "codes" || t.answer === "none";

export function proofOf(c: JobCase, system: string): Proof {
  const epochs = epochsOf(c, system);
  const now = epochs.at(-1)!;
  const cleared = now.clear !== null;
  const earlier = cleared ? epochs.slice(0, -1) : epochs;
  const all = cleared ? now.told.map((t, i) => ({ t, run: ranIn(c, now)[i] })).filter(({ t }) => reads(t)) : [];
  const after = all.map((x) => x.t);
  const ran = all.map((x) => x.run);
  const before = earlier.flatMap((e) => e.told.filter(reads));
  // Without a clear it is what is known now; an earlier reading that was read otherwise since proves nothing.
  const known = cleared
    ? keysOf(earlier)
    : knownIn(now, system).codes.map(({ code, memory }) => ({ code, memory, before: true }));
  const keys = [...known];
  for (const t of after)
    for (const x of t.codes)
      if (!keys.some((k) => k.code === x.code && k.memory === x.memory))
        keys.push({ code: x.code, memory: x.memory, before: false });
  const took =
    cleared && known.some((k) => k.memory !== "live" && after.some((t) => seenIn(t, k.code, k.memory) === false));
  const last = cleared ? earlier.findLast((e) => e.told.some(reads)) : undefined;
  const wholeBefore =
    last !== undefined && (atLeast(knownIn(last, system).whole, "certain") || knownIn(last, system).none === "certain");
  const rows = keys.map((k) => rowOf(c, system, k, after, ran, took, wholeBefore));
  const faults = rows.filter((r) => r.kind === "fault");
  const drive = now.told.findLast((t) => t.reading.run === "drive");
  const tooSoon = now.clear !== null && drive !== undefined && !driveFits(c, now.clear, drive.reading);
  return {
    system,
    cleared,
    before,
    after,
    ran,
    rows,
    clearTook: took,
    tooSoon,
    state: stateOf(cleared, before, after, ran, faults),
  };
}

function stateOf(
  cleared: boolean,
  before: readonly Told[],
  after: readonly Told[],
  ran: readonly RunSince[],
  faults: readonly Row[],
): Proof["state"] {
  if (!cleared) return before.length === 0 ? "not-read" : faults.length ? "not-cleared" : "nothing";
  if (!after.length) return "not-read";
  const is = (...kinds: Persistence[]) => faults.some((r) => kinds.includes(r.persistence));
  if (is("hard", "intermittent", "back", "still", "new", "late")) return "not-fixed";
  if (is("quiet", "open")) return "not-proven";
  // Nothing was stored before, or only what is no fault: what the list says now must be known all the same.
  const known = after.some((t) => atLeast(t.none, "likely") || atLeast(t.whole, "likely"));
  if (!faults.length) return known ? "nothing" : "not-proven";
  return known && ran.includes("drive") ? "fixed" : "not-proven";
}

type Key = { code: string; memory: Memory | null; before: boolean };

/** Codes that were stored at any time before the last clear, each once. */
function keysOf(earlier: readonly Epoch[]): Key[] {
  const keys: Key[] = [];
  for (const e of earlier)
    for (const t of e.told)
      for (const x of t.codes)
        if (atLeast(x.sure, "likely") && !keys.some((k) => k.code === x.code && k.memory === x.memory))
          keys.push({ code: x.code, memory: x.memory, before: true });
  return keys;
}

function rowOf(
  c: JobCase,
  system: string,
  k: Key,
  after: readonly Told[],
  ran: readonly RunSince[],
  took: boolean,
  wholeBefore: boolean,
): Row {
  const seen = after.map((t) => seenIn(t, k.code, k.memory));
  const kind = codeKind(c, system, k.code);
  const at = seen.indexOf(true);
  const sureAt = (i: number): Sure =>
    after[i].codes.find((x) => x.code === k.code && x.memory === k.memory)?.sure ?? "unsure";
  const row = (persistence: Persistence, sure: Sure): Row => ({
    code: k.code,
    memory: k.memory,
    kind,
    before: k.before,
    after: seen,
    persistence,
    sure,
  });
  if (at < 0) {
    const driven = seen.findIndex((s, i) => s === false && ran[i] === "drive");
    if (driven >= 0) return row("gone", "likely");
    return seen.includes(false) ? row("quiet", "likely") : row("open", "unsure");
  }
  // A unit that tests itself tells what is there now, so the newest answer holds.
  if (k.memory === "live") {
    const now = seen.findLastIndex((x) => x !== null);
    // A newer answer without it that is not sure of itself proves nothing, and takes the certainty from the older one.
    const doubted = after.slice(now + 1).some((t) => t.answer === "codes" || t.answer === "none");
    return seen[now]
      ? row("hard", doubted ? atMost(sureAt(now), "likely") : sureAt(now))
      : row(ran[now] === "drive" ? "gone" : "quiet", "likely");
  }
  const sure = seen.reduce<Sure>((s, x, i) => (x && atLeast(sureAt(i), s) ? sureAt(i) : s), "unsure");
  if (!k.before) return wholeBefore ? row("new", sure === "certain" ? "likely" : "unsure") : row("late", sure);
  if (ran[at] === "drive") {
    const away = seen.slice(0, at).some((s, i) => s === false && ran[i] !== "drive");
    return away ? row("intermittent", atMost(sure, "likely")) : row("back", sure);
  }
  // That it was only switched on is the person's word.
  return took ? row("hard", atMost(sure, "likely")) : row("still", sure);
}
