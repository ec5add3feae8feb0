import { Check } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import type { ClearWay, Relearn } from "@core/pack/pack";
import type { ClearDone } from "@core/record/types";
import { clock } from "~/store/clock";
import { shortTime } from "~/store/format";
import { useIntents, useJob } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { figures } from "~/ui/theme";
import type { JobIntents } from "~/store/job-intents";
import type { ProveIntents } from "./intents";

const Dial = styled.span`
  ${figures}
  font-size: 2rem;
  font-weight: 700;
  line-height: 1;
`;

const Steps = styled.ol`
  display: grid;
  gap: 12px;
  > li {
    display: grid;
    gap: 8px;
  }
`;

const RUNNING =
  "Outdoors or with extraction, park or neutral, brake on, wheels chocked, hands and sleeves clear of the fan.";

/** What has to be learned anew after the last clear, each with its time, and what else to set. */
export function AfterClear() {
  const { job, pack } = useJob();
  const clear = job.clears.at(-1);
  const way = pack.clears.find((w) => w.id === clear?.way);
  const relearn = way?.relearn ?? [];
  if (!clear || !way || relearn.length + way.afterwards.length === 0) return null;
  const left = relearn.filter((r) => !learnedSince(job.relearned, clear, r));
  return (
    <Sheet aria-label="After the clear">
      <h2>{left.length ? "What it has to learn anew" : relearn.length ? "Learned anew" : "After the clear"}</h2>
      {left.length > 0 && <Caution>{RUNNING}</Caution>}
      <Steps>
        {relearn.map((r) => (
          <RelearnStep key={r.id} of={r} way={way} clear={clear} />
        ))}
      </Steps>
      {way.afterwards.length > 0 && (
        <ul>
          {way.afterwards.map((a) => (
            <li key={a}>{a}</li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}

const learnedSince = (done: ReturnType<typeof useJob>["job"]["relearned"], clear: ClearDone, r: Relearn) =>
  done.find((x) => x.what === r.id && x.way === clear.way && x.at > clear.at);

const time = (s: number) => `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;

/** One thing to learn. Its time runs on through a reload. */
function RelearnStep({ of, way, clear }: { of: Relearn; way: ClearWay; clear: ClearDone }) {
  const { job } = useJob();
  const whole = useIntents<JobIntents>(null);
  const { send, busy, problem } = useIntents<ProveIntents>("prove");
  const key = `relearn ${of.id}`;
  const startedAt = job.stepTimer?.step === key ? job.stepTimer.startedAt : null;
  const [now, setNow] = useState(() => clock.now());
  useEffect(() => (startedAt ? clock.every(200, () => setNow(clock.now())) : undefined), [startedAt]);
  const done = learnedSince(job.relearned, clear, of);
  if (done)
    return (
      <li>
        <Row>
          <Check size={22} color="var(--done)" aria-hidden />
          <p style={{ flex: "1 1 200px" }}>
            <strong>{of.title}</strong>, {Math.round(done.seconds / 60)} min, {shortTime(done.at)}.
          </p>
        </Row>
      </li>
    );
  const passed = startedAt ? Math.max(0, Math.floor((now - Date.parse(startedAt)) / 1000)) : 0;
  const left = Math.max(0, of.seconds - passed);
  return (
    <li>
      <p>
        <strong>{of.title}.</strong> {of.how}
      </p>
      <Row>
        {startedAt ? (
          <>
            <Dial role="timer" aria-label={left ? `${left} seconds left` : "Long enough"}>
              {time(left)}
            </Dial>
            <Button
              $look="primary"
              isDisabled={left > 0 || busy}
              onPress={() => send({ intent: "relearned", way: way.id, what: of.id })}
            >
              Done
            </Button>
            <Button $look="quiet" onPress={() => whole.send({ intent: "step-timer", step: null })}>
              Stop the time
            </Button>
          </>
        ) : (
          <Button onPress={() => whole.send({ intent: "step-timer", step: key })}>
            It runs: start the {Math.round(of.seconds / 60)} min
          </Button>
        )}
      </Row>
      {startedAt && left > 0 && <Soft>Touched in between, it learns wrong: then stop the time and begin again.</Soft>}
      <Trouble problem={problem ?? whole.problem} />
    </li>
  );
}
