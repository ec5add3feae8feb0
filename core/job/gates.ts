import type { SystemAccess } from "../pack/scope";
import { tellsByDashLamp } from "../pack/way";
import { lampVerdict, type LampSeen, type OthersSeen } from "../procedure/lamp-check";
import { readingOf } from "../record/readings";
import { othersOf } from "./lamp-check";
import { STEP_IDS, type Job, type Reading, type StepId } from "../record/types";

/** Does a reading tell something that may be wiped after it: codes, or that there are none? */
function tellsSomething(r: Reading): boolean {
  if (!r.recordedAt || r.withdrawnAt) return false;
  if (r.readiness) return true;
  const results = r.lists ? Object.keys(r.lists).map((s) => readingOf(r, s)?.result) : [r.result];
  return results.some(
    (x) => x && (x.codes.length > 0 || x.state === "none" || x.state === "dark" || x.state === "steady"),
  );
}

/** Does a reading hold codes, or that there are none, surely enough to be written down before they are wiped? */
const ENOUGH = 0.5;
export function worthKeeping(r: Reading): boolean {
  return (
    tellsSomething(r) && (r.lists !== undefined || r.readiness !== undefined || (r.result?.confidence ?? 0) >= ENOUGH)
  );
}

/** A reading, or what is kept of one where only that is at hand. */
export type Told = Reading | { recordedAt: string | null; withdrawn: boolean; worth: boolean };
const stands = (r: Told): boolean => r.recordedAt !== null && !("withdrawn" in r ? r.withdrawn : r.withdrawnAt);
const isWorth = (r: Told): boolean => ("worth" in r ? r.worth : worthKeeping(r));
/** Read so often, what there is to be known is written down, however doubtful each of the readings is. */
const READ_ENOUGH = 3;
const allWritten = (readings: readonly Told[]): boolean =>
  readings.filter((r) => !("worth" in r) && tellsSomething(r)).length >= READ_ENOUGH;

/** The system that is to be read: its unit may answer although another one's lamp is dark. */
export interface Asked {
  /** It tells by a lamp in the dash. Others can be asked though that lamp is dark. */
  byLamp: boolean;
  /** All systems of the same unit. */
  unit: readonly string[];
}

/** What was seen of the unit that is asked, or of the one that was looked at; null where it was not looked at. */
function seenOf({ lampCheck: check }: Job, asked?: Asked): { lamp: LampSeen | null; others: OthersSeen } | null {
  if (!check) return null;
  const own = asked?.unit.map((s) => check.units?.[s]).find(Boolean);
  if (!asked || !check.units || !Object.keys(check.units).length) return { lamp: check.seen, others: check.others };
  if (!own) return null;
  return { lamp: own.lamp, others: othersOf(own.outputs) };
}

/** Why a step cannot be taken yet, or null where it can. */
export function lockOf(job: Job, readings: readonly Told[], step: StepId, asked?: Asked): string | null {
  switch (step) {
    case "story":
    case "way-in":
    case "lamp-check":
      return null;
    case "hook-up":
    case "read": {
      if (!job.lampCheck) return "after the lamp check";
      const seen = seenOf(job, asked);
      if (!seen || seen.lamp === null || seen.lamp === "goes-out" || lampVerdict(seen.lamp, seen.others).pass)
        return null;
      // A reader, a dash or a serial lead tells by itself whether the unit answers.
      if (asked && !asked.byLamp) return null;
      return seen.lamp === "flashing" ? "the lamp flashes by itself" : "the lamp is dark";
    }
    case "meaning":
    case "checks":
      return readings.some(stands) ? null : "after a reading";
    case "clear":
      if (job.handOver) return "another workshop takes over";
      return readings.some(isWorth) || allWritten(readings) ? null : "after a usable reading";
    case "prove":
      return job.clears.length || job.counting ? null : "after the clear";
  }
}

export const askedOf = (access: SystemAccess, systems: readonly SystemAccess[]): Asked => ({
  byLamp: tellsByDashLamp(access.way),
  unit: systems.filter((s) => s.unit === access.unit).map((s) => s.system),
});

/** The first step that is not done and can be taken. */
export function nextStep(job: Job, readings: readonly Told[], asked?: Asked): StepId {
  // While a unit is on its way to wipe itself, each start or ride is noted there.
  if (job.counting) return "prove";
  // Nobody has to check anything before the clear: who went past it is not sent back.
  const past = (s: StepId) => job.done.includes(s) || (s === "checks" && job.done.includes("clear"));
  return STEP_IDS.find((s) => !past(s) && !lockOf(job, readings, s, asked)) ?? "prove";
}
