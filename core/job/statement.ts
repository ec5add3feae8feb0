import type { Input } from "../record/inputs";
import type { Memory } from "../flash/dialect/dialect";
import type { Sure } from "../flash/judge/sureness";
import type { CodeKind } from "./faults";
import type { Persistence } from "./proof";
import type { Doubt } from "./told";

/** What a statement rests on: something recorded, by its id or time. */
export type Evidence =
  | { kind: "reading"; id: string; at: string; input: Input; run: string }
  | { kind: "clear"; at: string; way: string; seconds: number }
  | { kind: "lamp-check"; at: string }
  /** How often a code was heard without a slip, over all these readings. */
  | { kind: "heard"; at: string; code: string; times: number }
  /** The person's word, and nothing else. */
  | { kind: "told"; at: string; what: "drive" | "idle" | "lamp" | "socket" };

interface About {
  /** The system it is about; for one about the whole job: the system that is read. */
  system: string;
  sure: Sure;
  /** What it rests on, the weightiest first; never empty but for what was not done. */
  evidence: Evidence[];
  /** Why it is not surer. */
  doubts: Doubt[];
}

/** Something that Klinko says about a vehicle, as data: words come after (`say.ts`). */
export type Statement = About &
  (
    | { kind: "stored"; code: string; memory: Memory | null; is: CodeKind }
    | { kind: "nothing-stored" }
    | { kind: "list-whole" }
    | { kind: "not-read" }
    | { kind: "unclear" }
    | { kind: "no-answer" }
    | { kind: "other-unit"; other: string | null }
    | { kind: "readings-disagree" }
    | { kind: "clear-took" }
    | { kind: "persistence"; code: string; memory: Memory | null; is: Persistence }
    | { kind: "verdict"; is: "fixed" | "not-fixed" | "not-proven" | "nothing-found" | "open" }
    | { kind: "ready" }
    | { kind: "not-ready" }
    | { kind: "unit-alive" }
    | { kind: "only-lamp" }
    | { kind: "unit-suspect"; suspect: string }
  );
export type StatementKind = Statement["kind"];
