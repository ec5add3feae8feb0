import type { SystemAccess } from "../pack/scope";
import { tellsByDashLamp } from "../pack/way";
import type { LampSeen, OthersSeen } from "../procedure/lamp-check";
import { unitVerdict, type UnitSeen, type UnitVerdict } from "../procedure/unit-check";

/** Is there a lamp in the dash to check? A unit that writes on its dash has one besides. */
export const hasLamp = ({ way }: SystemAccess): boolean =>
  tellsByDashLamp(way) || way.tells.kind === "modules" || way.tells.kind === "text";

export const othersOf = (outputs: UnitSeen["outputs"]): OthersSeen => {
  const all = Object.values(outputs);
  return all.includes("works") ? "all" : all.length ? "none" : "not-checked";
};

/** Where there is no lamp to look at, something that answers says that the unit is alive. */
const standIn = (outputs: UnitSeen["outputs"]): LampSeen | null =>
  ({ all: "steady", none: "dark", "not-checked": null })[othersOf(outputs)] as LampSeen | null;

const LAMP: Record<LampSeen, string> = {
  steady: "stays lit",
  dark: "stays dark",
  flashing: "flashes",
  "goes-out": "goes out",
};

/** What was seen of one unit, in words. */
function seenText(s: SystemAccess, seen: UnitSeen): string {
  const named = (is: "works" | "dead") =>
    (s.about.drives ?? []).filter((o) => seen.outputs[o.id] === is).map((o) => o.name);
  const parts = [
    seen.lamp && hasLamp(s) ? `lamp ${LAMP[seen.lamp]}` : "",
    ...named("works").map((n) => `${n}: yes`),
    ...named("dead").map((n) => `${n}: no`),
    seen.power ? `power ${seen.power}` : "",
    seen.ground ? `ground ${seen.ground}` : "",
  ].filter(Boolean);
  return parts.length ? `${s.unit}: ${parts.join(", ")}.` : "";
}

/** The verdict on a unit, held against the others that were looked at. */
export function verdictOn(
  s: SystemAccess,
  units: readonly SystemAccess[],
  seen: Readonly<Record<string, UnitSeen>>,
  own = seen[s.system],
): UnitVerdict | null {
  const others = units.filter((x) => x !== s).map((x) => ({ about: x.about, seen: seen[x.system] }));
  return own ? unitVerdict(s.about, own, others) : null;
}

/** What is recorded of a lamp check: what the first unit shows, and all that was seen in words. Null while nothing was told of it. */
export function lampCheckOf(
  main: SystemAccess,
  units: readonly SystemAccess[],
  seen: Readonly<Record<string, UnitSeen>>,
): { seen: LampSeen; others: OthersSeen; says: string } | null {
  const own = seen[main.system] as UnitSeen | undefined;
  const lamp = own && (own.lamp ?? (hasLamp(main) ? null : standIn(own.outputs)));
  if (!own || !lamp) return null;
  const verdict = verdictOn(main, units, seen, { ...own, lamp });
  const headline = hasLamp(main) || lamp !== "steady" ? verdict!.headline : `The ${main.unit} answers.`;
  const answers = units.map((s) => (seen[s.system] ? seenText(s, seen[s.system]) : "")).filter(Boolean);
  return { seen: lamp, others: othersOf(own.outputs), says: [headline, ...answers].join(" ") };
}
