import { runsOf } from "../../flash/dialect/digits";
import type { Pack, PackPart } from "../pack";
import { connectorIdOf } from "../way";
import { assumedIn } from "./build";

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

/** What is missing or assumed in a pack, what must be told first. */
export function missingIn(pack: Pack): Missing[] {
  const assumed = assumedIn(pack);
  const out: Missing[] = [];
  const say = (part: Missing["part"], must: boolean, says: string) => out.push({ part, must, says });
  if (!pack.tables.some((t) => t.entries.length))
    say("codes", true, "No code has a meaning yet. Paste the table from the manual.");
  if (assumed.includes("way")) say("way", true, "Nobody has said how the codes are asked for.");
  if (assumed.includes("plug") && pack.ways.some((w) => connectorIdOf(w)))
    say("plug", true, "Nobody has said what the plug looks like, and which cavities are joined.");
  if (assumed.includes("talk") && pack.ways.some((w) => w.tells.kind === "lamp"))
    say("talk", false, "How the lamp talks is assumed. Pick it, or let Klinko learn it from the lamp.");
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
