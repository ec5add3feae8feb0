import Papa from "papaparse";
import type { Pack } from "../pack/pack";
import { inputOf } from "../record/inputs";
import type { Job, Reading, Vehicle } from "../record/types";
import { END_WORDS } from "./end";
import { lower } from "./say";

/** What can have happened to a vehicle, in the order in which it is offered. */
export const EVENT_KINDS = ["codes", "clear", "repair", "check", "ride", "lamp", "work", "mileage", "job"] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** Something that was recorded of a vehicle. */
export interface HistoryEvent {
  at: string;
  kind: EventKind;
  text: string;
  /** By its id; null where it is of the whole vehicle. */
  system: string | null;
  /** Codes that a reading showed, or that a clear or repair was for. */
  codes: string[];
  /** What the odometer showed, where that was written down with it, km. */
  km?: number | null;
  job: string | null;
}

/** Codes of a reading by system: what was read, whoever judges it. */
function codesOf(reading: Reading): [system: string, codes: string[]][] {
  if (reading.lists) return Object.entries(reading.lists).map(([system, l]) => [system, l.codes]);
  return [[reading.system, reading.result?.codes ?? []]];
}

const READY = {
  complete: "monitors complete",
  "not-complete": "monitors not complete",
  unclear: "readiness not clear",
};

/** What a reading showed, in a few words, without a judgement: that needs the tables, and the page of its job has them. */
function readText(reading: Reading, name: string, codes: readonly string[]): string {
  const by = inputOf(reading.input).said;
  if (reading.readiness) return `${name} ${by}: ${READY[reading.readiness]}`;
  if (codes.length) return `${name} read ${by}: ${codes.join(", ")}`;
  return `${name} read ${by}: ${reading.result?.state === "none" ? "no code shown" : "nothing could be told"}`;
}

/** All that was recorded of a vehicle and was not taken back, the oldest first. @param pack its make, where that is known here */
export function historyOf(
  vehicle: Pick<Vehicle, "drives" | "work">,
  jobs: readonly { job: Job; readings: readonly Reading[] }[],
  pack: Pack | undefined,
): HistoryEvent[] {
  const nameOf = (system: string) => pack?.systems.find((s) => s.id === system)?.name ?? system;
  const wayOf = (id: string) => pack?.clears.find((w) => w.id === id)?.title ?? id;
  const events: HistoryEvent[] = [];
  const none = { system: null, codes: [] };
  for (const { at, cameOn, conditions } of vehicle.drives)
    events.push({
      ...none,
      at,
      kind: "lamp",
      text: [cameOn ? "The lamp came on" : "Driven, and the lamp stayed out", ...conditions.map(lower)].join(", "),
      job: null,
    });
  for (const { at, what, km, withdrawnAt } of vehicle.work ?? [])
    if (!withdrawnAt)
      events.push({ ...none, at, kind: what ? "work" : "mileage", text: what, km: km ?? null, job: null });
  for (const { job, readings } of jobs) {
    const own = { ...none, job: job.id };
    events.push({ ...own, at: job.openedAt, kind: "job", text: `Job opened: ${job.title}` });
    if (job.closedAt)
      events.push({
        ...own,
        at: job.closedAt,
        kind: "job",
        // What it ended with says how it ended.
        text: job.verdict || (job.end ? END_WORDS[job.end] : "Closed"),
      });
    for (const r of readings)
      if (r.recordedAt && !r.withdrawnAt)
        for (const [system, codes] of codesOf(r))
          events.push({
            ...own,
            at: r.startedAt,
            kind: "codes",
            text: readText(r, nameOf(system), codes),
            system,
            codes,
          });
    for (const c of job.clears)
      events.push({
        ...own,
        at: c.at,
        kind: "clear",
        text: `${wayOf(c.way)}${c.code ? `, code ${c.code}` : ""}`,
        system: c.system,
        codes: c.code ? [c.code] : [],
      });
    for (const r of job.repairs)
      if (!r.withdrawnAt)
        events.push({
          ...own,
          at: r.at,
          kind: "repair",
          text: [r.what, r.part && `part ${r.part}`, r.cost].filter(Boolean).join(", "),
          codes: r.cures,
        });
    for (const c of job.checks)
      if (!c.withdrawnAt)
        events.push({ ...own, at: c.at, kind: "check", text: `${c.title}: ${c.measured ?? c.outcome}` });
    for (const r of job.rides)
      if (!r.withdrawnAt)
        events.push({ ...own, at: r.at, kind: "ride", text: `Ride of ${Math.round(r.seconds / 60)} min: ${r.says}` });
  }
  return events.sort((a, b) => a.at.localeCompare(b.at));
}

/** A text that a spreadsheet would take for a formula is given as text. */
const plain = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/** The history as CSV, a line an event, times exact. */
export const historyCsv = (plate: string, events: readonly HistoryEvent[]): string =>
  Papa.unparse(
    events.map((e) => ({
      time: e.at,
      vehicle: plain(plate),
      kind: e.kind,
      system: e.system ?? "",
      codes: e.codes.join(" "),
      km: e.km ?? "",
      text: plain(e.text),
      job: e.job ?? "",
    })),
  );
