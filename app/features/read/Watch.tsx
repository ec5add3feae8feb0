import { useEffect, useState } from "react";
import { useNavigate, useRevalidator } from "react-router";
import styled from "styled-components";
import type { Dialect } from "@core/flash/dialect/dialect";
import type { SystemAccess } from "@core/pack/scope";
import { nothingMore } from "@core/flash/judge/settle";
import { withReading } from "@core/record/job";
import { wasCleared } from "@core/job/epochs";
import { identityOf, lookFor, OTHER } from "@core/job/identity";
import { knownOf } from "@core/job/known";
import { lower, sayKnown } from "@core/job/say";
import { mostOf } from "@core/job/told";
import { recorded, resultFrom } from "@core/record/readings";
import { byHand, inputsFor, isPicture } from "@core/record/inputs";
import type { LampRested, Reading } from "@core/record/types";
import { clock } from "~/store/clock";
import { readReading, writeReading } from "~/store/records";
import { shortTime } from "~/store/format";
import type { JobData } from "~/store/job-data";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Row, Sheet } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { ActNow } from "./ActNow";
import { Elsewhere } from "./Elsewhere";
import { jobHome } from "./home";
import { Inputs } from "./Inputs";
import { KeyNow } from "./KeyNow";
import { PictureStage } from "./picture/Stage";
import { PictureWatch } from "./picture/picture-watch";
import { PressRows } from "./PressRows";
import { RecordedReadings } from "./RecordedReadings";
import { RunChoice } from "./RunChoice";
import { Codes, Said } from "./Said";
import { ReadingSession, whyNot, type SessionState } from "./session";
import { SessionStrip } from "./strip/SessionStrip";
import { UndoButton } from "./UndoButton";
import { useSession } from "./use-session";
import { useWatch } from "./use-watch";
import { useWorking } from "./use-working";
import type { JobIntents } from "~/store/job-intents";
import { jobPath } from "~/store/paths";

export const Dock = styled.div<{ $still?: boolean }>`
  position: ${({ $still }) => ($still ? "static" : "sticky")};
  bottom: 0;
  z-index: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 14px 0 8px;
  background: linear-gradient(transparent, var(--paper) 14px);
  @media (max-width: 719px) {
    :root[data-hand="right"] & > div {
      flex-direction: row-reverse;
    }
  }
`;

/** Marks, or numbers that were called out. */
const hasAnything = (s: SessionState) => s.reading.marks.length > 0 || Boolean(s.reading.counts?.trim());

/** Watches one lamp: marks come in, the strip and the codes follow. */
export function Watch({ data, dialect }: { data: JobData; dialect: Dialect }) {
  const { job, vehicle, access, systems, readings } = data;
  const { send } = useIntents<JobIntents>(null);
  const [session] = useState(() => new ReadingSession(jobHome(data, access, dialect)));
  // Units whose lamps answer at the same time, each with a list of its own.
  const [others] = useState(() =>
    systems
      .filter((s) => s.dialect && s.way.id === access.way.id && s.lamp !== access.lamp)
      .map((s) => ({ access: s, session: new ReadingSession(jobHome(data, s, s.dialect!)) })),
  );
  const [picture] = useState(() => new PictureWatch(() => [session, ...others.map((o) => o.session)]));
  const { phase, input, some, pictured, playhead, setPlayhead } = useWatch(session, picture);
  const run = useSession(session, (s) => s.reading.run);
  const most = useSession(session, ({ reading, decoded }) =>
    mostOf(access, data, { ...reading, result: decoded && resultFrom(decoded) }),
  );
  const anything = useSession(session, hasAnything);
  const working = useWorking(session, picture);
  const elsewhere = useSession(session, (s) => s.elsewhere);
  const again = async () => {
    const stored = await readReading(job.id, session.state.reading.id);
    if (stored) session.takeOver(stored);
    else session.setElsewhere(false);
  };
  // Ways to watch are offered until one is taken; the pad, and a list that is typed, stay.
  const offered = phase === "ready" || input === "counts" || (phase === "watching" && !isPicture(input));
  return (
    <>
      <Elsewhere session={session} again={again} />
      {!elsewhere && (
        <>
          <Said session={session} working={working} />
          {phase === "ready" && (
            <SystemChoice
              systems={systems}
              value={access.system}
              onChange={(system) => send({ intent: "system", system })}
            />
          )}
          {wasCleared(data, access.memory) && <RunChoice value={run} onChange={session.setRun} />}
          {phase === "ready" && <KeyNow session={session} way={access.way} dialect={dialect} job={job} />}
          {phase === "interrupted" && <Interrupted session={session} picture={picture} />}
          {access.way.tells.kind === "lamp" && access.way.tells.act && (
            <ActNow session={session} dialect={dialect} act={access.way.tells.act} />
          )}
          {pictured && (
            <PictureStage
              picture={picture}
              names={[access.name, ...others.map((o) => o.access.name)]}
              playhead={playhead}
              onPlayhead={setPlayhead}
            />
          )}
          <Codes session={session} most={most} />
          {some && dialect.advance === "button" && (
            <Sheet>
              <PressRows session={session} />
            </Sheet>
          )}
          {some && dialect.advance === "self" && (
            <Sheet>
              <SessionStrip
                session={session}
                playhead={playhead}
                onPlayhead={setPlayhead}
                picture={picture}
                lamps={[
                  { name: access.lamp, session },
                  ...others.map((o) => ({ name: o.access.lamp, session: o.session })),
                ]}
                readings={recorded(readings, access.system).filter((r) => r.marks.length > 0)}
                title={`${vehicle.plate} ${access.name}`}
              />
            </Sheet>
          )}
          {pictured && others.map((o) => <OtherLamp key={o.access.system} {...o} playhead={playhead} />)}
          <LookAgain session={session} access={access} systems={systems} />
          {/* What is typed is as high as a phone: it stays where it is and covers nothing. */}
          <Dock $still={input === "counts"}>
            <Actions session={session} others={others} picture={picture} data={data} />
            {offered && <Inputs session={session} picture={picture} inputs={inputsFor(dialect)} locked={anything} />}
          </Dock>
        </>
      )}
      <RecordedReadings data={data} />
    </>
  );
}

function Interrupted({ session, picture }: { session: ReadingSession; picture: PictureWatch }) {
  const { startedAt, marks, input } = useSession(session, (s) => s.reading);
  const goOn = () => (input === "camera" ? void picture.startCamera() : session.goOn());
  return (
    <Sheet>
      <h2>
        This reading was broken off at {shortTime(startedAt)} with {marks.length} marks.
      </h2>
      <p>Nothing is lost. Go on with the lamp still blinking: Klinko finds its place in the list again.</p>
      <Row>
        <Button $look="primary" onPress={goOn}>
          Go on watching
        </Button>
        <Button onPress={() => void session.startOver()}>Start over</Button>
      </Row>
    </Sheet>
  );
}

/** A second lamp that answers at the same time. */
function OtherLamp({ access, session, playhead }: Other & { playhead: number | null }) {
  const some = useSession(session, (s) => s.reading.marks.length > 0);
  if (!some) return null;
  return (
    <Sheet aria-label={`${access.lamp}, ${access.name}`}>
      <h2>
        {access.lamp}, {access.name}
      </h2>
      <Codes session={session} />
      <SessionStrip session={session} playhead={playhead} title={access.name} />
    </Sheet>
  );
}

interface Other {
  access: SystemAccess;
  session: ReadingSession;
}

/** An empty watch says something only after this many seconds. */
const EMPTY_WATCH = 15;

function Actions({
  session,
  others,
  picture,
  data,
}: {
  session: ReadingSession;
  others: readonly Other[];
  picture: PictureWatch;
  data: JobData;
}) {
  const { access } = data;
  const { saving, failed, record } = useRecord(session, others, picture, data);
  const phase = useSession(session, (s) => s.phase);
  const input = useSession(session, (s) => s.reading.input);
  const some = useSession(session, hasAnything);
  const rested = useSession(session, (s) => s.reading.rested);
  const done = useSession(session, (s) => s.decoded !== null && nothingMore(s.decoded));
  const startedAt = useSession(session, (s) => s.reading.startedAt);
  const seconds = useSeconds(phase === "watching" && !some ? startedAt : null);
  const unstored = useSession(session, (s) => s.unstored);
  const stuck = useSession(session, (s) => s.stuck);
  const startOver = () => {
    picture.close();
    for (const s of [session, ...others.map((o) => o.session)]) void s.startOver();
  };
  if (phase === "ready") return byHand(input) ? <BeforeFirst session={session} access={access} /> : null;
  return (
    <>
      {phase === "watching" && !some && (
        <p role="timer">
          Watching for <strong>{seconds} s</strong>.{" "}
          {seconds < EMPTY_WATCH ? "Give it fifteen." : "What does it do? Or tap when it blinks."}
        </p>
      )}
      {phase === "watching" && !some && seconds >= EMPTY_WATCH && (
        <Choice<LampRested> label="The lamp" value={rested ?? null} onChange={session.setRested} options={RESTED} />
      )}
      {stuck && (
        <div role="alert">
          <Caution>
            Klinko cannot work out what was marked just now. Nothing of it is lost: watch on, or reload this page and go
            on with it.
          </Caution>
        </div>
      )}
      {(failed || unstored) && (
        <div role="alert">
          <Caution>
            {failed ?? unstored} What was read is still here: leave this page open, then record the reading.
          </Caution>
        </div>
      )}
      <Row $gap={8}>
        <Button
          $look={done ? "primary" : "secondary"}
          isDisabled={saving || (!some && (seconds < EMPTY_WATCH || !rested))}
          onPress={() => void record()}
        >
          Record this reading
        </Button>
        {phase === "watching" && some && !isPicture(input) && <Button onPress={session.stop}>Stop watching</Button>}
        {phase === "stopped" && byHand(input) && <Button onPress={session.goOn}>Go on watching</Button>}
        {phase === "stopped" && input === "camera" && (
          <Button onPress={() => void picture.startCamera()}>Go on watching</Button>
        )}
        <UndoButton session={session} />
        {(phase === "stopped" || !some) &&
          (some ? (
            <ConfirmButton
              label="Start over"
              question="Throw these marks away?"
              sure="Throw away"
              onConfirm={startOver}
            />
          ) : (
            <Button $look="quiet" onPress={startOver}>
              Start over
            </Button>
          ))}
      </Row>
    </>
  );
}

/** Recording a watch: of all lamps that were watched, and on to what comes next. */
function useRecord(session: ReadingSession, others: readonly Other[], picture: PictureWatch, data: JobData) {
  const { job, access } = data;
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const [saving, setSaving] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const record = async () => {
    setSaving(true);
    setFailed(null);
    // A camera that still watches ends for all lamps, so that a second one is recorded too.
    picture.stop();
    // The newest of all readings is told of first; what is known of its system takes in those before it.
    const store = (of: SystemAccess) => (reading: Reading) => {
      const readings = [...data.readings.filter((r) => r.id !== reading.id), reading];
      return writeReading(reading, (j) =>
        withReading(j, sayKnown(of.name, knownOf({ ...data, job: j, readings }, of.system)), reading.recordedAt!),
      );
    };
    try {
      await session.finish(store(access));
      await picture.closed;
      for (const other of others) {
        if (!hasAnything(other.session.state) || other.session.state.phase !== "stopped") continue;
        await other.session.finish(store(other.access));
      }
    } catch (error) {
      setSaving(false);
      return setFailed(whyNot(error));
    }
    await revalidator.revalidate();
    await navigate(jobPath(job.id, wasCleared(data, access.memory) ? "prove" : "meaning"));
  };
  return { saving, failed, record };
}

/** Before the first mark: a start that can be told, and a lamp that does not blink. */
function BeforeFirst({ session, access }: { session: ReadingSession; access: SystemAccess }) {
  return (
    <Row $gap={8}>
      {access.dialect?.advance === "self" && !access.way.steps.some((x) => x.beat) && (
        <Button $look={access.dialect.loopFrom === null ? "primary" : "secondary"} onPress={() => session.watch(true)}>
          {access.way.engine === "running" ? "It starts now" : "The key goes on now"}
        </Button>
      )}
      <Button $look="quiet" onPress={() => session.watch()}>
        It does not blink
      </Button>
    </Row>
  );
}

const RESTED: readonly { value: LampRested; label: string }[] = [
  { value: "lit", label: "Stays lit" },
  { value: "lit-then-dark", label: "Lit at first, then dark" },
  { value: "dark", label: "Dark all the time" },
];

/** Where another unit could have answered: which lamp it was, or where the lead sits. Who does not say leaves it likely at most. */
function LookAgain({ session, access, systems }: { session: ReadingSession } & Pick<JobData, "access" | "systems">) {
  const some = useSession(session, hasAnything);
  const told = useSession(session, (s) => s.reading.looked);
  const look = lookFor(access, systems);
  const identity = identityOf(access, systems, told);
  if (!look || !some) return null;
  return (
    <>
      <Choice
        label={
          look.what === "lamp" ? "Look once more: which lamp blinks?" : "Look once more: the signal lead sits in socket"
        }
        value={told?.[look.what] ?? null}
        onChange={(value) => session.setLooked({ [look.what]: value })}
        options={[...look.options.map((o) => ({ value: o, label: o })), { value: OTHER, label: "Another one" }]}
      />
      {identity.is === "other" && (
        <Caution>
          Then another unit answered{identity.system ? `: ${lower(identity.system.name)}` : ""}. This says nothing of
          the {lower(access.name)}. Check the hook-up, or pick that lamp and read it.
        </Caution>
      )}
    </>
  );
}

/** Whole seconds since a time, counting while there is one. */
function useSeconds(since: string | null): number {
  const [seconds, set] = useState(0);
  useEffect(() => {
    if (!since) return;
    const tick = () => set(Math.max(0, Math.floor((clock.now() - Date.parse(since)) / 1000)));
    return clock.every(500, tick);
  }, [since]);
  return since ? seconds : 0;
}
