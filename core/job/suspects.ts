import { circuitsOf, describesCircuits } from "../diagnosis/circuits";
import { graphOf, type Graph } from "../diagnosis/graph";
import type { SystemHere } from "../diagnosis/suspect";
import { observed } from "../diagnosis/observations";
import { shifted, shiftsOf, type Shift } from "../diagnosis/shifts";
import { codeKey, type Found } from "../diagnosis/weigh";
import type { Entry } from "../pack/pack";
import { entriesFor, tableOwner, type SystemAccess } from "../pack/scope";
import type { JobCase } from "./case";
import { epochsOf } from "./epochs";
import { codeKind } from "./faults";
import { knownIn, knownOf, type Known } from "./known";
import { atLeast } from "./told";

/** All that the suspects of a job are weighed from, and what was left out of it. */
export interface SuspectsAsked {
  graph: Graph;
  found: Found;
  shifts: Shift[];
  /** The pack does not say what its circuits share. */
  generic: boolean;
  /** Codes that are weighed; `key` is theirs in the graph. */
  codes: { key: string; code: string; title: string; details: Entry["details"] }[];
  /** Systems of which codes are stored that nobody but licensed people may repair. */
  licensed: string[];
  /** Codes that were read and are not sure enough to go by, or stand in no table. */
  aside: string[];
  /** Codes that a repair is meant to have cured, and that were not cleared since: they say nothing new. */
  mended: string[];
  /** What has to be mended before all else, in the words of the table; and the codes that cannot be trusted until then. */
  first: string[];
  distrusted: string[];
}

/** What was last known of a system's codes, and when the stretch began that it is of: since the last clear, or, where nothing was read since, before it. */
function lastKnown(c: JobCase, system: string): { known: Known; since: string } {
  const epochs = epochsOf(c, system);
  const told = epochs.findLast((e) => e.told.some((t) => t.answer === "codes" || t.answer === "none"));
  const last = epochs.at(-1)!;
  const of = told ?? last;
  return { known: of === last ? knownOf(c, system) : knownIn(of, system), since: of.clear?.at ?? "" };
}

type Sorted = Pick<SuspectsAsked, "codes" | "aside" | "mended" | "first" | "distrusted"> & { absent: string[] };

/** The codes of one system, sorted by what they are good for. */
function sorted(c: JobCase, { system }: SystemAccess, known: Known, since: string): Sorted {
  const owner = tableOwner(c.pack, system);
  const entries = new Map(entriesFor(c.pack, c.vehicle, system).map((e) => [e.code, e]));
  const isFault = (code: string) => codeKind(c, system, code) === "fault";
  const faults = known.codes.filter((x) => isFault(x.code));
  const names = (list: readonly { code: string }[]) => [...new Set(list.map((x) => x.code))];
  const usable = names(faults.filter((x) => atLeast(x.sure, "likely") && entries.has(x.code)));
  const cured = new Set(c.job.repairs.flatMap((r) => (r.withdrawnAt || r.at < since ? [] : r.cures)));
  const open = usable.filter((code) => !cured.has(code));
  // Where the unit says that it cannot be trusted, what else it says is worth nothing until that is mended.
  const stops = open.filter((code) => entries.get(code)!.first);
  const weighed = stops.length ? stops : open;
  const whole = known.answer === "none" ? known.none : known.whole;
  const quiet = [...entries.values()].filter((e) => e.kind === "fault" && isFault(e.code) && !known.codes.some((x) => x.code === e.code)); // prettier-ignore
  return {
    codes: weighed.map((code) => ({
      key: codeKey(owner, code),
      code,
      title: entries.get(code)!.title,
      details: entries.get(code)!.details,
    })),
    aside: names(faults).filter((code) => !usable.includes(code)),
    mended: usable.filter((code) => cured.has(code)),
    first: stops.map((code) => entries.get(code)!.first!),
    distrusted: open.filter((code) => !weighed.includes(code)),
    absent: atLeast(whole, "likely") && !stops.length ? quiet.map((e) => codeKey(owner, e.code)) : [],
  };
}

/**
 * The network of the vehicle and what was found on it: codes read surely enough, codes that a whole list does not hold, and the
 * outcomes of checks. Expected and status codes stay out of it both ways.
 */
export function suspectsAsked(c: JobCase): SuspectsAsked {
  const generic = !describesCircuits(c.pack);
  const shifts = shiftsOf(c.job.story);
  const here = new Map<string, SystemHere>();
  const licensed: string[] = [];
  const lists: Sorted[] = [];
  for (const access of c.systems) {
    const { known, since } = lastKnown(c, access.system);
    if (known.answer !== "codes" && known.answer !== "none") continue;
    if (access.about.caution) {
      if (known.codes.some((x) => codeKind(c, access.system, x.code) === "fault")) licensed.push(access.name);
      continue;
    }
    lists.push(sorted(c, access, known, since));
    const owner = tableOwner(c.pack, access.system);
    const about = c.pack.systems.find((s) => s.id === owner) ?? access.about;
    here.set(owner, { about, circuits: circuitsOf(c.pack, c.vehicle, owner) });
  }
  const all = <K extends "aside" | "mended" | "first" | "distrusted" | "absent">(k: K) => [...new Set(lists.flatMap((l) => l[k]))]; // prettier-ignore
  // One unit that is asked in two ways tells its codes twice.
  const codes = [...new Map(lists.flatMap((l) => l.codes).map((x) => [x.key, x])).values()];
  const present = codes.map((x) => x.key);
  const graph = graphOf([...here.values()], generic);
  return {
    graph: { ...graph, suspects: shifted(graph.suspects, shifts) },
    found: {
      present,
      absent: all("absent").filter((k) => !present.includes(k)),
      checks: outcomes(c),
      observed: observed(c.job.story, unitsSeen(c)),
    },
    shifts,
    generic,
    codes,
    licensed,
    aside: all("aside"),
    mended: all("mended"),
    first: all("first"),
    distrusted: all("distrusted"),
  };
}

/** What the lamp check showed of each unit, by the system that owns its codes. */
const unitsSeen = (c: JobCase) =>
  Object.fromEntries(
    Object.entries(c.job.lampCheck?.units ?? {}).map(([system, seen]) => [tableOwner(c.pack, system), seen]),
  );

/** The last outcome of each check; what was found bad, then mended, and cleared since is history. */
function outcomes({ job }: JobCase): Found["checks"] {
  const cleared = job.clears.at(-1)?.at ?? "";
  const mended = job.repairs.findLast((r) => !r.withdrawnAt && r.at < cleared)?.at ?? "";
  const last = new Map(job.checks.filter((done) => !done.withdrawnAt).map((done) => [done.check, done]));
  return [...last.values()].flatMap(({ check, outcome, at }) =>
    outcome === "bad" && at < mended ? [] : [{ id: check, bad: outcome === "bad" }],
  );
}
