import { drivesOf, driveOfStory, type Condition } from "../diagnosis/conditions";
import { goneAfter, goneSince } from "../diagnosis/gone";
import type { JobCase } from "./case";
import { driveFits, epochsOf, type Epoch } from "./epochs";
import type { Proof, Row } from "./proof";
import { seenIn } from "./told";

/** How probable it is that a code is gone, and from what that is counted. */
export interface CodeGone {
  /** `drives`: those that were noted, with the lamp or without; `reads`: drives after which the memory was read. */
  by: "drives" | "reads";
  condition: Condition | null;
  /** How often it came before the last clear, of how many chances that it had. */
  before: { on: number; of: number };
  /** Chances since without it. */
  quiet: number;
  p: number;
}

/** A time that a code had to come back: it was driven after a clear, or once more since, and read. */
type Chance = "back" | "away";

/** The chances that a code had in a stretch since its clear; once it is back it stays stored, so that what follows tells nothing more. */
function chancesIn(c: JobCase, epoch: Epoch, row: Pick<Row, "code" | "memory">): Chance[] {
  if (!epoch.clear) return [];
  const chances: Chance[] = [];
  /** The drive before this one ended here; two readings one after the other are one drive. */
  let from: { at: string } = epoch.clear;
  for (const told of epoch.told) {
    const seen = seenIn(told, row.code, row.memory);
    if (seen === true) return [...chances, "back"];
    if (seen === null || told.reading.run !== "drive" || !driveFits(c, from, told.reading)) continue;
    chances.push("away");
    from = { at: told.reading.startedAt };
  }
  return chances;
}

const ofReads = (c: JobCase, system: string, row: Row): CodeGone | null => {
  const epochs = epochsOf(c, system);
  const past = epochs.slice(0, -1).flatMap((e) => chancesIn(c, e, row));
  const quiet = chancesIn(c, epochs.at(-1)!, row).length;
  const before = { on: past.filter((x) => x === "back").length, of: past.length };
  return quiet ? { by: "reads", condition: null, before, quiet, p: goneAfter(before, quiet) } : null;
};

/** The lamp tells of one code alone where no other fault was read in this job. */
const isAlone = (proofs: readonly Pick<Proof, "rows">[]): boolean =>
  new Set(proofs.flatMap((p) => p.rows.filter((r) => r.kind === "fault").map((r) => r.code))).size === 1;

/**
 * Probability that a code that has not come back is gone. If it were not, it would go on coming as often as before, a share of which nothing is
 * known beforehand (Beta–Binomial, `diagnosis/gone`). Counted from the drives that were noted where the lamp can only have meant this code and
 * they tell more than the readings do.
 * @returns null where it is back, was not stored, or had no chance to come back yet
 */
export function goneOf(c: JobCase, proofs: readonly Proof[], system: string, row: Row): CodeGone | null {
  if (row.kind !== "fault" || !row.before || !["gone", "quiet", "open"].includes(row.persistence)) return null;
  const reads = ofReads(c, system, row);
  const at = epochsOf(c, system).at(-1)!.clear?.at;
  if (!at || !isAlone(proofs)) return reads;
  const drives = drivesOf(c.vehicle, [{ cameOn: driveOfStory(c.job.story, c.job.openedAt) }]);
  const told = goneSince(drives, at);
  // It came on again, and what set it off was not read: of that code nothing is said.
  if (told?.p === 0) return null;
  if (!told || told.since.of === 0 || (reads && reads.before.of >= told.before.of)) return reads;
  return { by: "drives", condition: told.condition, before: told.before, quiet: told.since.of, p: told.p };
}

/** "83 % that it is gone: 4 quiet drives, and it used to come in 1 of 2" */
export function goneText({ by, condition, before, quiet, p }: CodeGone): string {
  const under = condition ? `${condition.toLowerCase()} ` : "";
  const chances = `${quiet} ${by === "drives" ? `quiet ${under}${quiet === 1 ? "drive" : "drives"}` : quiet === 1 ? "drive and reading without it" : "drives with a reading without it"}`;
  const was = before.of ? `it used to come in ${before.on} of ${before.of}` : "how often it used to come nobody knows";
  return `${Math.min(99, Math.round(100 * p))} % that it is gone: ${chances}, and ${was}`;
}
