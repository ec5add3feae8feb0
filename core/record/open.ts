import { climb, type Ladder } from "../schema/ladder";
import { holds, type Rule } from "../schema/rule";
import { jobRule, readingRule, RECORD_VERSION, vehicleRule, type Doc } from "./types";

const rules: Record<Doc["kind"], Rule<Doc>> = { vehicle: vehicleRule, job: jobRule, reading: readingRule };

/** How records of each version that was released become those of the next. Samples of every one are held in the tests. */
const RECORD_LADDER: Ladder = {};

/** A stored thing that cannot be used as it is; it stays where it is, untouched, and can be saved as a file. */
export interface Locked {
  key: string;
  why: "newer" | "damaged";
  message: string;
  raw: unknown;
}

/**
 * Opens what was stored under a key: brought to this version, or locked with the reason. A field that is missing gets its default, one
 * that is not known here stays.
 */
export function openDoc(key: string, raw: unknown): { doc: Doc } | { locked: Locked } {
  const lock = (why: Locked["why"], message: string) => ({ locked: { key, why, message, raw } });
  if (typeof raw !== "object" || raw === null) return lock("damaged", "This record is empty or not a record.");
  const { version, kind } = raw as { version?: unknown; kind?: unknown };
  if (typeof version === "number" && version > RECORD_VERSION)
    return lock(
      "newer",
      `Written by a newer Klinko (version ${version}; this one knows ${RECORD_VERSION}). Update Klinko to open it.`,
    );
  if (typeof kind !== "string" || !Object.hasOwn(rules, kind))
    return lock("damaged", "This record is of no known kind.");
  let now = raw as Record<string, unknown>;
  if (typeof version === "number" && Number.isInteger(version) && version >= 1 && version < RECORD_VERSION)
    now = climb(RECORD_LADDER, now, version, RECORD_VERSION);
  const fault = faultOf(now as unknown as Doc);
  return "fault" in fault ? lock("damaged", fault.fault) : fault;
}

/** Holds a record against its rule. @returns it with what was missing filled in, or what is wrong and where */
export function faultOf(doc: Doc): { doc: Doc } | { fault: string; path: string } {
  const held = holds(rules[doc.kind], doc);
  if ("value" in held) return { doc: held.value };
  const [{ path, message }] = held.faults;
  return { fault: `${path.join(".")}: ${message}`, path: path.join(".") };
}
