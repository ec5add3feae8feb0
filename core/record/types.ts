import type { Decoded } from "../flash/answer";
import type { LampSeen, OthersSeen } from "../procedure/lamp-check";
import type { UnitSeen } from "../procedure/unit-check";

/** Version of everything stored. A newer one is shown, offered as a file, and never written over. */
export const RECORD_VERSION = 1;

interface Stored {
  version: typeof RECORD_VERSION;
  id: string;
}

export interface Vehicle extends Stored {
  kind: "vehicle";
  plate: string;
  pack: string;
  variant: string;
  year: number;
  engine: string;
  market: string;
  /** What was changed on it; `codes` are expected because of it. */
  changes: { text: string; codes: string[] }[];
  radio: "none" | "code-known" | "code-unknown" | "not-asked";
  createdAt: string;
}

export const STEP_IDS = ["story", "way-in", "lamp-check", "hook-up", "read", "meaning", "clear", "prove"] as const;
export type StepId = (typeof STEP_IDS)[number];

export interface Story {
  /** The lamp that came on; several are joined by " and ". */
  lamp: string;
  since: string;
  engine: "cold" | "warm" | "any" | "";
  speed: "standing" | "town" | "country" | "motorway" | "any" | "";
  load: "light" | "hill" | "hard" | "any" | "";
  weather: string[];
  before: string[];
  symptoms: string[];
  goesOut: "yes" | "no" | "sometimes" | "";
  words: string;
}

export interface Note {
  at: string;
  by: "klinko" | "person";
  step: StepId;
  text: string;
}

export interface LampCheck {
  at: string;
  seen: LampSeen;
  others: OthersSeen;
  /** What was seen of each system that was looked at. */
  units?: Record<string, UnitSeen>;
}

export interface ClearDone {
  at: string;
  way: string;
  /** The system whose clear it was planned as. */
  system: string;
  seconds: number;
  /** All memories that this way wipes, by their systems; absent in older records: the one of `system`. */
  wiped?: string[];
  /** The one code that was wiped, where each is wiped alone. */
  code?: string;
}

/** How a job ended. */
export const JOB_ENDS = ["fixed", "not-fixed", "not-proven", "nothing-found", "handed-over", "given-up"] as const;
export type JobEnd = (typeof JOB_ENDS)[number];

export interface Job extends Stored {
  kind: "job";
  vehicle: string;
  title: string;
  openedAt: string;
  closedAt: string | null;
  /** How it ended; absent in older records. */
  end?: JobEnd;
  handOver: boolean;
  done: StepId[];
  story: Story;
  lampCheck: LampCheck | null;
  /** The system that is read, and how far the hook-up has come. */
  system: string;
  hookUpStep: number;
  /** Time of a step that is running: it runs on when the page is closed. */
  stepTimer?: { step: string; startedAt: string } | null;
  /** Causes of "nothing happens" that were looked at and are not it, for each way. */
  ruledOut?: Record<string, string[]>;
  clears: ClearDone[];
  /** A clear whose time is running. */
  clearing: { way: string; startedAt: string } | null;
  notebook: Note[];
  verdict: string;
}

/** How a lamp was watched, or what else told. */
export type Input =
  | "camera"
  | "film"
  | "tap"
  | "keys"
  | "hold"
  | "trace"
  | "press"
  | "counts"
  | "text"
  | "modules"
  | "readiness"
  | "serial";
/** Those in which a lamp is watched. */
export type LampInput = Exclude<Input, "text" | "modules" | "readiness" | "serial">;
/** Those in which a machine watches it. */
export type PictureInput = "camera" | "film";

export const isPicture = (input: Input): input is PictureInput => input === "camera" || input === "film";

/** What the vehicle did between a clear and the reading that followed, as the person tells it. */
export type RunSince = "key-on" | "idle" | "drive";

/** One flash as it was put in. `up` and lengths are for held keys and traces, `kind` for two keys; `p` is no flash but a press of the reader's button. */
export interface Mark {
  id: number;
  t: number;
  up?: number;
  kind?: "s" | "l" | "p";
  /** Probability that it was a flash, where a film or camera tells. */
  p?: number;
}

/** What a display or a unit told of one system. */
export interface SystemList {
  state: "codes" | "none" | "unclear";
  codes: string[];
  /** Texts whose characters were not clear, as they were written. */
  unclear: string[];
}

export interface ReadingResult extends Pick<
  Decoded,
  "state" | "codes" | "memories" | "complete" | "confidence" | "codeConfidence"
> {
  /** What was heard without a slip, and how the rounds went; absent in older records, which are then at most likely. */
  heard?: Pick<
    Decoded,
    "exactShown" | "wholeRound" | "roundsShown" | "over" | "completeness" | "cylinders" | "tempo" | "memoryConfidence"
  >;
}

/** What somebody looked at once more who read: which lamp it was that blinked, or where the signal lead sat. */
export interface LookedAt {
  /** Its name on the dash, or "other". */
  lamp?: string;
  /** Cavity of the signal lead, or "other". */
  socket?: string;
}

/** What a lamp that did not blink did instead. */
export type LampRested = "lit" | "dark" | "lit-then-dark";

export interface Reading extends Stored {
  kind: "reading";
  job: string;
  vehicle: string;
  system: string;
  way: string;
  dialect: string;
  input: Input;
  /** `before` the clear, or how the vehicle was run since the last one. */
  run: "before" | RunSince;
  startedAt: string;
  marks: Mark[];
  /** Brightness of the lamp in the pictures of a film or camera; what is read, until somebody corrects a mark. */
  levels?: { t: number[]; y: number[] };
  corrected?: boolean;
  /** Called-out counts, as they were typed. */
  counts?: string;
  /** Stretches in which nobody watched (the page was closed), ms from the start. */
  pauses: [from: number, to: number][];
  /** End of watching, ms from its start; null while it goes on. */
  until: number | null;
  result: ReadingResult | null;
  /** One list a system, where one reading tells of several. */
  lists?: Record<string, SystemList>;
  /** Watching began before the key went on, and `t` counts from that. */
  keyOn?: boolean;
  looked?: LookedAt;
  /** What the lamp did, where it did not blink. */
  rested?: LampRested;
  /** Taken back by the person: it stays in the records and counts for nothing. */
  withdrawnAt?: string;
  /** Readiness by lamp. */
  readiness?: "complete" | "not-complete" | "unclear";
  recordedAt: string | null;
}

export type Doc = Vehicle | Job | Reading;
