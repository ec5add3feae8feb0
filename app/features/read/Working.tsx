import styled, { keyframes } from "styled-components";
import { Soft } from "~/ui/bits";
import type { PictureWatch } from "./picture/picture-watch";
import { usePicture } from "./picture/use-picture";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

/** After the end of a watch: what is said may still change, since it is worked out from all that was seen. */
export function Working({
  session,
  picture,
  asking = false,
}: {
  session: ReadingSession;
  picture: PictureWatch;
  /** Which dialect it is, is asked. */
  asking?: boolean;
}) {
  const stopped = useSession(session, (s) => s.phase === "stopped");
  const busy = useSession(session, (s) => s.busy);
  const judging = usePicture(picture, (s) => s.judging);
  return stopped && (busy || judging || asking) ? (
    <Late role="status" aria-busy>
      Still working it out …
    </Late>
  ) : null;
}

const appear = keyframes`from { visibility: hidden; }`;

/** What is done in a moment is not told of. */
const Late = styled(Soft)`
  animation: ${appear} 0.6s step-end;
`;
