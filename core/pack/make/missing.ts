import { runsOf } from "../../flash/dialect/digits";
import type { Pack, PackPart } from "../pack";
import { connectorIdOf } from "../way";
import { assumedIn, assumedOf } from "../assumed";
import { namesBy } from "./parts";

/** Something that is not told yet: what it keeps from being done, and where it is told. */
export interface Missing {
  part: PackPart | "codes";
  /** Without it no reading says anything. */
  must: boolean;
  says: string;
}

/** Codes of the tables that none of the lamps can blink: one of the two is told wrongly. */
function unshowable(pack: Pack): string[] {
  if (!pack.ways.length || pack.ways.some((w) => w.tells.kind !== "lamp")) return [];
  const codes = pack.tables.flatMap((t) => t.entries.map((e) => e.code));
  return [...new Set(codes)].filter((code) =>
    pack.dialects.every((d) => runsOf(d, code) === null || Number(code) > d.max),
  );
}

/** Systems whose codes are read and mean nothing. */
const withoutTable = (pack: Pack) =>
  pack.systems.filter((s) => {
    const tables = pack.tables.filter((t) => t.system === (s.sameTableAs ?? s.id));
    return tables.length > 0 && tables.every((t) => !t.entries.length);
  });

/** What is missing or assumed in a pack, what must be told first. */
export function missingIn(pack: Pack): Missing[] {
  const assumed = assumedIn(pack);
  const out: Missing[] = [];
  const say = (part: Missing["part"], must: boolean, says: string) => out.push({ part, must, says });
  const several = pack.systems.length > 1;
  if (!pack.tables.some((t) => t.entries.length))
    say("codes", true, "No code has a meaning yet. Paste the table from the manual.");
  else
    for (const s of withoutTable(pack)) say("codes", false, `${s.name}: no code has a meaning yet. Paste its table.`);
  for (const way of pack.ways) {
    const open = assumedOf(pack, way);
    const of = several ? `${namesBy(pack, way.id)}: nobody` : "Nobody";
    if (open.includes("way")) say("way", true, `${of} has said how the codes are asked for.`);
    if (open.includes("plug") && connectorIdOf(way))
      say("plug", true, `${of} has said what the plug looks like, and which cavities are joined.`);
    if (open.includes("talk") && way.tells.kind === "lamp")
      say(
        "talk",
        false,
        `${of} has said how the lamp talks: it is assumed. Pick it, or let Klinko learn it from the lamp.`,
      );
  }
  if (assumed.includes("clears") && !pack.clears.length)
    say("clears", false, "No way to clear is told: the job can read and explain, and not clear.");
  if (assumed.includes("proving"))
    say("proving", false, "How it is driven before a re-read counts is assumed: 15 minutes, engine warm.");
  const mute = unshowable(pack);
  if (mute.length)
    say(
      "codes",
      false,
      `A lamp that talks so cannot show ${mute.slice(0, 6).join(", ")}${mute.length > 6 ? " and more" : ""}: mend the table, or how it talks.`,
    );
  return out.sort((a, b) => Number(b.must) - Number(a.must));
}
