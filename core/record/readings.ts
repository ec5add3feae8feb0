import type { AfterClear, CodesRead } from "../proving/compare";
import type { Job, Reading } from "./types";

/** Recorded readings of a system, in order of time. */
export function recorded(readings: readonly Reading[], system: string): Reading[] {
  return readings
    .filter((r) => r.recordedAt && r.system === system)
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

/** Was this system cleared in this job? */
export function wasCleared(job: Job, system: string): boolean {
  return job.clears.some((c) => c.system === system);
}

/** The latest reading before the last clear, and those after it: what the proof compares. */
export function beforeAndAfter(
  job: Job,
  readings: readonly Reading[],
  system: string,
): { before: Reading | null; after: Reading[] } {
  const all = recorded(readings, system);
  const clear = job.clears.filter((c) => c.system === system).at(-1);
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
