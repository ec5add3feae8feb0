import { byHand } from "@core/record/inputs";
import type { Dialect } from "@core/flash/dialect/dialect";
import { tellsFrom, type Way } from "@core/pack/way";
import type { Job } from "@core/record/types";
import { Caution, Sheet } from "~/ui/bits";
import { KeyBeat } from "~/ui/KeyBeat";
import { StepTimer } from "~/ui/StepTimer";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

/** The step with which the lamp begins to tell, where it is watched: nothing is shown before somebody looks. */
export function KeyNow({
  session,
  way,
  dialect,
  job,
}: {
  session: ReadingSession;
  way: Way;
  dialect: Dialect;
  job: Job;
}) {
  const input = useSession(session, (s) => s.reading.input);
  const steps = way.steps.slice(tellsFrom(way));
  if (!steps.length) return null;
  const tells = dialect.advance === "self" && byHand(input);
  const beat = steps.find((s) => s.beat)?.beat;
  return (
    <Sheet>
      {steps.map((s) => (
        <div key={s.id} style={{ display: "grid", gap: 6 }}>
          <h2>{s.title}</h2>
          <p>{s.text}</p>
          {s.caution && <Caution>{s.caution}</Caution>}
          {s.timer && dialect.advance === "button" && (
            <StepTimer
              step={s}
              timer={s.timer}
              startedAt={job.stepTimer?.step === s.id ? job.stepTimer.startedAt : null}
            />
          )}
        </div>
      ))}
      {beat && <KeyBeat beat={beat} onLast={tells ? () => session.watch(true) : undefined} />}
    </Sheet>
  );
}
