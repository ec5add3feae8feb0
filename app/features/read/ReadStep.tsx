import { Undo2 } from "lucide-react";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import { useNavigate, useRevalidator } from "react-router";
import styled from "styled-components";
import { lockOf, withReading } from "@core/record/job";
import { traceOf } from "@core/record/evidence";
import { wasCleared } from "@core/record/readings";
import { writeTrace } from "@core/lamp/trace";
import type { Dialect } from "@core/flash/dialect";
import { isPicture, type Input, type LampInput } from "@core/record/types";
import type { SystemAccess } from "@core/pack/scope";
import { changeJob } from "~/store/db";
import { shortTime } from "~/store/format";
import type { JobData } from "~/store/job-data";
import { saveFile } from "~/store/save-file";
import { useAwake } from "~/store/use-awake";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Empty, Kbd, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { ActNow } from "./ActNow";
import { CodeCards } from "./CodeCards";
import { Counts } from "./Counts";
import { DashText } from "./DashText";
import { ModuleWalk } from "./ModuleWalk";
import { PressRows } from "./PressRows";
import { ReadinessWatch } from "./ReadinessWatch";
import { RunChoice } from "./RunChoice";
import { SerialData } from "./SerialData";
import { Pad } from "./Pad";
import { saySoFar, seenTwice } from "./sentence";
import { Strip } from "./strip/Strip";
import { TraceImport } from "./TraceImport";
import { cue } from "~/store/cue";
import { useSettings } from "~/store/use-settings";
import { jobHome } from "./home";
import { BeginCamera, BeginFilm } from "./picture/Begin";
import { PictureStage } from "./picture/Stage";
import { PictureWatch } from "./picture/picture-watch";
import { usePicture } from "./picture/use-picture";
import { ReadingSession, type SessionState } from "./session";
import { useSession } from "./use-session";

const InputTabs = styled(TabList)`
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
`;

const InputTab = styled(Tab)`
  flex: none;
  display: flex;
  align-items: center;
  min-height: 48px;
  padding: 0 16px;
  font-weight: 700;
  color: var(--ink-soft);
  border-radius: 10px 10px 0 0;
  cursor: pointer;
  &[data-selected] {
    background: var(--petrol);
    color: var(--on-petrol);
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
`;

const Dock = styled.div`
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 8px;
  padding: 14px 0 8px;
  background: linear-gradient(transparent, var(--paper) 14px);
`;

const INPUTS: readonly { id: LampInput; label: string }[] = [
  { id: "camera", label: "Camera" },
  { id: "film", label: "Film" },
  { id: "tap", label: "Tap" },
  { id: "keys", label: "Two keys" },
  { id: "hold", label: "Hold" },
  { id: "counts", label: "Counts" },
  { id: "trace", label: "Trace file" },
  { id: "press", label: "Button and flashes" },
];

/** Long and short cannot be told by taps alone. */
function inputsFor({ advance, digits }: Dialect): readonly { id: LampInput; label: string }[] {
  const never = advance === "button" ? ["camera", "film", "tap", "keys", "hold", "trace"] : digits.style === "long-short" ? ["tap", "press"] : ["keys", "press"]; // prettier-ignore
  return INPUTS.filter((i) => !never.includes(i.id));
}

export function ReadStep() {
  const data = useJob();
  useAwake();
  const { job, readings, access } = data;
  const lock = lockOf(job, readings, "read");
  if (lock)
    return (
      <Empty level={1} title={`Reading is closed: ${lock}.`}>
        <p>Only a unit that passes the lamp check is worth asking for codes.</p>
        <LinkButton $look="primary" to={`/jobs/${job.id}/lamp-check`}>
          To the lamp check
        </LinkButton>
      </Empty>
    );
  const { tells } = access.way;
  switch (tells.kind) {
    case "lamp":
      return access.dialect && <Watch key={access.system} data={data} dialect={access.dialect} />;
    case "text":
      return <DashText key={access.way.id} data={data} tells={tells} />;
    case "modules":
      return <ModuleWalk key={access.way.id} data={data} tells={tells} />;
    case "readiness":
      return <ReadinessWatch key={access.way.id} data={data} tells={tells} />;
    case "serial":
      return <SerialData key={access.way.id} data={data} tells={tells} />;
  }
}

/** Marks, or numbers that were called out. */
const hasAnything = (s: SessionState) => s.reading.marks.length > 0 || Boolean(s.reading.counts?.trim());

/** Watches one lamp: marks come in, the strip and the codes follow. */
function Watch({ data, dialect }: { data: JobData; dialect: Dialect }) {
  const { job, access, systems } = data;
  const { send } = useJobAction();
  const [session] = useState(() => new ReadingSession(jobHome(data, access, dialect)));
  // Units whose lamps answer at the same time, each with a list of its own.
  const [others] = useState(() =>
    systems
      .filter((s) => s.dialect && s.way.id === access.way.id && s.lamp !== access.lamp)
      .map((s) => ({ access: s, session: new ReadingSession(jobHome(data, s, s.dialect!)) })),
  );
  const [picture] = useState(() => new PictureWatch(() => [session, ...others.map((o) => o.session)]));
  useEffect(() => session.run(), [session]);
  useEffect(() => () => picture.close(), [picture]);
  const [playhead, setPlayhead] = useState<number | null>(null);
  const phase = useSession(session, (s) => s.phase);
  const run = useSession(session, (s) => s.reading.run);
  const some = useSession(session, (s) => s.reading.marks.length > 0);
  const anything = useSession(session, hasAnything);
  const input = useSession(session, (s) => s.reading.input);
  const pictured = usePicture(picture, (s) => s.phase !== "idle");
  useSettled(session, picture);
  return (
    <>
      <Said session={session} dialect={dialect} />
      {phase === "ready" && (
        <SystemChoice
          systems={systems}
          value={access.system}
          onChange={(system) => send({ intent: "system", system })}
        />
      )}
      {wasCleared(job, access.memory) && <RunChoice value={run} onChange={session.setRun} />}
      {phase === "interrupted" && <Interrupted session={session} />}
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
      <Codes session={session} />
      {some && dialect.advance === "button" && (
        <Sheet>
          <PressRows session={session} />
        </Sheet>
      )}
      {some && dialect.advance === "self" && (
        <Sheet>
          <SessionStrip session={session} playhead={playhead} onPlayhead={setPlayhead} picture={picture} />
        </Sheet>
      )}
      {pictured && others.map((o) => <OtherLamp key={o.access.system} {...o} playhead={playhead} />)}
      {(phase === "ready" && !pictured) || (phase === "watching" && !isPicture(input)) || input === "counts" || (pictured && phase === "ready") ? (
        <Dock>
          <Actions session={session} others={others} picture={picture} data={data} />
          <Inputs session={session} picture={picture} dialect={dialect} locked={anything} />
        </Dock>
      ) : (
        <Actions session={session} others={others} picture={picture} data={data} />
      )}
    </>
  );
}

function Interrupted({ session }: { session: ReadingSession }) {
  const { startedAt, marks } = useSession(session, (s) => s.reading);
  return (
    <Sheet>
      <h2>
        This reading was broken off at {shortTime(startedAt)} with {marks.length} marks.
      </h2>
      <p>Nothing is lost. Go on with the lamp still blinking: Klinko finds its place in the list again.</p>
      <Row>
        <Button $look="primary" onPress={session.goOn}>
          Go on watching
        </Button>
        <Button onPress={() => void session.startOver()}>Start over</Button>
      </Row>
    </Sheet>
  );
}

function Said({ session, dialect }: { session: ReadingSession; dialect: Dialect }) {
  const { decoded, reading, phase } = useSession(session, (s) => s);
  const { headline, next } = saySoFar(
    decoded,
    dialect,
    reading.input as LampInput,
    reading.input === "counts" ? (reading.counts ?? "").trim().length : reading.marks.length,
    phase === "watching",
  );
  return useMemo(
    () => (
      <>
        <h1 aria-live="polite">{headline}</h1>
        {next && <Soft>{next}</Soft>}
      </>
    ),
    [headline, next],
  );
}

function Codes({ session }: { session: ReadingSession }) {
  const decoded = useSession(session, (s) => s.decoded);
  return decoded && decoded.codes.length > 0 && <CodeCards decoded={decoded} />;
}

/** A second lamp that answers at the same time. */
function OtherLamp({ access, session, playhead }: Other & { playhead: number | null }) {
  const some = useSession(session, (s) => s.reading.marks.length > 0);
  if (!some) return null;
  return (
    <Sheet aria-label={`${access.lamp}, ${access.name}`}>
      <h2>{access.lamp}</h2>
      <Codes session={session} />
      <SessionStrip session={session} playhead={playhead} />
    </Sheet>
  );
}

interface Other {
  access: SystemAccess;
  session: ReadingSession;
}

/** When nothing more can be learned, watching ends by itself, with a sound. */
function useSettled(session: ReadingSession, picture: PictureWatch) {
  const settled = useSession(session, (s) => s.settled);
  const phase = useSession(session, (s) => s.phase);
  const settings = useSettings();
  useEffect(() => {
    if (settled) cue("end", settings);
  }, [settled, settings]);
  useEffect(() => {
    if (phase === "stopped" && picture.state.source === "camera") picture.stop();
  }, [phase, picture]);
}

function SessionStrip({
  session,
  picture,
  playhead,
  onPlayhead,
}: {
  session: ReadingSession;
  picture?: PictureWatch;
  playhead: number | null;
  onPlayhead?: (ms: number) => void;
}) {
  const { dialect } = session.home;
  const decoded = useSession(session, (s) => s.decoded);
  const marks = useSession(session, (s) => s.reading.marks);
  const watching = useSession(session, (s) => s.phase === "watching");
  const period = (dialect.marks.short + dialect.gaps.flash) * (decoded?.tempo ?? 1);
  const seek = useCallback(
    (ms: number) => {
      if (!picture?.video || picture.state.source !== "film") return;
      picture.video.currentTime = ms / 1000;
      onPlayhead?.(ms);
    },
    [picture, onPlayhead],
  );
  return (
    <Strip marks={marks} decoded={decoded} period={period} follow={watching} onEdit={session.edit} playhead={playhead} onSeek={seek} />
  );
}

function Inputs({
  session,
  picture,
  dialect,
  locked,
}: {
  session: ReadingSession;
  picture: PictureWatch;
  dialect: Dialect;
  locked: boolean;
}) {
  const input = useSession(session, (s) => s.reading.input) as LampInput;
  return (
    <Tabs
      selectedKey={input}
      onSelectionChange={(k) => {
        if (k === input) return;
        picture.close();
        session.setInput(k as LampInput);
      }}
    >
      <InputTabs aria-label="How you watch">
        {inputsFor(dialect).map((i) => (
          <InputTab key={i.id} id={i.id} isDisabled={locked && i.id !== input}>
            {i.label}
          </InputTab>
        ))}
      </InputTabs>
      <TabPanel id={input}>
        {input === "camera" ? (
          <BeginCamera picture={picture} />
        ) : input === "film" ? (
          <BeginFilm picture={picture} />
        ) : input === "trace" ? (
          <TraceImport rest={dialect.rest} onTrace={session.load} />
        ) : input === "counts" ? (
          <Counts session={session} dialect={dialect} />
        ) : (
          <Pad key={input} input={input} onDown={session.down} onUp={session.up} onUndo={session.undo} />
        )}
      </TabPanel>
    </Tabs>
  );
}

const byHand = (input: Input): boolean => !isPicture(input) && input !== "trace" && input !== "counts";

/** An empty watch says something only after this many seconds. */
const EMPTY_WATCH = 15;

function Actions({
  session,
  others,
  picture,
  data: { job, access },
}: {
  session: ReadingSession;
  others: readonly Other[];
  picture: PictureWatch;
  data: JobData;
}) {
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const [saving, setSaving] = useState(false);
  const phase = useSession(session, (s) => s.phase);
  const input = useSession(session, (s) => s.reading.input);
  const some = useSession(session, hasAnything);
  const canUndo = useSession(session, (s) => s.undo.length > 0);
  const done = useSession(session, (s) => s.decoded !== null && seenTwice(s.decoded));
  const startedAt = useSession(session, (s) => s.reading.startedAt);
  const seconds = useSeconds(phase === "watching" && !some ? startedAt : null);
  const record = async () => {
    setSaving(true);
    const reading = await session.finish();
    await changeJob(job.id, (j) => withReading(j, reading, access.name, reading.recordedAt!));
    for (const other of others) {
      if (!hasAnything(other.session.state) || other.session.state.phase !== "stopped") continue;
      const too = await other.session.finish();
      await changeJob(job.id, (j) => withReading(j, too, other.access.name, too.recordedAt!));
    }
    await revalidator.revalidate();
    await navigate(`/jobs/${job.id}/${wasCleared(job, access.memory) ? "prove" : "meaning"}`);
  };
  const startOver = () => {
    picture.close();
    for (const s of [session, ...others.map((o) => o.session)]) void s.startOver();
  };
  if (phase === "ready")
    return !byHand(input) ? null : (
      <Row>
        <Button onPress={session.watch}>It does not blink</Button>
      </Row>
    );
  return (
    <>
      {phase === "watching" && !some && (
        <p role="timer">
          Watching for <Mono>{seconds} s</Mono>.{" "}
          {seconds < EMPTY_WATCH ? "Give it fifteen." : "Record what you see, or tap when it blinks."}
        </p>
      )}
      <Row $gap={8}>
        <Button
          $look={done ? "primary" : "secondary"}
          isDisabled={saving || (!some && seconds < EMPTY_WATCH)}
          onPress={() => void record()}
        >
          Record this reading
        </Button>
        {phase === "watching" && some && !isPicture(input) && <Button onPress={session.stop}>Stop watching</Button>}
        {phase === "stopped" && byHand(input) && <Button onPress={session.goOn}>Go on watching</Button>}
        {phase === "stopped" && input === "camera" && (
          <Button onPress={() => void picture.startCamera(false)}>Go on watching</Button>
        )}
        <Button isDisabled={!canUndo} onPress={session.undo}>
          <Undo2 size={20} aria-hidden /> Undo <Kbd>Z</Kbd>
        </Button>
        {phase === "stopped" && (
          <Button
            $look="quiet"
            onPress={() =>
              saveFile(
                `trace-${session.state.reading.id}.csv`,
                writeTrace(traceOf(session.state.reading, session.now())),
                "text/csv",
              )
            }
          >
            Save the trace
          </Button>
        )}
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

/** Whole seconds since a time, counting while there is one. */
function useSeconds(since: string | null): number {
  const [seconds, set] = useState(0);
  useEffect(() => {
    if (!since) return;
    const tick = () => set(Math.max(0, Math.floor((Date.now() - Date.parse(since)) / 1000)));
    const timer = setInterval(tick, 500);
    return () => clearInterval(timer);
  }, [since]);
  return since ? seconds : 0;
}
