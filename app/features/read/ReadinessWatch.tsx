import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import type { ReadinessLamp } from "@core/pack/way";
import { ONE_KEY } from "@core/record/inputs/tap";
import { readinessVerdict } from "@core/procedure/readiness";
import { clock } from "~/store/clock";
import type { JobData } from "~/store/job-data";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Kbd, Row, Sheet, Soft } from "~/ui/bits";
import { figures } from "~/ui/theme";
import { Pad } from "./Pad";
import { useUndoKey } from "./use-undo-key";
import { useRecordLists } from "./record-lists";
import { SystemChoice } from "~/ui/SystemChoice";
import { useIntents } from "~/store/use-job";
import type { JobIntents } from "~/store/job-intents";

const Countdown = styled.p`
  ${figures}
  font-size: clamp(2.6rem, 9vw, 4.4rem);
  font-weight: 700;
  line-height: 1;
  small {
    display: block;
    margin-top: 6px;
    font-size: 0.9rem;
    font-weight: 400;
    color: var(--ink-soft);
  }
`;

/** Readiness by lamp: a wait, a watch with taps, a verdict. */
export function ReadinessWatch({ data, tells }: { data: JobData; tells: ReadinessLamp }) {
  const { send } = useIntents<JobIntents>(null);
  const [began, setBegan] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const [flashes, setFlashes] = useState<number[]>([]);
  const [atEnd, setAtEnd] = useState<"lit" | "dark" | null>(null);
  const record = useRecordLists(data);
  useUndoKey(useCallback(() => setFlashes((all) => all.slice(0, -1)), []));
  const total = (tells.waitSeconds + tells.watchSeconds) * 1000;
  const watched = began === null ? 0 : now - began;
  const over = watched >= total;
  useEffect(() => {
    if (began === null || over) return;
    return clock.every(200, () => setNow(clock.ticks()));
  }, [began, over]);
  const verdict = readinessVerdict(tells, {
    flashes,
    watched: over ? total : watched,
    atEnd: atEnd ?? (tells.complete === "steady" ? "dark" : "lit"),
  });
  const told = verdict.state === "not-complete" || (over && atEnd !== null);
  const again = () => {
    setBegan(null);
    setFlashes([]);
    setAtEnd(null);
  };
  return (
    <>
      <h1 aria-live="polite">
        {began === null
          ? "Key off first. Then tap here as you turn it on."
          : told
            ? verdict.headline
            : over
              ? "The watch is over. What does the lamp do now?"
              : watched < tells.waitSeconds * 1000
                ? "Wait, and watch. A blink now is before its time: tap it."
                : "Watch the lamp. Tap with every blink."}
      </h1>
      <SystemChoice
        systems={data.systems}
        value={data.access.system}
        onChange={(system) => send({ intent: "system", system })}
      />
      {began === null && (
        <>
          <Soft>
            Key on, engine off. {tells.waitSeconds} s of waiting, then {tells.watchSeconds} s of watching. Blinking
            then: not complete. {tells.complete === "steady" ? "Steady" : "Out"}: complete.
          </Soft>
          <Row>
            <Button
              $look="primary"
              onPress={() => {
                setBegan(clock.ticks());
                setNow(clock.ticks());
              }}
            >
              The key goes on now
            </Button>
          </Row>
        </>
      )}
      {began !== null && !told && !over && (
        <>
          <Countdown role="timer">
            {Math.ceil(
              (watched < tells.waitSeconds * 1000 ? tells.waitSeconds * 1000 - watched : total - watched) / 1000,
            )}{" "}
            s<small>{watched < tells.waitSeconds * 1000 ? "until it tells" : "of watching left"}</small>
          </Countdown>
          <Pad keys={ONE_KEY} onDown={(at) => setFlashes([...flashes, at - began])} onUp={() => undefined} />
          <Soft>
            {flashes.length} {flashes.length === 1 ? "blink" : "blinks"} so far. Undo with <Kbd>Z</Kbd>
          </Soft>
        </>
      )}
      {over && verdict.state !== "not-complete" && (
        <Sheet>
          <Choice
            label="The lamp now"
            value={atEnd}
            onChange={setAtEnd}
            options={[
              { value: "lit", label: "Stays lit" },
              { value: "dark", label: "Is out" },
            ]}
          />
        </Sheet>
      )}
      {told && (
        <Sheet>
          <h2>{verdict.headline}</h2>
          <p>{verdict.reason}</p>
          {verdict.state === "not-complete" && <p>{data.pack.proving.drive}</p>}
        </Sheet>
      )}
      <Row>
        {told && (
          <Button
            $look="primary"
            onPress={() =>
              void record({
                input: "readiness",
                run: "before",
                lists: {},
                readiness: verdict.state === "too-early" ? "unclear" : verdict.state,
                says: verdict.headline,
              })
            }
          >
            Record this reading
          </Button>
        )}
        {began !== null && <Button onPress={again}>Start over</Button>}
      </Row>
    </>
  );
}
