import { Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import { useNavigate, useRevalidator } from "react-router";
import styled from "styled-components";
import { lockOf, withReading } from "@core/record/job";
import { traceOf } from "@core/record/evidence";
import { writeTrace } from "@core/lamp/trace";
import type { Input, Reading } from "@core/record/types";
import { changeJob } from "~/store/db";
import { shortTime } from "~/store/format";
import type { JobData } from "~/store/job-data";
import { saveFile } from "~/store/save-file";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Empty, Kbd, Mono, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { CodeCards } from "./CodeCards";
import { Pad } from "./Pad";
import { saySoFar, seenTwice } from "./sentence";
import { Strip } from "./Strip";
import { TraceImport } from "./TraceImport";
import { useReading } from "./use-reading";

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

const INPUTS: readonly { id: Input; label: string }[] = [
  { id: "tap", label: "Tap" },
  { id: "keys", label: "Two keys" },
  { id: "hold", label: "Hold" },
  { id: "trace", label: "Trace file" },
];

/** Long and short cannot be told by taps alone. */
function inputsFor(style: string): readonly { id: Input; label: string }[] {
  return INPUTS.filter((i) => (style === "long-short" ? i.id !== "tap" : i.id !== "keys"));
}

export function ReadStep() {
  const data = useJob();
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
  return <Watch key={access.system} data={data} />;
}

/** Watches one lamp: marks come in, the strip and the codes follow. */
function Watch({ data }: { data: JobData }) {
  const { job, access, systems } = data;
  const { send } = useJobAction();
  const live = useReading(data);
  const { reading, decoded, phase } = live;
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const [saving, setSaving] = useState(false);
  const { dialect } = access;
  const said = saySoFar(decoded, dialect, reading.input, reading.marks.length, phase === "watching");
  const seconds = useSeconds(phase === "watching" ? reading.startedAt : null);
  const canRecord = reading.marks.length > 0 || (phase === "watching" && seconds >= 15);
  const open = phase === "ready" || phase === "watching";
  const record = async () => {
    setSaving(true);
    const done = await live.finish();
    await changeJob(job.id, (j) => withReading(j, done, access.name, done.recordedAt!));
    await revalidator.revalidate();
    await navigate(`/jobs/${job.id}/${job.clears.length ? "prove" : "meaning"}`);
  };
  const actions = (
    <Row $gap={8}>
      {phase === "ready" && reading.input !== "trace" && <Button onPress={live.watch}>It does not blink</Button>}
      {phase !== "ready" && (
        <Button
          $look={decoded && seenTwice(decoded) ? "primary" : "secondary"}
          isDisabled={!canRecord || saving}
          onPress={() => void record()}
        >
          Record this reading
        </Button>
      )}
      {phase === "watching" && reading.marks.length > 0 && <Button onPress={live.stop}>Stop watching</Button>}
      {phase === "stopped" && reading.input !== "trace" && <Button onPress={live.goOn}>Go on watching</Button>}
      {phase !== "ready" && (
        <Button isDisabled={!live.canUndo} onPress={live.undo}>
          <Undo2 size={20} aria-hidden /> Undo <Kbd>Z</Kbd>
        </Button>
      )}
      {reading.marks.length > 0 && phase !== "interrupted" && (
        <>
          {phase === "stopped" && (
            <Button
              $look="quiet"
              onPress={() => saveFile(`trace-${reading.id}.csv`, writeTrace(traceOf(reading, live.now())), "text/csv")}
            >
              Save the trace
            </Button>
          )}
          <ConfirmButton
            label="Start over"
            question="Throw these marks away?"
            sure="Throw away"
            onConfirm={() => void live.startOver()}
          />
        </>
      )}
    </Row>
  );
  return (
    <>
      <h1 aria-live="polite">{said.headline}</h1>
      {said.next && <Soft>{said.next}</Soft>}
      {phase === "ready" && (
        <SystemChoice
          systems={systems}
          value={access.system}
          onChange={(system) => send({ intent: "system", system })}
        />
      )}
      {job.clears.length > 0 && <RunChoice value={reading.run} onChange={live.setRun} />}
      {phase === "interrupted" && (
        <Sheet>
          <h2>
            This reading was broken off at {shortTime(reading.startedAt)} with {reading.marks.length} marks.
          </h2>
          <p>Nothing is lost. Go on with the lamp still blinking: Klinko finds its place in the list again.</p>
          <Row>
            <Button $look="primary" onPress={live.goOn}>
              Go on watching
            </Button>
            <Button onPress={() => void live.startOver()}>Start over</Button>
          </Row>
        </Sheet>
      )}
      {decoded && decoded.codes.length > 0 && <CodeCards decoded={decoded} />}
      {reading.marks.length > 0 && (
        <Sheet>
          <Strip
            marks={reading.marks}
            decoded={decoded}
            period={(dialect.marks.short + dialect.gaps.flash) * (decoded?.tempo ?? 1)}
            follow={phase === "watching"}
            onEdit={live.edit}
          />
        </Sheet>
      )}
      {phase === "watching" && reading.marks.length === 0 && (
        <Stack>
          <p role="timer">
            Watching for <Mono>{seconds} s</Mono>.{" "}
            {seconds < 15 ? "Give it fifteen." : "Record what you see, or tap when it blinks."}
          </p>
        </Stack>
      )}
      {!open && actions}
      {open && (
        <Dock>
          {actions}
          <Tabs selectedKey={reading.input} onSelectionChange={(k) => live.setInput(k as Input)}>
            <InputTabs aria-label="How you watch">
              {inputsFor(dialect.digits.style).map((i) => (
                <InputTab key={i.id} id={i.id} isDisabled={reading.marks.length > 0 && i.id !== reading.input}>
                  {i.label}
                </InputTab>
              ))}
            </InputTabs>
            <TabPanel id={reading.input}>
              {reading.input === "trace" ? (
                <TraceImport rest={dialect.rest} onTrace={live.load} />
              ) : (
                <Pad key={reading.input} input={reading.input} onDown={live.down} onUp={live.up} onUndo={live.undo} />
              )}
            </TabPanel>
          </Tabs>
        </Dock>
      )}
    </>
  );
}

function RunChoice({ value, onChange }: { value: Reading["run"]; onChange: (run: Reading["run"]) => void }) {
  return (
    <Choice
      label="Since the clear the vehicle was"
      value={value === "before" ? "key-on" : value}
      onChange={onChange}
      options={[
        { value: "key-on", label: "Only switched on" },
        { value: "idle", label: "Idled" },
        { value: "drive", label: "Driven" },
      ]}
    />
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
