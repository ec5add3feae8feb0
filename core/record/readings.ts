import type { AfterClear, CodesRead } from "../proving/compare";
import { RECORD_VERSION, type Job, type Mark, type Reading, type ReadingResult, type SystemList } from "./types";

/** A reading of which nothing is seen yet. */
export function newReading(
  of: Pick<Reading, "id" | "job" | "vehicle" | "system" | "way" | "dialect" | "input" | "run" | "startedAt">,
): Reading {
  return { version: RECORD_VERSION, kind: "reading", ...of, marks: [], pauses: [], until: null, result: null, recordedAt: null }; // prettier-ignore
}

/** When the flash that was marked last ended, ms from the start of watching. */
export const lastMarked = (marks: readonly Mark[]): number => marks.reduce((t, m) => Math.max(t, m.up ?? m.t), 0);

/** A watch that was broken off, since its page was closed, went on so long after what was seen last, ms. */
export const TAIL_MS = 1500;

/** What a reading says of one system, or null where it says nothing of it. */
export function readingOf(reading: Reading, system: string): Reading | null {
  const list = reading.lists && Object.hasOwn(reading.lists, system) ? reading.lists[system] : null;
  if (list) return { ...reading, system, result: resultOf(list) };
  return reading.system === system && !reading.lists ? reading : null;
}

/** A list that was typed or sent is as certain as its characters were clear. */
export function resultOf(list: SystemList): ReadingResult {
  const sure = list.unclear.length ? 0.8 : 0.99;
  return {
    state: list.state,
    codes: list.codes,
    memories: {},
    complete: list.unclear.length === 0 && list.state !== "unclear",
    confidence: sure,
    codeConfidence: Object.fromEntries(list.codes.map((c) => [c, sure])),
  };
}

/** Recorded readings of a system, in order of time. */
export function recorded(readings: readonly Reading[], system: string): Reading[] {
  return readings
    .flatMap((r) => readingOf(r, system) ?? [])
    .filter((r) => r.recordedAt)
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

/** Was this memory cleared in this job? It is named by the system that it belongs to. */
export function wasCleared(job: Job, system: string): boolean {
  return job.clears.some((c) => c.system === system);
}

/** The latest reading before the last clear, and those after it: what the proof compares. */
export function beforeAndAfter(
  job: Job,
  readings: readonly Reading[],
  system: string,
  memory = system,
): { before: Reading | null; after: Reading[] } {
  const all = recorded(readings, system);
  const clear = job.clears.filter((c) => c.system === memory).at(-1);
  if (!clear) return { before: all.at(-1) ?? null, after: [] };
  const before = all.filter((r) => r.recordedAt! <= clear.at);
  return { before: before.at(-1) ?? null, after: all.filter((r) => r.recordedAt! > clear.at && r.run !== "before") };
}

export function codesRead(reading: Reading): CodesRead {
  const r = reading.result;
  // "Nothing stored" is a whole list too, where the show said so; a dark lamp proves it only for who checked the lamp first.
  return {
    codes: r?.codes ?? [],
    complete: Boolean(
      r && (r.complete || r.state === "none" || ((r.state === "dark" || r.state === "steady") && r.confidence >= 0.9)),
    ),
  };
}

export function afterClear(reading: Reading): AfterClear {
  return { ...codesRead(reading), run: reading.run === "before" ? "key-on" : reading.run };
}
