import type { State } from "../flash/decode";
import type { Memory } from "../flash/dialect";
import type { LampSeen, OthersSeen } from "../procedure/lamp-check";
import type { RunSince } from "../proving/compare";

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

export const STEP_IDS = ["story", "lamp-check", "hook-up", "read", "meaning", "clear", "prove"] as const;
export type StepId = (typeof STEP_IDS)[number];

export interface Story {
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
}

export interface ClearDone {
  at: string;
  way: string;
  system: string;
  seconds: number;
}

export interface Job extends Stored {
  kind: "job";
  vehicle: string;
  title: string;
  openedAt: string;
  closedAt: string | null;
  handOver: boolean;
  done: StepId[];
  story: Story;
  lampCheck: LampCheck | null;
  /** The system that is read, and how far the hook-up has come. */
  system: string;
  hookUpStep: number;
  clears: ClearDone[];
  /** A clear whose time is running. */
  clearing: { way: string; startedAt: string } | null;
  notebook: Note[];
  verdict: string;
}

export type Input = "tap" | "keys" | "hold" | "trace";

/** One flash as it was put in. `up` and lengths are for held keys and traces, `kind` for two keys. */
export interface Mark {
  id: number;
  t: number;
  up?: number;
  kind?: "s" | "l";
}

export interface ReadingResult {
  state: State;
  codes: string[];
  memories: Partial<Record<Memory, string[]>>;
  complete: boolean;
  confidence: number;
  codeConfidence: Record<string, number>;
}

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
  /** Stretches in which nobody watched (the page was closed), ms from the start. */
  pauses: [from: number, to: number][];
  /** End of watching, ms from its start; null while it goes on. */
  until: number | null;
  result: ReadingResult | null;
  recordedAt: string | null;
}

export type Doc = Vehicle | Job | Reading;
