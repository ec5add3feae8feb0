import { useMemo } from "react";
import type { LampInput } from "@core/record/types";
import { Soft } from "~/ui/bits";
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
    reading.input as LampInput,
    reading.input === "counts" ? (reading.counts ?? "").trim().length : reading.marks.length,
    phase === "watching",
    speaks !== "given",
  );
  const below = working && decoded ? STILL : next;
  return useMemo(
    () => (
      <>
        <h1 aria-live="polite">{headline}</h1>
        {below && <Soft aria-busy={working}>{below}</Soft>}
      </>
    ),
    [headline, below, working],
  );
}

/** @param given how likely the lamp speaks the dialect that it is read by, 0 to 1: no code is surer than that */
export function Codes({ session, given = 1 }: { session: ReadingSession; given?: number }) {
  const decoded = useSession(session, (s) => (session.home.speaks === "unknown" ? null : s.decoded));
  return decoded && decoded.codes.length > 0 && <CodeCards decoded={decoded} given={given} />;
}
