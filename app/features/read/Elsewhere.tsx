import { useEffect, useRef, useState } from "react";
import { hold, type Hold } from "~/store/hold";
import { Button } from "~/ui/Button";
import { Caution, Row, Sheet } from "~/ui/bits";
import { whyNot, type ReadingSession } from "./session";
import { useSession } from "./use-session";

/**
 * One reading is worked on by one tab: the others say so, and can take it over as it is stored.
 * @param again reads it as it is stored
 * @param one what there is one of on this device, where it is no reading of a job
 */
export function Elsewhere({
  session,
  again,
  one,
}: {
  session: ReadingSession;
  again: () => Promise<void>;
  one?: string;
}) {
  const own = useSession(session, (s) => s.reading.id);
  const id = one ?? own;
  const elsewhere = useSession(session, (s) => s.elsewhere);
  const [problem, setProblem] = useState<string | null>(null);
  const held = useRef<Hold | null>(null);
  const stored = useRef(again);
  useEffect(() => {
    stored.current = again;
  });
  useEffect(() => {
    const asked = (held.current = hold(`reading/${id}`, (mine) => {
      // What another tab has done with it meanwhile is gone on with.
      if (mine && session.state.elsewhere) stored.current().catch((error: unknown) => setProblem(whyNot(error)));
      else session.setElsewhere(!mine);
    }));
    return asked.release;
  }, [id, session]);
  if (!elsewhere) return null;
  return (
    <>
      <h1>{one ? "A lamp is watched in another tab." : "This reading is open in another tab."}</h1>
      <Sheet>
        <p>Go on there, or take it over here. What is marked there until now comes with it.</p>
        {problem && <Caution>{problem}</Caution>}
        <Row>
          <Button $look="primary" onPress={() => held.current?.take()}>
            Take it over here
          </Button>
        </Row>
      </Sheet>
    </>
  );
}
