import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { Step, StepTimer as Timer } from "@core/pack/way";
import { clock } from "~/store/clock";
import { cue } from "~/store/cue";
import { useSettings } from "~/store/use-settings";
import { useIntents } from "~/store/use-job";
import { Button } from "./Button";
import { Row, Soft } from "./bits";
import { figures } from "./theme";
import type { JobIntents } from "~/store/job-intents";

const Dial = styled.p`
  ${figures}
  font-size: 2.6rem;
  font-weight: 700;
  line-height: 1;
`;

const START: Record<Timer["kind"], string> = {
  hold: "I hold it: start",
  wait: "Start the wait",
  "warm-up": "It runs: start the time",
  act: "Now: start the time",
};

const text = (s: number) => (s >= 60 ? `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}` : `${s} s`);

/** The time of a step. It runs on through a reload, since its start is stored in the job. */
export function StepTimer({
  step,
  timer,
  startedAt,
}: {
  step: Pick<Step, "id">;
  timer: Timer;
  startedAt: string | null;
}) {
  const { send } = useIntents<JobIntents>(null);
  const settings = useSettings();
  const [now, setNow] = useState(() => clock.now());
  const rang = useRef(false);
  const passed = startedAt ? (now - Date.parse(startedAt)) / 1000 : 0;
  const left = Math.max(0, Math.ceil(timer.seconds - passed));
  const runs = startedAt !== null;
  useEffect(() => {
    if (!runs) {
      rang.current = false;
      return;
    }
    return clock.every(200, () => setNow(clock.now()));
  }, [runs]);
  useEffect(() => {
    if (!runs || left > 0 || rang.current) return;
    rang.current = true;
    cue("end", settings);
  });
  return (
    <div aria-live="polite">
      {runs ? (
        left > 0 ? (
          <Row>
            <Dial role="timer">{text(left)}</Dial>
            <Button $look="quiet" onPress={() => send({ intent: "step-timer", step: null })}>
              Stop the time
            </Button>
          </Row>
        ) : (
          <Row>
            <strong>{timer.then}</strong>
            <Button $look="quiet" onPress={() => send({ intent: "step-timer", step: step.id })}>
              Once more
            </Button>
          </Row>
        )
      ) : (
        <Row>
          <Button onPress={() => send({ intent: "step-timer", step: step.id })}>
            {START[timer.kind]}, {text(timer.seconds)}
          </Button>
          {timer.kind === "act" && <Soft>It has to be done within this time.</Soft>}
        </Row>
      )}
    </div>
  );
}
