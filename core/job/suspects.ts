import { circuitsOf, describesCircuits } from "../diagnosis/circuits";
import { graphOf, type Graph, type SystemHere } from "../diagnosis/graph";
import { shifted, shiftsOf, type Shift } from "../diagnosis/shifts";
import { codeKey, type Found } from "../diagnosis/weigh";
import { entriesFor, tableOwner } from "../pack/scope";
import type { JobCase } from "./case";
import { epochsOf } from "./epochs";
import { codeKind } from "./faults";
import { knownIn, knownOf, type Known } from "./known";
import { atLeast } from "./told";

/** All that the suspects of a job are weighed from. */
export interface SuspectsAsked {
  graph: Graph;
  found: Found;
  shifts: Shift[];
  /** The pack does not say what its circuits share. */
  generic: boolean;
  /** Codes that are weighed, with their systems; those of units that only licensed people may touch are not. */
  codes: { system: string; code: string; title: string }[];
  /** Systems of which codes are stored that nobody but licensed people may repair. */
  licensed: string[];
  /** Codes that were read and are not sure enough to go by, or stand in no table. */
  aside: string[];
}

/** What was last known of a system's codes: since the last clear, or, where nothing was read since, before it. */
function lastKnown(c: JobCase, system: string): Known {
  const now = knownOf(c, system);
  if (now.answer !== "not-read") return now;
  const before = epochsOf(c, system).findLast((e) => e.told.some((t) => t.answer === "codes" || t.answer === "none"));
  return before ? knownIn(before, system) : now;
}

/**
 * The network of the vehicle and what was found on it: codes read surely enough, codes that a whole list does not hold, and the
 * outcomes of checks. Expected and status codes stay out of it both ways.
 */
export function suspectsAsked(c: JobCase): SuspectsAsked {
  const generic = !describesCircuits(c.pack);
  const shifts = shiftsOf(c.job.story);
  const here: SystemHere[] = [];
  const present: string[] = [];
  const absent: string[] = [];
  const out: Pick<SuspectsAsked, "codes" | "licensed" | "aside"> = { codes: [], licensed: [], aside: [] };
  const seen = new Set<string>();
  for (const access of c.systems) {
    if (access.way.tells.kind === "readiness") continue;
    const known = lastKnown(c, access.system);
    const owner = tableOwner(c.pack, access.system);
    if (known.answer !== "codes" && known.answer !== "none") continue;
    const entries = entriesFor(c.pack, c.vehicle, access.system).filter((e) => e.kind === "fault");
    const faults = known.codes.filter((x) => codeKind(c, access.system, x.code) === "fault");
    if (access.about.caution) {
      if (faults.length) out.licensed.push(access.name);
      continue;
    }
    const inTable = (code: string) => entries.some((e) => e.code === code);
    const sure = faults.filter((x) => atLeast(x.sure, "likely") && inTable(x.code));
    out.aside.push(...faults.filter((x) => !sure.some((y) => y.code === x.code)).map((x) => x.code));
    for (const code of new Set(sure.map((x) => x.code))) {
      if (present.includes(codeKey(owner, code))) continue;
      present.push(codeKey(owner, code));
      out.codes.push({ system: access.system, code, title: entries.find((e) => e.code === code)!.title });
    }
    const whole = known.answer === "none" ? known.none : known.whole;
    if (atLeast(whole, "likely"))
      for (const e of entries)
        if (!known.codes.some((x) => x.code === e.code) && codeKind(c, access.system, e.code) === "fault")
          absent.push(codeKey(owner, e.code));
    if (seen.has(owner)) continue;
    seen.add(owner);
    const about = c.pack.systems.find((s) => s.id === owner) ?? access.about;
    here.push({ about, circuits: circuitsOf(c.pack, c.vehicle, owner) });
  }
  const graph = graphOf(here, generic);
  return {
    graph: { ...graph, suspects: shifted(graph.suspects, shifts) },
    found: { present, absent: absent.filter((k) => !present.includes(k)), checks: outcomes(c) },
    shifts,
    generic,
    ...out,
    aside: [...new Set(out.aside)],
  };
}

/** The last outcome of each check; what was found bad before it was mended is history. */
function outcomes({ job }: JobCase): Found["checks"] {
  const mended = job.repairs.findLast((r) => !r.withdrawnAt)?.at ?? "";
  const by = new Map<string, { id: string; bad: boolean }>();
  for (const done of job.checks)
    if (!done.withdrawnAt && !(done.outcome === "bad" && done.at < mended))
      by.set(done.check, { id: done.check, bad: done.outcome === "bad" });
  return [...by.values()];
}
