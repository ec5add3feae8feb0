import type { SystemAccess } from "../pack/scope";
import { tellsByDashLamp } from "../pack/way";
import type { LookedAt } from "../record/types";

/** What has to be looked at once more, since another unit's answer could be taken for this one's. */
export type Look = { what: "lamp" | "socket"; options: string[] };

/** Answer for a lamp or socket that is none of those known. */
export const OTHER = "other";

/**
 * What tells this system's answer from another unit's: its lamp, where more units have a lamp in the dash; the socket of the
 * signal lead, where a reader's LED serves all. Null where no other unit could have answered.
 */
export function lookFor(access: SystemAccess, systems: readonly SystemAccess[]): Look | null {
  const { ask } = access.way;
  if (access.way.tells.kind !== "lamp") return null;
  const others = systems.filter((s) => s.unit !== access.unit);
  if (ask.kind === "reader") {
    const sockets = [access, ...others].flatMap((s) => (s.way.ask.kind === "reader" ? [s.way.ask.signal] : []));
    return sockets.length > 1 ? { what: "socket", options: [...new Set(sockets)] } : null;
  }
  if (!tellsByDashLamp(access.way)) return null;
  const lamps = [access, ...others].filter((s) => s === access || tellsByDashLamp(s.way)).map((s) => s.lamp);
  return new Set(lamps).size > 1 ? { what: "lamp", options: [...new Set(lamps)] } : null;
}

/** Whose answer it was: as asked, another unit's, or not told. */
export type Identity = { is: "this" } | { is: "open"; look: Look } | { is: "other"; system: SystemAccess | null };

export function identityOf(
  access: SystemAccess,
  systems: readonly SystemAccess[],
  looked: LookedAt | undefined,
): Identity {
  const look = lookFor(access, systems);
  if (!look) return { is: "this" };
  const told = looked?.[look.what];
  if (told === undefined) return { is: "open", look };
  const of = (s: SystemAccess) =>
    look.what === "lamp" ? s.lamp : s.way.ask.kind === "reader" ? s.way.ask.signal : null;
  if (told === of(access)) return { is: "this" };
  return { is: "other", system: systems.find((s) => s.unit !== access.unit && of(s) === told) ?? null };
}
