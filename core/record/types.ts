import {
  also,
  flag,
  list,
  map,
  nullable,
  number,
  object,
  oneOf,
  optional,
  otherwise,
  pair,
  pattern,
  series,
  text,
  time,
  whole,
  word,
  type Of,
  type Rule,
} from "../schema/rule";

import { INPUT_IDS } from "./inputs";
import { markRule } from "./mark";

export type { Input } from "./inputs";
export type { Mark } from "./mark";

/** Version of everything stored. A newer one is shown, offered as a file, and never written over. */
export const RECORD_VERSION = 1;

/** How much of something a record holds at most. What the program can make is far below; a limit that a hand can reach is told at its field. */
export const LIMITS = {
  text: 4000,
  name: 120,
  codes: 1000,
  changes: 500,
  notes: 20_000,
  clears: 1000,
  pauses: 10_000,
  /** Some hours of a lamp that blinks without end. */
  marks: 200_000,
  /** Two days at 24 pictures a second. */
  pictures: 4_000_000,
} as const;

const line = text(LIMITS.text);
const name = word(LIMITS.name);
const code = pattern(/^\d{1,4}$/, "one to four digits");
const codes = list(code, { max: LIMITS.codes });
/** How often a vehicle is driven, times a week. */
export const drivesRule = whole(1, 70);
/** A day, as people have it: no time, no zone. */
export const dayRule = pattern(/^\d{4}-\d{2}-\d{2}$/);
const names = list(line, { max: 60 });
const share = number(0, 1);
const ms = number(0);
const shares = map(code, share);
const times = map(code, whole(0));
const stored = { version: oneOf(RECORD_VERSION), id: name };

/** Photos by their ids; the pictures are kept beside the records. */
const photos = list(name, { max: 12 });

export const workToldRule = object({
  /** What was done, or nothing but the distance. */
  what: line,
  /** What its odometer showed, km. */
  km: optional(number(0, 10_000_000)),
});
/** Work on a vehicle outside its jobs, or its mileage on a day. */
const work = object({ at: time, ...workToldRule.fields, withdrawnAt: optional(time) });
export type Work = Of<typeof work>;

export const vehicleRule = object({
  ...stored,
  kind: oneOf("vehicle"),
  plate: name,
  pack: name,
  variant: name,
  year: whole(1900, 2100),
  engine: name,
  market: name,
  /** What was changed on it; `codes` are expected because of it. */
  changes: otherwise(list(object({ text: line, codes }), { max: LIMITS.changes }), []),
  /** Drives of which it was noted whether the lamp came on, and under which conditions. */
  drives: otherwise(
    list(object({ at: time, cameOn: flag, conditions: list(name, { max: 20 }) }), { max: LIMITS.clears }),
    [],
  ),
  radio: otherwise(oneOf("none", "code-known", "code-unknown", "not-asked"), "not-asked"),
  /** Where an immobiliser forgets its keys without power: are they at hand, with what teaches them? */
  immobiliser: otherwise(oneOf("none", "keys-here", "keys-missing", "not-asked"), "not-asked"),
  /** How often it is driven, as somebody told it. */
  drivesAWeek: optional(drivesRule),
  /** Day of the next inspection, where somebody said it. */
  inspection: optional(dayRule),
  /** Mileage and work, in order of time. */
  work: optional(list(work, { max: LIMITS.clears })),
  /** Its photo. */
  photo: optional(name),
  /** Out of the way in the garage since then; its records stay. */
  archivedAt: optional(time),
  createdAt: time,
});
export type Vehicle = Of<typeof vehicleRule>;

export const STEP_IDS = [
  "story",
  "way-in",
  "lamp-check",
  "hook-up",
  "read",
  "meaning",
  "checks",
  "clear",
  "prove",
] as const;
export type StepId = (typeof STEP_IDS)[number];
const step = oneOf(...STEP_IDS);

export const storyRule = object({
  /** The lamp that came on; several are joined by " and ". */
  lamp: line,
  since: line,
  engine: oneOf("cold", "warm", "any", ""),
  speed: oneOf("standing", "town", "country", "motorway", "any", ""),
  load: oneOf("light", "hill", "hard", "any", ""),
  weather: names,
  before: names,
  /** Where it was just worked on, by name of the place. */
  worked: otherwise(names, []),
  symptoms: names,
  goesOut: oneOf("yes", "no", "sometimes", ""),
  words: line,
  /** Whoever buys it wants to see what is stored. */
  forSale: otherwise(flag, false),
});
export type Story = Of<typeof storyRule>;

/** What the form of the story holds. */
export const toldRule = object({ story: storyRule, handOver: flag });

const note = object({
  at: time,
  by: oneOf("klinko", "person"),
  step,
  text: line,
  photos: optional(photos),
  /** What it said before it was corrected, the oldest first, and when that was. */
  was: optional(list(object({ text: line, at: time }), { max: 100 })),
});
export type Note = Of<typeof note>;

export const lampSeenRule = oneOf("steady", "dark", "flashing", "goes-out");
export const othersSeenRule = oneOf("all", "none", "not-checked");
export const unitsSeenRule = map(
  name,
  object({
    lamp: nullable(lampSeenRule),
    outputs: map(name, oneOf("works", "dead")),
    power: optional(oneOf("good", "bad")),
    ground: optional(oneOf("good", "bad")),
  }),
);

const lampCheck = object({
  at: time,
  seen: lampSeenRule,
  others: othersSeenRule,
  /** What was seen of each system that was looked at. */
  units: optional(unitsSeenRule),
});
export type LampCheck = Of<typeof lampCheck>;

const clearDone = object({
  at: time,
  way: name,
  /** The system whose clear it was planned as. */
  system: name,
  seconds: ms,
  /** All memories that this way wipes, by their systems; absent in older records: the one of `system`. */
  wiped: optional(list(name, { max: 60 })),
  /** The one code that was wiped, where each is wiped alone. */
  code: optional(code),
});
export type ClearDone = Of<typeof clearDone>;

const checkDone = object({
  at: time,
  /** Which check it was: its kind and what it was done to. */
  check: name,
  /** How it was called when it was done. */
  title: line,
  outcome: oneOf("good", "bad"),
  /** What was measured, with its unit and the verdict; absent for a look. */
  measured: optional(line),
  withdrawnAt: optional(time),
});
export type CheckDone = Of<typeof checkDone>;

const counting = object({
  way: name,
  startedAt: time,
  /** What is counted, and how often it takes, as the make said when it began. */
  of: oneOf("starts", "rides"),
  need: whole(1, 200),
  /** Starts without the lamp, as they were noted, in order of time. */
  starts: list(time, { max: LIMITS.clears }),
});
/** A unit that is used until it wipes itself. */
export type Counting = Of<typeof counting>;

const relearned = object({ at: time, way: name, what: name, seconds: ms });
/** Something that was learned anew after a clear, and how long it took. */
export type Relearned = Of<typeof relearned>;

const seconds = number(0, 864_000);
export const rideToldRule = object({
  /** When it set off. */
  at: time,
  /** From setting off to the end, above the speed that counts, and at a standstill before; null where nobody knows or asks. */
  seconds,
  above: nullable(seconds),
  idle: nullable(seconds),
  counts: oneOf("yes", "no", "unknown"),
  /** Why, in words: "at 80 km/h or more for 1:40 of 2:00". */
  says: word(LIMITS.text),
  by: oneOf("log", "hand"),
});
/** A ride as it was noted. */
const rideDone = object({ ...rideToldRule.fields, notedAt: time, withdrawnAt: optional(time) });
export type RideDone = Of<typeof rideDone>;

export const repairToldRule = object({
  /** What was done. */
  what: word(LIMITS.text),
  /** Part and its number, and what it cost, as they are written. */
  part: line,
  cost: text(40),
  /** Codes that it is meant to cure. */
  cures: codes,
});
const repair = object({ at: time, ...repairToldRule.fields, withdrawnAt: optional(time) });
export type Repair = Of<typeof repair>;

/** How a job ended. */
export const JOB_ENDS = ["fixed", "not-fixed", "not-proven", "nothing-found", "handed-over", "given-up"] as const;
export type JobEnd = (typeof JOB_ENDS)[number];

export const jobRule = object({
  ...stored,
  kind: oneOf("job"),
  vehicle: name,
  title: line,
  openedAt: time,
  closedAt: otherwise(nullable(time), null),
  /** How it ended; absent in older records. */
  end: optional(oneOf(...JOB_ENDS)),
  handOver: otherwise(flag, false),
  done: otherwise(list(step, { max: 60 }), []),
  story: storyRule,
  lampCheck: otherwise(nullable(lampCheck), null),
  /** The system that is read, and how far the hook-up has come. */
  system: name,
  hookUpStep: otherwise(whole(0), 0),
  /** Time of a step that is running: it runs on when the page is closed. */
  stepTimer: optional(nullable(object({ step: name, startedAt: time }))),
  /** Causes of "nothing happens" that were looked at and are not it, for each way. */
  ruledOut: optional(map(name, list(name, { max: 100 }))),
  /** Checks that were done, in order of time, and repairs. */
  checks: otherwise(list(checkDone, { max: LIMITS.clears }), []),
  repairs: otherwise(list(repair, { max: LIMITS.clears }), []),
  /** Rides that were noted, in order of time. */
  rides: otherwise(list(rideDone, { max: LIMITS.clears }), []),
  clears: otherwise(list(clearDone, { max: LIMITS.clears }), []),
  /** A clear whose time is running. */
  clearing: otherwise(nullable(object({ way: name, startedAt: time })), null),
  /** What is counted until it wipes itself; another clear can be done meanwhile. */
  counting: otherwise(nullable(counting), null),
  relearned: otherwise(list(relearned, { max: LIMITS.clears }), []),
  notebook: otherwise(list(note, { max: LIMITS.notes }), []),
  verdict: otherwise(line, ""),
});
export type Job = Of<typeof jobRule>;

/** What the vehicle did between a clear and the reading that followed, as the person tells it. */
export type RunSince = "key-on" | "idle" | "drive";

const systemList = object({
  state: oneOf("codes", "none", "unclear"),
  codes,
  /** Texts whose characters were not clear, as they were written. */
  unclear: names,
});
/** What a display or a unit told of one system. */
export type SystemList = Of<typeof systemList>;

const memories = <T>(of: Rule<T>) => object({ stored: optional(of), live: optional(of) });

const result = object({
  state: oneOf("codes", "none", "dark", "steady", "unclear"),
  codes,
  memories: memories(codes),
  complete: flag,
  confidence: share,
  codeConfidence: shares,
  /** What was heard without a slip, and how the rounds went; absent in older records, which are then at most likely. */
  heard: optional(
    object({
      exactShown: memories(times),
      wholeRound: flag,
      roundsShown: times,
      over: flag,
      completeness: share,
      cylinders: nullable(whole(1, 16)),
      tempo: number(0),
      memoryConfidence: memories(shares),
    }),
  ),
});
export type ReadingResult = Of<typeof result>;

const looked = object({
  /** Its name on the dash, or "other". */
  lamp: optional(name),
  /** Cavity of the signal lead, or "other". */
  socket: optional(name),
});
/** What somebody looked at once more who read: which lamp it was that blinked, or where the signal lead sat. */
export type LookedAt = Of<typeof looked>;

const rested = oneOf("lit", "dark", "lit-then-dark");
/** What a lamp that did not blink did instead. */
export type LampRested = Of<typeof rested>;

const levels = also(object({ t: series(LIMITS.pictures), y: series(LIMITS.pictures) }), ({ t, y }) =>
  t.length === y.length ? null : "holds times and brightness that are not of one length",
);

export const readingRule = object({
  ...stored,
  kind: oneOf("reading"),
  job: name,
  vehicle: name,
  system: name,
  way: name,
  dialect: line,
  input: oneOf(...INPUT_IDS),
  /** `before` the clear, or how the vehicle was run since the last one. */
  run: oneOf("before", "key-on", "idle", "drive"),
  startedAt: time,
  marks: list(markRule, { max: LIMITS.marks }),
  /** Brightness of the lamp in the pictures of a film or camera; what is read, until somebody corrects a mark. */
  levels: optional(levels),
  corrected: optional(flag),
  /** Called-out counts, as they were typed. */
  counts: optional(line),
  /** Stretches in which nobody watched (the page was closed), ms from the start. */
  pauses: otherwise(list(pair(ms, ms), { max: LIMITS.pauses }), []),
  /** End of watching, ms from its start; null while it goes on. */
  until: nullable(ms),
  result: otherwise(nullable(result), null),
  /** One list a system, where one reading tells of several. */
  lists: optional(map(name, systemList)),
  /** Watching began before the key went on, and `t` counts from that. */
  keyOn: optional(flag),
  looked: optional(looked),
  /** Revision of the make by which it was read. */
  revision: optional(line),
  /** What the lamp did, where it did not blink. */
  rested: optional(rested),
  /** Taken back by the person: it stays in the records and counts for nothing. */
  withdrawnAt: optional(time),
  /** Readiness by lamp. */
  readiness: optional(oneOf("complete", "not-complete", "unclear")),
  recordedAt: otherwise(nullable(time), null),
});
export type Reading = Of<typeof readingRule>;

export type Doc = Vehicle | Job | Reading;
