import { clearAdvice, type Advice, type School } from "../clearing/advice";
import { planClear, type PlannedWay } from "../clearing/plan";
import { readyDays } from "../proving/ready";
import type { JobCase } from "./case";
import { codeKind } from "./faults";
import type { Judgement } from "./judge";
import type { Known } from "./known";
import { atLeast } from "./told";

/** The ways to clear a system with what stands in theirs, and whether to do it now. */
export interface ClearPlan {
  /** Something is recorded of it that tells what is stored. */
  tells: boolean;
  /** The list was seen whole, or that it is empty is known. */
  whole: boolean;
  ways: PlannedWay[];
  advice: Advice;
}

const tells = ({ answer }: Known): boolean => answer === "codes" || answer === "none";
const isWhole = (k: Known): boolean => atLeast(k.answer === "none" ? k.none : k.whole, "likely");

/**
 * @param inspectionIn whole days to the next inspection; null where nobody knows
 * @throws {TypeError} where the job has no such system
 */
export function clearPlan(
  c: JobCase,
  { systems }: Pick<Judgement, "systems">,
  system: string,
  { inspectionIn, school }: { inspectionIn: number | null; school: School },
): ClearPlan {
  const { job } = c;
  // Of monitors there is nothing that a clear could take unseen.
  const read = systems.filter((s) => s.access.way.tells.kind !== "readiness");
  const { known } = systems.find((s) => s.access.system === system)!;
  const named = (some: typeof read) => some.map(({ access }) => ({ system: access.system, name: access.name }));
  const ways = planClear(c.pack, system, {
    recorded: tells(known),
    unread: named(read.filter((s) => !tells(s.known))),
    partial: named(read.filter((s) => s.known.answer === "codes" && !isWhole(s.known))),
    radio: c.vehicle.radio,
    immobiliser: c.vehicle.immobiliser,
    handOver: job.handOver,
    forSale: job.story.forSale,
  });
  const costly = ways.filter(({ way }) => way.costs.some((cost) => cost.id === "readiness")).length;
  const readAt = known.last?.reading.startedAt ?? "";
  const since = (list: readonly { at: string; withdrawnAt?: string }[]) =>
    list.some((x) => !x.withdrawnAt && x.at > readAt);
  const advice = clearAdvice({
    faults: new Set(known.codes.map((x) => x.code).filter((code) => codeKind(c, system, code) === "fault")).size,
    whole: isWhole(known),
    checked: since(job.checks),
    mended: since(job.repairs),
    inspectionIn,
    readyIn: c.vehicle.drivesAWeek === undefined ? null : (readyDays(c.pack, c.vehicle.drivesAWeek, 0)?.last ?? null),
    forSale: job.story.forSale,
    readiness: costly === 0 ? "none" : costly === ways.length ? "all" : "some",
    school,
  });
  return { tells: tells(known), whole: isWhole(known), ways, advice };
}
