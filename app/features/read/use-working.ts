import { isPicture } from "@core/record/inputs";
import type { PictureWatch } from "./picture/picture-watch";
import { usePicture } from "./picture/use-picture";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

/**
 * Pictures come to an end, and what they say is still worked out from all of them.
 * @param asking which dialect it is, is asked
 */
export function useWorking(session: ReadingSession, picture: PictureWatch, asking = false): boolean {
  const pictured = useSession(session, (s) => isPicture(s.reading.input));
  const stopped = useSession(session, (s) => s.phase === "stopped");
  const ended = usePicture(picture, (s) => s.phase === "ended");
  const busy = useSession(session, (s) => s.busy);
  const judging = usePicture(picture, (s) => s.judging);
  return pictured && (stopped || ended) && (busy || judging || asking);
}
