import type { Decoded } from "../flash/answer";
import { RECORD_VERSION, type LampRested, type Mark, type Reading, type ReadingResult, type SystemList } from "./types";

/** A reading of which nothing is seen yet. */
export function newReading(
  of: Pick<Reading, "id" | "job" | "vehicle" | "system" | "way" | "dialect" | "input" | "run" | "startedAt"> &
    Pick<Partial<Reading>, "revision">,
): Reading {
  return {
    version: RECORD_VERSION,
    kind: "reading",
    ...of,
    marks: [],
    pauses: [],
    until: null,
    result: null,
    recordedAt: null,
  };
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

/** What is kept of a decoder's answer. */
export function resultFrom({
  state,
  codes,
  memories,
  complete,
  confidence,
  codeConfidence,
  ...d
}: Decoded): ReadingResult {
  const { exactShown, wholeRound, roundsShown, over, completeness, cylinders, tempo, memoryConfidence } = d;
  return {
    state,
    codes,
    memories,
    complete,
    confidence,
    codeConfidence,
    heard: { exactShown, wholeRound, roundsShown, over, completeness, cylinders, tempo, memoryConfidence },
  };
}

/** A lamp that did not blink for `ms`: what it did says the person who watched. Under a while it means nothing. */
export function resultOfRest(rested: LampRested, ms: number): ReadingResult {
  const state = rested === "lit" ? "steady" : "dark";
  return {
    state,
    codes: [],
    memories: {},
    complete: false,
    confidence: ms >= RESTED_MS ? 0.95 : 0.5,
    codeConfidence: {},
  };
}

/** So long a lamp must have rested before that means anything, ms. */
const RESTED_MS = 12_000;

/** Recorded readings of a system that were not taken back, in order of time. */
export function recorded(readings: readonly Reading[], system: string): Reading[] {
  return readings
    .flatMap((r) => readingOf(r, system) ?? [])
    .filter((r) => r.recordedAt && !r.withdrawnAt)
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}
