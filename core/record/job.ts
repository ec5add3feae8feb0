import { lampNamed } from "../pack/lamp-name";
import { lampVerdict, type LampSeen, type OthersSeen } from "../procedure/lamp-check";
import type { UnitSeen } from "../procedure/unit-check";
import type { Of } from "../schema/rule";
import {
  RECORD_VERSION,
  STEP_IDS,
  type CheckDone,
  type ClearDone,
  type Counting,
  type Job,
  type JobEnd,
  type Note,
  type Relearned,
  type Repair,
  type RideDone,
  type StepId,
  type Story,
  type toldRule,
  type Vehicle,
} from "./types";

/** Changes of a job. Pure: each returns a new job, and writes its own line in the notebook. */

export const EMPTY_STORY: Story = {
  lamp: "",
  since: "",
  engine: "",
  speed: "",
  load: "",
  weather: [],
  before: [],
  worked: [],
  symptoms: [],
  goesOut: "",
  words: "",
  forSale: false,
};

export function newJob(vehicle: Pick<Vehicle, "id">, system: string, id: string, now: string): Job {
  return {
    version: RECORD_VERSION,
    kind: "job",
    id,
    vehicle: vehicle.id,
    title: "New job",
    openedAt: now,
    closedAt: null,
    handOver: false,
    done: [],
    story: EMPTY_STORY,
    lampCheck: null,
    system,
    hookUpStep: 0,
    checks: [],
    repairs: [],
    rides: [],
    clears: [],
    clearing: null,
    counting: null,
    relearned: [],
    notebook: [{ at: now, by: "klinko", step: "story", text: "Job opened." }],
    verdict: "",
  };
}

export function note(
  job: Job,
  step: StepId,
  text: string,
  now: string,
  by: Note["by"] = "klinko",
  photos: readonly string[] = [],
): Job {
  const line: Note = { at: now, by, step, text, ...(photos.length && { photos: [...photos] }) };
  return { ...job, notebook: [...job.notebook, line] };
}

/** A line of a person: no other one is changed by hand. */
const ofPerson = (n: Note, line: Pick<Note, "at" | "text">): boolean =>
  n.by === "person" && n.at === line.at && n.text === line.text;

/**
 * A line of the person put right; what it said before stays with it.
 * @param line as it was seen, so that one that was changed meanwhile is not changed again
 */
export function withCorrection(job: Job, line: Pick<Note, "at" | "text">, text: string, now: string): Job {
  const i = job.notebook.findIndex((n) => ofPerson(n, line));
  const old = job.notebook[i];
  if (!old || old.text === text) return job;
  const was = [...(old.was ?? []), { text: old.text, at: now }];
  return { ...job, notebook: job.notebook.with(i, { ...old, text, was }) };
}

export function stepDone(job: Job, step: StepId): Job {
  return job.done.includes(step) ? job : { ...job, done: STEP_IDS.filter((s) => s === step || job.done.includes(s)) };
}

const SPEED_WORDS = {
  standing: "while standing",
  town: "in town",
  country: "on the road",
  motorway: "at motorway speed",
  any: "at any speed",
  "": "",
};

/** The story in one line: what the job is called. */
function storyTitle(story: Story): string {
  const when = [
    story.engine && story.engine !== "any" ? `with the engine ${story.engine}` : "",
    SPEED_WORDS[story.speed],
  ]
    .filter(Boolean)
    .join(", ");
  const several = / and /.test(story.lamp);
  const lamp = story.lamp ? lampNamed(story.lamp, several) : "Lamp";
  return when
    ? `${lamp} ${several ? "come" : "comes"} on ${when}`
    : story.symptoms[0]
      ? `${lamp}: ${story.symptoms[0]}`
      : `${lamp} came on`;
}

/** A word of a form in the middle of a sentence. */
const inside = (word: string): string => word.charAt(0).toLowerCase() + word.slice(1);

type Told = Of<typeof toldRule>;

const STORY_WORDS: Record<keyof Story, string> = {
  lamp: "which lamp",
  since: "since when",
  engine: "engine",
  speed: "speed",
  load: "load",
  weather: "weather",
  before: "what was done before",
  worked: "where it was worked on",
  symptoms: "what the engine does",
  goesOut: "does it go out again",
  words: "the owner's words",
  forSale: "whether it is for sale",
};

/**
 * Two people, or two tabs, tell the story of one job: what only one of them has changed stands.
 * @param base what both began with
 * @returns the story, and in words what both have changed, each in another way
 */
export function mergeStory(base: Told, here: Told, mine: Told): Told & { both: string[] } {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const keys = Object.keys(STORY_WORDS) as (keyof Story)[];
  const changed = keys.filter((k) => !same(mine.story[k], base.story[k]));
  const both = changed.filter((k) => !same(here.story[k], base.story[k]) && !same(here.story[k], mine.story[k]));
  const own = Object.fromEntries(changed.map((k) => [k, mine.story[k]]));
  // Of yes and no both can only have changed to the same.
  const handOver = mine.handOver === base.handOver ? here.handOver : mine.handOver;
  return { story: { ...here.story, ...own }, handOver, both: both.map((k) => STORY_WORDS[k]) };
}

export function withStory(job: Job, story: Story, handOver: boolean, now: string): Job {
  const title = storyTitle(story);
  const since = story.since.trim().replace(/^since\s+/i, "");
  const before = story.before.map((b) =>
    b === "Just worked on" && story.worked.length ? `${b} (${story.worked.map(inside).join(", ")})` : b,
  );
  const more = [...story.weather, ...before, ...story.symptoms, ...(story.forSale ? ["For sale"] : [])].map(inside);
  const details = [since && `since ${since}`, ...more].filter(Boolean).join(", ");
  return stepDone(
    note({ ...job, story, title, handOver }, "story", details ? `${title}; ${details}.` : `${title}.`, now),
    "story",
  );
}

/** Somebody looks at the lamps and outputs of a vehicle for so long, ms. */
const ONE_LOOK_MS = 5 * 60_000;

/** @param says the verdict in words, with what was seen of each unit; none is written twice in a row */
export function withLampCheck(
  job: Job,
  seen: LampSeen,
  others: OthersSeen,
  now: string,
  units: Record<string, UnitSeen> = {},
  says = lampVerdict(seen, others).headline,
): Job {
  const check = { ...job, lampCheck: { at: now, seen, others, units } };
  // Answers that follow one another in one look are one line: the last one holds all of them. Another answer of the lamp is news.
  const last = job.notebook.at(-1);
  const goesOn =
    job.lampCheck?.seen === seen &&
    last?.step === "lamp-check" &&
    last.by === "klinko" &&
    Date.parse(now) - Date.parse(last.at) < ONE_LOOK_MS;
  const before = goesOn ? { ...check, notebook: job.notebook.slice(0, -1) } : check;
  const known = job.notebook.findLast((n) => n.step === "lamp-check" && n.by === "klinko")?.text === says;
  const next = known ? check : note(before, "lamp-check", says, now);
  return lampVerdict(seen, others).pass
    ? stepDone(next, "lamp-check")
    : { ...next, done: next.done.filter((s) => s !== "lamp-check") };
}

/** The notebook with what was read; asked again of the same reading it writes no second line. */
export function withReading(job: Job, says: string, now: string): Job {
  const there = job.notebook.some((line) => line.at === now && line.text === says);
  return stepDone(there ? job : note(job, "read", says, now), "read");
}

/** A reading that was taken back: it stays in the records, and the notebook says so. */
export function withWithdrawn(job: Job, what: string, now: string): Job {
  return note(job, "read", `Taken back: the reading of ${what}. It counts for nothing.`, now);
}

/** A check with its outcome. The same one done again stands beside the first; the last one counts. */
export function withCheck(job: Job, done: Omit<CheckDone, "at">, now: string): Job {
  const says = `${done.title}: ${done.measured ?? `${done.outcome}.`}`;
  return note({ ...job, checks: [...job.checks, { at: now, ...done }] }, "checks", says, now);
}

/** A check or a repair that was noted by mistake: it stays in the records and counts for nothing. */
export function withoutDone(job: Job, what: "checks" | "repairs" | "rides", at: string, now: string): Job {
  const gone = job[what].find((x) => x.at === at && !x.withdrawnAt);
  if (!gone) return job;
  const list = job[what].map((x) => (x === gone ? { ...x, withdrawnAt: now } : x));
  return note(
    { ...job, [what]: list },
    what === "rides" ? "prove" : "checks",
    `Taken back: ${"title" in gone ? gone.title : "what" in gone ? gone.what : `the ride, ${gone.says}`}.`,
    now,
  );
}

/** Rides that were noted. One that is there already, by when it set off, is not noted twice. */
export function withRides(job: Job, told: readonly Omit<RideDone, "notedAt">[], now: string): Job {
  const known = new Set(job.rides.filter((r) => !r.withdrawnAt).map((r) => r.at));
  const news = told.filter((r) => !known.has(r.at));
  const rides = [...job.rides, ...news.map((r) => ({ ...r, notedAt: now }))].sort((a, b) => a.at.localeCompare(b.at));
  return news.reduce((j, r) => note(j, "prove", `Ride: ${r.says}`, now), { ...job, rides });
}

/** What was mended or replaced, and what it is meant to cure. */
export function withRepair(job: Job, told: Omit<Repair, "at">, now: string): Job {
  const more = [
    told.part && `part ${told.part}`,
    told.cost && `cost ${told.cost}`,
    told.cures.length && `for ${told.cures.join(", ")}`,
  ];
  const says = [`Repaired: ${told.what}`, ...more.filter(Boolean)].join("; ");
  return stepDone(
    note({ ...job, repairs: [...job.repairs, { at: now, ...told }] }, "checks", `${says}.`, now),
    "checks",
  );
}

/** What was said against a clear, and gone past. */
const goPast = (job: Job, despite: readonly string[], now: string): Job =>
  despite.reduce((j, reason) => note(j, "clear", `All the same: ${reason}`, now), job);

/** @param despite what was said against it, and gone past */
export function beginClear(job: Job, way: string, title: string, now: string, despite: readonly string[] = []): Job {
  const past = goPast(job, despite, now);
  return note({ ...past, clearing: { way, startedAt: now } }, "clear", `${title}: time started.`, now);
}

/** From now on it is counted how often the vehicle is used without the fault, until the unit wipes itself. */
export function beginCount(
  job: Job,
  of: Pick<Counting, "way" | "of" | "need">,
  title: string,
  now: string,
  despite: readonly string[] = [],
): Job {
  const past = goPast(job, despite, now);
  const counting = { ...of, startedAt: now, starts: [] };
  return stepDone(note({ ...past, counting }, "clear", `${title}: the count begins.`, now), "clear");
}

/** A start without the lamp. */
export function withStart(job: Job, now: string): Job {
  const { counting } = job;
  return counting ? { ...job, counting: { ...counting, starts: [...counting.starts, now] } } : job;
}

/** The last start that was noted was none. */
export function withoutStart(job: Job): Job {
  const { counting } = job;
  return counting ? { ...job, counting: { ...counting, starts: counting.starts.slice(0, -1) } } : job;
}

/** The fault was there again: units count from the beginning then. */
export function countAnew(job: Job, now: string): Job {
  const { counting } = job;
  if (!counting) return job;
  return note({ ...job, counting: { ...counting, startedAt: now, starts: [] } }, "prove", "The lamp came on: the count begins anew.", now); // prettier-ignore
}

/**
 * The unit should have wiped itself; whether it has, the next reading tells.
 * @param counted in words, how far the count has come
 */
export function endCount(
  job: Job,
  of: Pick<ClearDone, "system" | "wiped">,
  title: string,
  counted: string,
  now: string,
): Job {
  if (!job.counting) return job;
  const seconds = Math.round((Date.parse(now) - Date.parse(job.counting.startedAt)) / 1000);
  const clears = [...job.clears, { at: now, way: job.counting.way, seconds, ...of }];
  return note({ ...job, clears, counting: null }, "clear", `${title}: ${counted}.`, now);
}

export function abandonCount(job: Job, now: string): Job {
  return note({ ...job, counting: null }, "clear", "The count is broken off.", now);
}

/** Something was learned anew after a clear. @param seconds how long it was given */
export function withRelearned(
  job: Job,
  of: Pick<Relearned, "way" | "what" | "seconds">,
  title: string,
  now: string,
): Job {
  const relearned = [...job.relearned, { at: now, ...of }];
  const time = of.seconds >= 60 ? `${Math.floor(of.seconds / 60)} min` : `${of.seconds} s`;
  return note({ ...job, relearned, stepTimer: null }, "prove", `Learned anew: ${title}, ${time}.`, now);
}

/**
 * What was done is noted; whether it wiped anything, the next reading tells.
 * @param of what the way wipes, and for which system it was planned
 */
export function endClear(job: Job, of: Pick<ClearDone, "system" | "wiped" | "code">, title: string, now: string): Job {
  if (!job.clearing) return job;
  const seconds = Math.round((Date.parse(now) - Date.parse(job.clearing.startedAt)) / 1000);
  const clears = [...job.clears, { at: now, way: job.clearing.way, seconds, ...of }];
  return stepDone(note({ ...job, clears, clearing: null }, "clear", `Done: ${title}, ${seconds} s.`, now), "clear");
}

export function abandonClear(job: Job, now: string): Job {
  return note({ ...job, clearing: null }, "clear", "Clear broken off.", now);
}

export function closeJob(job: Job, end: JobEnd, verdict: string, now: string): Job {
  return stepDone(
    note({ ...job, verdict, end, clearing: null, counting: null, closedAt: now }, "prove", verdict, now),
    "prove",
  );
}

export function reopenJob(job: Job, now: string): Job {
  const { end: _, ...rest } = job;
  return note(
    { ...rest, verdict: "", closedAt: null, done: job.done.filter((s) => s !== "prove") },
    "prove",
    "Job opened again.",
    now,
  );
}
