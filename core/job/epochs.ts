import { tableOwner } from "../pack/scope";
import type { ClearDone, Reading, RunSince } from "../record/types";
import type { JobCase } from "./case";
import { toldOf, type Told } from "./told";

/** A stretch of a job between two clears of one memory: what was read in it, oldest first. */
export interface Epoch {
  /** The clear with which it began; null for the first. */
  clear: ClearDone | null;
  told: Told[];
}

/** Memories that a clear wiped whole. */
function wipedBy(c: Pick<JobCase, "pack">, clear: ClearDone): string[] {
  if (clear.code !== undefined) return [];
  return (clear.wiped ?? [clear.system]).map((s) => tableOwner(c.pack, s));
}

/** Clears of a memory, in order of time. */
export const clearsOf = (c: JobCase, memory: string): ClearDone[] =>
  epochsOf(c, memory, memory).flatMap((e) => e.clear ?? []);

/** Was this memory cleared in this job? */
export const wasCleared = (c: JobCase, memory: string): boolean => epochsOf(c, memory, memory).length > 1;

/**
 * All that was read of a system, in stretches between the clears of its memory. There is one at least. Where each code is wiped alone, the
 * memory counts as cleared once all that were read are.
 */
export function epochsOf(c: JobCase, system: string, memory = tableOwner(c.pack, system)): Epoch[] {
  const readings = c.readings
    .flatMap((r) => toldOf(c, r, system) ?? [])
    .map((told) => ({ at: told.reading.startedAt, told }));
  const clears = c.job.clears
    .filter((x) => wipedBy(c, x).includes(memory) || (x.code !== undefined && (x.wiped ?? [x.system]).includes(memory)))
    .map((clear) => ({ at: clear.at, clear }));
  const epochs: Epoch[] = [{ clear: null, told: [] }];
  let left = new Set<string>();
  for (const e of [...clears, ...readings].sort((a, b) => a.at.localeCompare(b.at))) {
    if ("told" in e) {
      epochs.at(-1)!.told.push(e.told);
      if (e.told.codes.length) left = new Set(e.told.codes.map((x) => x.code));
      continue;
    }
    if (e.clear.code !== undefined && (left.delete(e.clear.code), left.size > 0)) continue;
    epochs.push({ clear: e.clear, told: [] });
  }
  return epochs;
}

/** Without a word in the pack, a drive that proves something takes so long, minutes. */
const USUAL_DRIVE_MINUTES = 15;
/** Who says that it was driven is believed when so much of that time has passed. */
const ENOUGH_OF_DRIVE = 0.8;

/** Could the drive that a pack asks for have been made since the clear? */
export function driveFits(
  c: Pick<JobCase, "pack">,
  clear: Pick<ClearDone, "at">,
  reading: Pick<Reading, "startedAt">,
): boolean {
  const minutes = (Date.parse(reading.startedAt) - Date.parse(clear.at)) / 60_000;
  return minutes >= ENOUGH_OF_DRIVE * (c.pack.proving.driveMinutes ?? USUAL_DRIVE_MINUTES);
}

const FAR: Record<Reading["run"], number> = { before: 0, "key-on": 0, idle: 1, drive: 2 };

/** How the vehicle was run up to each reading of a stretch, as told and as far as it can be: once driven it stays so. */
export function ranIn(c: Pick<JobCase, "pack">, epoch: Epoch): RunSince[] {
  let most: RunSince = "key-on";
  return epoch.told.map(({ reading }) => {
    const told: RunSince = reading.run === "before" ? "key-on" : reading.run;
    const ran: RunSince = told === "drive" && epoch.clear && !driveFits(c, epoch.clear, reading) ? "key-on" : told;
    if (FAR[ran] > FAR[most]) most = ran;
    return most;
  });
}

/** What a new reading is taken to come after, unless the person says otherwise: the same as the last one. */
export function runToAsk(c: JobCase, system: string): Reading["run"] {
  const epoch = epochsOf(c, system).at(-1)!;
  return epoch.clear ? (ranIn(c, epoch).at(-1) ?? "key-on") : "before";
}
