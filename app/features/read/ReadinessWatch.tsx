import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import type { ReadinessLamp } from "@core/pack/way";
import { ONE_KEY } from "@core/record/inputs/tap";
import { readinessVerdict, withUnseen } from "@core/procedure/readiness";
import { holds, list, nullable, number, object, oneOf, pair, type Of } from "@core/schema/rule";
import { clock } from "~/store/clock";
import { dropDraft } from "~/store/drafts";
import { useDraft } from "~/store/use-draft";
import type { JobData } from "~/store/job-data";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Kbd, Row, Sheet, Soft } from "~/ui/bits";
import { figures } from "~/ui/theme";
import { Pad } from "./Pad";
import { BeginCamera } from "./picture/Begin";
import { BlinkEye } from "./picture/blink-eye";
import { PictureWatch } from "./picture/picture-watch";
import { PictureStage } from "./picture/Stage";
import { usePicture } from "./picture/use-picture";
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

/** A page that is at work looks at the clock more often than this, ms; what lies further apart nobody watched. */
const AT_WORK_MS = 2500;

const ms = number(0);
const watchRule = object({
  /** Wall clock at key-on, and the last moment at which the page was at work, ms since 1970. */
  began: nullable(ms),
  last: ms,
  flashes: list(ms, { max: 1000 }),
  unseen: list(pair(ms, ms), { max: 1000 }),
  atEnd: nullable(oneOf("lit", "dark")),
});
/** A watch as it is kept: it goes on after a reload, and knows when nobody looked. */
type Kept = Of<typeof watchRule>;
const isKept = (v: unknown): v is Kept => "value" in holds(watchRule, v);
const NOT_BEGUN: Kept = { began: null, last: 0, flashes: [], unseen: [], atEnd: null };

/** What a camera saw is judged so often, ms: all of it each time. */
const LOOKED_MS = 1000;

/** A camera that counts blinks, as long as the page is open. */
function useCamera() {
  const [eye] = useState(() => new BlinkEye());
  // A lamp that only stays lit says nothing: the one that somebody drew, else the first that blinks, is taken.
  const [picture] = useState(
    () =>
      new PictureWatch(
        () => [eye],
        (lamps) => Promise.resolve({ order: lamps.map((l) => l.id), speech: "words", doubtful: [] }),
      ),
  );
  useEffect(() => () => picture.close(), [picture]);
  useEffect(() => picture.subscribe(() => eye.look(picture)), [picture, eye]);
  return { eye, picture };
}

const BEGIN = "Key off first. Then tap here as you turn it on.";
const OVER = "The watch is over. What does the lamp do now?";

/** What to do while it is watched. @param waits the lamp does not tell yet */
function duringText(waits: boolean, filmed: boolean): string {
  if (filmed) return waits ? "Wait. The camera watches." : "The camera counts each blink.";
  return waits ? "Wait, and watch. A blink now is before its time: tap it." : "Watch the lamp. Tap with every blink.";
}

/** Readiness by lamp: a wait, a watch with taps, a verdict. */
export function ReadinessWatch({ data, tells }: { data: JobData; tells: ReadinessLamp }) {
  const { send } = useIntents<JobIntents>(null);
  const [watch, keep] = useDraft<Kept>(`${data.job.id}/readiness`, NOT_BEGUN, isKept);
  const { began, flashes, unseen, atEnd, last } = watch;
  const record = useRecordLists(data);
  const { eye, picture } = useCamera();
  const lamp = usePicture(picture, (p) => p.chosen[0] != null || p.seen?.still != null);
  const filmed = usePicture(picture, (p) => p.phase === "watching" || p.phase === "opening");
  useUndoKey(useCallback(() => keep({ ...watch, flashes: watch.flashes.slice(0, -1) }), [keep, watch]));
  const total = (tells.waitSeconds + tells.watchSeconds) * 1000;
  const watched = began === null ? 0 : last - began;
  const over = watched >= total;
  useEffect(() => {
    if (began === null || over) return;
    return clock.every(filmed ? LOOKED_MS : 200, () => {
      const now = clock.now();
      const seen = eye.since(began, picture.state);
      // What the pictures have not come to yet is not over.
      if (seen) return keep({ ...watch, last: began + seen.until, flashes: seen.flashes, unseen: seen.unseen });
      const gap = now - watch.last > AT_WORK_MS || document.visibilityState === "hidden";
      const missed = [Math.max(0, watch.last - began), Math.max(0, now - began)] as const;
      keep({ ...watch, last: Math.max(now, began), unseen: gap ? withUnseen(watch.unseen, missed) : watch.unseen });
    });
  }, [began, over, watch, keep, eye, picture, filmed]);
  useEffect(() => {
    if (over) picture.stop();
  }, [over, picture]);
  const verdict = readinessVerdict(tells, {
    flashes,
    watched: over ? total : watched,
    unseen,
    atEnd: atEnd ?? (tells.complete === "steady" ? "dark" : "lit"),
  });
  const told = verdict.state === "not-complete" || (over && atEnd !== null);
  const again = () => {
    picture.close();
    keep(NOT_BEGUN);
  };
  return (
    <>
      <h1 aria-live="polite">
        {began === null
          ? BEGIN
          : told
            ? verdict.headline
            : over
              ? OVER
              : duringText(watched < tells.waitSeconds * 1000, filmed)}
      </h1>
      <SystemChoice
        systems={data.systems}
        value={data.access.system}
        onChange={(system) => send({ intent: "system", system })}
      />
      {began === null && (
        <Before
          tells={tells}
          picture={picture}
          filmed={filmed}
          lamp={lamp}
          onKey={() => keep({ ...NOT_BEGUN, began: clock.now(), last: clock.now() })}
        />
      )}
      {filmed && !over && (
        <PictureStage picture={picture} names={["Lamp"]} playhead={null} onPlayhead={() => undefined} />
      )}
      {began !== null && !told && !over && (
        <WatchOn
          filmed={filmed}
          left={watched < tells.waitSeconds * 1000 ? tells.waitSeconds * 1000 - watched : total - watched}
          waits={watched < tells.waitSeconds * 1000}
          blinks={flashes.length}
          onBlink={(at) =>
            keep({ ...watch, flashes: [...flashes, Math.max(0, clock.now() - (clock.ticks() - at) - began)] })
          }
        />
      )}
      {over && verdict.state !== "not-complete" && (
        <Sheet>
          <Choice
            label="The lamp now"
            value={atEnd}
            onChange={(now) => keep({ ...watch, atEnd: now })}
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
            onPress={() => {
              const told = record({
                input: "readiness",
                run: "before",
                lists: {},
                readiness: verdict.state === "too-early" ? "unclear" : verdict.state,
                says: verdict.headline,
              });
              void told.then(() => dropDraft(`${data.job.id}/readiness`));
            }}
          >
            Record this reading
          </Button>
        )}
        {began !== null && <Button onPress={again}>Start over</Button>}
      </Row>
    </>
  );
}

/** The time that is left, and the pad for each blink. @param left ms */
function WatchOn({
  filmed,
  left,
  waits,
  blinks,
  onBlink,
}: {
  filmed: boolean;
  left: number;
  waits: boolean;
  blinks: number;
  onBlink: (at: number) => void;
}) {
  return (
    <>
      <Countdown role="timer">
        {Math.ceil(left / 1000)} s<small>{waits ? "until it tells" : "of watching left"}</small>
      </Countdown>
      {!filmed && <Pad keys={ONE_KEY} onDown={onBlink} onUp={() => undefined} />}
      <Soft>
        {blinks} {blinks === 1 ? "blink" : "blinks"} so far
        {filmed ? (
          ", counted by the camera."
        ) : (
          <>
            . Undo with <Kbd>Z</Kbd>
          </>
        )}
      </Soft>
    </>
  );
}

/** What comes, the one button that begins it, and the camera for who would rather not count. */
function Before({
  tells,
  picture,
  filmed,
  lamp,
  onKey,
}: {
  tells: ReadinessLamp;
  picture: PictureWatch;
  filmed: boolean;
  /** The camera has a lamp to look at. */
  lamp: boolean;
  onKey: () => void;
}) {
  return (
    <>
      <Soft>
        Key on, engine off. {tells.waitSeconds} s of waiting, then {tells.watchSeconds} s of watching. Blinking then:
        not complete. {tells.complete === "steady" ? "Steady" : "Out"}: complete.
      </Soft>
      <Row>
        <Button $look="primary" isDisabled={filmed && !lamp} onPress={onKey}>
          The key goes on now
        </Button>
      </Row>
      {!filmed && (
        <Sheet aria-label="By camera">
          <h2>Or let the camera count</h2>
          <BeginCamera picture={picture} stored={null} />
        </Sheet>
      )}
      {filmed && !lamp && (
        <p>
          <strong>Draw a box around the lamp first.</strong> While it does not blink it cannot be found by itself.
        </p>
      )}
    </>
  );
}
