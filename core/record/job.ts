import { lampVerdict, type LampSeen, type OthersSeen } from "../procedure/lamp-check";
import type { UnitSeen } from "../procedure/unit-check";
import { RECORD_VERSION, STEP_IDS, type Job, type Reading, type StepId, type Story, type Vehicle } from "./types";

/** Changes of a job. Pure: each returns a new job, and writes its own line in the notebook. */

export const EMPTY_STORY: Story = {
  lamp: "",
  since: "",
  engine: "",
  speed: "",
  load: "",
  weather: [],
  before: [],
  symptoms: [],
  goesOut: "",
  words: "",
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
    clears: [],
    clearing: null,
    notebook: [{ at: now, by: "klinko", step: "story", text: "Job opened." }],
    verdict: "",
  };
}

export function note(job: Job, step: StepId, text: string, now: string, by: "klinko" | "person" = "klinko"): Job {
  return { ...job, notebook: [...job.notebook, { at: now, by, step, text }] };
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
export function storyTitle(story: Story): string {
  const when = [
    story.engine && story.engine !== "any" ? `with the engine ${story.engine}` : "",
    SPEED_WORDS[story.speed],
  ]
    .filter(Boolean)
    .join(", ");
  const lamp = story.lamp ? `${story.lamp} lamp` : "Lamp";
  return when ? `${lamp} comes on ${when}` : story.symptoms[0] ? `${lamp}: ${story.symptoms[0]}` : `${lamp} came on`;
}

export function withStory(job: Job, story: Story, handOver: boolean, now: string): Job {
  const title = storyTitle(story);
  const details = [story.since && `since ${story.since}`, ...story.weather, ...story.before, ...story.symptoms]
    .filter(Boolean)
    .join(", ");
  return stepDone(
    note({ ...job, story, title, handOver }, "story", details ? `${title}; ${details}.` : `${title}.`, now),
    "story",
  );
}

export function withLampCheck(
  job: Job,
  seen: LampSeen,
  others: OthersSeen,
  now: string,
  units: Record<string, UnitSeen> = {},
  headline?: string,
): Job {
  const verdict = lampVerdict(seen, others);
  const says = headline ?? verdict.headline;
  const check = { ...job, lampCheck: { at: now, seen, others, units } };
  const known = job.notebook.findLast((n) => n.step === "lamp-check" && n.by === "klinko")?.text === says;
  const next = known ? check : note(check, "lamp-check", says, now);
  return verdict.pass ? stepDone(next, "lamp-check") : { ...next, done: next.done.filter((s) => s !== "lamp-check") };
}

/** The notebook with what was read; asked again of the same reading it writes no second line. */
export function withReading(job: Job, reading: Reading, systemName: string, now: string): Job {
  const r = reading.result;
  const list = r?.codes.length
    ? r.codes.join(", ")
    : ({ none: "nothing stored", dark: "lamp dark", steady: "lamp steady" }[r?.state as "none"] ?? "not clear");
  const sure = r ? certaintyWord(r.confidence) : "unsure";
  const whole = r?.codes.length ? (r.complete ? ", list seen whole" : ", list not seen whole") : "";
  const text = `Read ${systemName.toLowerCase()}: ${list} (${sure}${whole}).`;
  const there = job.notebook.some((line) => line.at === now && line.text === text);
  return stepDone(there ? job : note(job, "read", text, now), "read");
}

export function beginClear(job: Job, way: string, title: string, now: string): Job {
  return note({ ...job, clearing: { way, startedAt: now } }, "clear", `${title}: time started.`, now);
}

/** @param system the system whose memory the way wipes */
export function endClear(job: Job, system: string, title: string, now: string): Job {
  if (!job.clearing) return job;
  const seconds = Math.round((Date.parse(now) - Date.parse(job.clearing.startedAt)) / 1000);
  const clears = [...job.clears, { at: now, way: job.clearing.way, system, seconds }];
  return stepDone(note({ ...job, clears, clearing: null }, "clear", `Cleared: ${title}, ${seconds} s.`, now), "clear");
}

export function abandonClear(job: Job, now: string): Job {
  return note({ ...job, clearing: null }, "clear", "Clear broken off.", now);
}

export function closeJob(job: Job, verdict: string, now: string): Job {
  return stepDone(note({ ...job, verdict, closedAt: now }, "prove", verdict, now), "prove");
}

export function reopenJob(job: Job, now: string): Job {
  return note(
    { ...job, verdict: "", closedAt: null, done: job.done.filter((s) => s !== "prove") },
    "prove",
    "Job opened again.",
    now,
  );
}

/** Why a step cannot be taken yet, or null where it can. */
export function lockOf(job: Job, readings: readonly Reading[], step: StepId): string | null {
  const recorded = readings.some((r) => r.recordedAt);
  const verdict = job.lampCheck && lampVerdict(job.lampCheck.seen, job.lampCheck.others);
  switch (step) {
    case "story":
    case "way-in":
    case "lamp-check":
      return null;
    case "hook-up":
    case "read":
      if (!verdict) return "after the lamp check";
      return verdict.pass
        ? null
        : {
            dark: "the lamp is dark",
            flashing: "the lamp flashes by itself",
            "goes-out": "the lamp goes out",
            steady: "",
          }[verdict.seen];
    case "meaning":
      return recorded ? null : "after a reading";
    case "clear":
      if (job.handOver) return "another workshop takes over";
      return recorded ? null : "after a recorded reading";
    case "prove":
      return job.clears.length ? null : "after the clear";
  }
}

/** The first step that is not done and can be taken. */
export function nextStep(job: Job, readings: readonly Reading[]): StepId {
  return STEP_IDS.find((s) => !job.done.includes(s) && !lockOf(job, readings, s)) ?? "prove";
}

/** Certainty in a word; shapes and words go together in the interface. */
export function certaintyWord(p: number): "certain" | "likely" | "unsure" {
  return p >= 0.99 ? "certain" : p >= 0.9 ? "likely" : "unsure";
}
