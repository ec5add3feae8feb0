import { useMemo } from "react";
import type { Decoded } from "@core/flash/decode";
import { LIKELY, type Sure } from "@core/flash/judge/sureness";
import { Caution, Soft } from "~/ui/bits";
import { CodeCards } from "./CodeCards";
import { saySoFar } from "./sentence";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

/** What was seen is not all worked out yet: what is said may still change. */
export const STILL = "Still working it out …";

/** Where a reading stands, in one sentence, and what would settle the rest. */
export function Said({ session, working }: { session: ReadingSession; working: boolean }) {
  const { dialect, speaks } = session.home;
  const { decoded, reading, phase } = useSession(session, (s) => s);
  const { headline, next } = saySoFar(
    decoded,
    dialect,
    reading.input,
    reading.input === "counts" ? (reading.counts ?? "").trim().length : reading.marks.length,
    phase === "watching",
    speaks !== "given",
  );
  const { text: cylinders, agrees } = (decoded && cylindersText(decoded, session.home.cylinders)) ?? {
    text: "",
    agrees: true,
  };
  const below = working && decoded ? STILL : next;
  return useMemo(
    () => (
      <>
        <h1 aria-live="polite">{headline}</h1>
        {below && <Soft aria-busy={working}>{below}</Soft>}
        {cylinders && (agrees ? <Soft>{cylinders}</Soft> : <Caution>{cylinders}</Caution>)}
      </>
    ),
    [headline, below, working, cylinders, agrees],
  );
}

/** The flashes that count half of the cylinders tell whether it is the right unit, and whether the counting works. */
function cylindersText(d: Decoded, own: number | null): { agrees: boolean; text: string } | null {
  const counted = d.assignment.some((a) => a?.unit.means === "cylinders");
  if (!counted || own === null || d.cylinders === null || d.confidence < LIKELY) return null;
  return d.cylinders === own
    ? {
        agrees: true,
        text: `Half of ${own} cylinders first, as this engine has: the right unit, and the counting works.`,
      }
    : {
        agrees: false,
        text: `${d.cylinders / 2} flashes first stand for ${d.cylinders} cylinders, and this engine has ${own}. Another unit answers, or a flash was lost: watch once more.`,
      };
}

/** @param given how likely the lamp speaks the dialect that it is read by, 0 to 1: no code is surer than that; @param most nor than this, since another unit may have answered */
export function Codes({
  session,
  given = 1,
  most = "certain",
}: {
  session: ReadingSession;
  given?: number;
  most?: Sure;
}) {
  const decoded = useSession(session, (s) => (session.home.speaks === "unknown" ? null : s.decoded));
  return decoded && decoded.codes.length > 0 && <CodeCards decoded={decoded} given={given} most={most} />;
}
