import { driveOfStory, type Drive } from "../diagnosis/conditions";
import type { Job, JobEnd, Reading, StepId } from "../record/types";
import { countedOf, type Counted } from "../clearing/counting";
import { countingSince } from "../proving/count";
import { nextStep, worthKeeping } from "./gates";

/** Raised when a card holds something else than before: older ones are made anew from the records. */
export const CARD_VERSION = 4;

/** What of a reading is told outside its own job: no mark and no picture. */
export interface Gist {
  id: string;
  system: string;
  startedAt: string;
  recordedAt: string | null;
  withdrawn: boolean;
  /** It tells enough to be wiped after it. */
  worth: boolean;
  codes: string[];
  /** In a few words, for whoever goes through the garage; empty while it is not recorded. */
  says: string;
}

/** A job in one line. */
export interface JobLine {
  id: string;
  system: string;
  title: string;
  openedAt: string;
  closedAt: string | null;
  end: JobEnd | null;
  verdict: string;
  done: StepId[];
  /** The step that comes next. */
  at: StepId;
  /** When the lamp came on, as the story tells it. */
  cameOn: Drive | null;
  /** Rides since the last clear that count; null where nothing was cleared. */
  rides: number | null;
  /** How far its unit is on the way to wipe itself. */
  counted: Counted | null;
  /** The oldest first. */
  readings: Gist[];
}

/**
 * What the garage and the page of a vehicle tell of its jobs: kept beside the records, so that opening a garage reads no job.
 * It holds nothing that the records do not hold, and can be made anew from them at any time.
 */
export interface Card {
  version: typeof CARD_VERSION;
  vehicle: string;
  /** The oldest first. */
  jobs: JobLine[];
}

export const newCard = (vehicle: string): Card => ({ version: CARD_VERSION, vehicle, jobs: [] });

/** What a recorded reading showed, without a judgement: that needs the tables, and the page of the job has them. */
function shown(reading: Reading, codes: readonly string[]): string {
  if (codes.length) return `read: ${codes.join(", ")}`;
  if (reading.readiness)
    return { complete: "monitors complete", "not-complete": "monitors not complete", unclear: "readiness not clear" }[
      reading.readiness
    ];
  return reading.result?.state === "none" ? "read: no code shown" : "read, nothing could be told";
}

export function gistOf(reading: Reading): Gist {
  const { id, system, startedAt, recordedAt, withdrawnAt } = reading;
  const codes = reading.lists
    ? [...new Set(Object.values(reading.lists).flatMap((l) => l.codes))]
    : (reading.result?.codes ?? []);
  return {
    id,
    system,
    startedAt,
    recordedAt,
    withdrawn: withdrawnAt !== undefined,
    worth: worthKeeping(reading),
    codes: recordedAt ? codes : [],
    says: recordedAt ? shown(reading, codes) : "",
  };
}

function lineOf(job: Job, readings: readonly Gist[]): JobLine {
  const { id, system, title, openedAt, closedAt, end, verdict, done } = job;
  const sorted = [...readings].sort((a, b) => a.startedAt.localeCompare(b.startedAt));
  return {
    id,
    system,
    title,
    openedAt,
    closedAt,
    end: end ?? null,
    verdict,
    done,
    at: nextStep(job, sorted),
    cameOn: driveOfStory(job.story, job.openedAt),
    rides: job.clears.length ? countingSince(job.rides, job.clears.at(-1)!.at).length : null,
    counted: countedOf(job),
    readings: sorted,
  };
}

const inOrder = (jobs: JobLine[]): JobLine[] => jobs.sort((a, b) => a.openedAt.localeCompare(b.openedAt));

/** The card with a job as it is now. */
export function withJob(card: Card, job: Job): Card {
  const own = card.jobs.find((j) => j.id === job.id);
  return { ...card, jobs: inOrder([...card.jobs.filter((j) => j !== own), lineOf(job, own?.readings ?? [])]) };
}

/** The card with a reading of a job as it is now. */
export function withReadingOf(card: Card, job: Job, reading: Reading): Card {
  const own = card.jobs.find((j) => j.id === job.id);
  const others = (own?.readings ?? []).filter((r) => r.id !== reading.id);
  return { ...card, jobs: inOrder([...card.jobs.filter((j) => j !== own), lineOf(job, [...others, gistOf(reading)])]) };
}

/** The card without a job, or without one reading of it. */
export function without(card: Card, job: string, reading?: string): Card {
  const jobs = reading
    ? card.jobs.map((j) => (j.id === job ? { ...j, readings: j.readings.filter((r) => r.id !== reading) } : j))
    : card.jobs.filter((j) => j.id !== job);
  return { ...card, jobs };
}

/** What the garage shows of a vehicle's jobs. */
export interface Face {
  open: JobLine[];
  last: Pick<JobLine, "end" | "closedAt"> | null;
  /** When the newest job was opened; empty where there is none. */
  touched: string;
}

/** A card as it is kept: what the garage shows lies open, the history of closed jobs is folded, since a garage of years holds much of it. */
export interface Folded extends Face {
  version: typeof CARD_VERSION;
  vehicle: string;
  closed: string;
}

export function fold({ version, vehicle, jobs }: Card): Folded {
  const last = jobs.findLast((j) => j.closedAt);
  return {
    version,
    vehicle,
    open: jobs.filter((j) => !j.closedAt),
    last: last ? { end: last.end, closedAt: last.closedAt } : null,
    touched: jobs.at(-1)?.openedAt ?? "",
    closed: JSON.stringify(jobs.filter((j) => j.closedAt)),
  };
}

export const unfold = ({ version, vehicle, open, closed }: Folded): Card => ({
  version,
  vehicle,
  jobs: inOrder([...(JSON.parse(closed) as JobLine[]), ...open]),
});

/** Made anew from the records of one vehicle. */
export function cardFrom(vehicle: string, jobs: readonly Job[], readings: readonly Reading[]): Card {
  const lines = jobs.map((j) => lineOf(j, readings.filter((r) => r.job === j.id).map(gistOf)));
  return { ...newCard(vehicle), jobs: inOrder(lines) };
}
