import { Clock, Lock, Radio, Settings2, TimerReset } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { planClear, type PlannedWay } from "@core/clearing/plan";
import type { CostId } from "@core/pack/pack";
import { lockOf } from "@core/record/job";
import { recorded } from "@core/record/readings";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Caution, Empty, Mono, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { mono } from "~/ui/theme";

const Way = styled(Sheet)`
  ol {
    list-style: decimal;
    padding-left: 1.3em;
    display: grid;
    gap: 4px;
  }
`;

const Costs = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  li {
    display: flex;
    align-items: center;
    gap: 8px;
  }
`;

const Dial = styled.p`
  ${mono}
  font-size: clamp(3.4rem, 14vw, 6rem);
  font-weight: 700;
  line-height: 1;
`;

const Bar = styled.div`
  height: 16px;
  border-radius: 8px;
  background: var(--rule);
  overflow: hidden;
  > i {
    display: block;
    height: 100%;
    background: var(--petrol);
  }
`;

const ICONS: Record<CostId, typeof Clock> = {
  "radio-code": Radio,
  clock: Clock,
  "learned-idle": Settings2,
  readiness: TimerReset,
  time: TimerReset,
};

/** Ways to clear with what each costs; locked until what is stored is written down. */
export function ClearStep() {
  const { job, vehicle, pack, readings, access } = useJob();
  const { send } = useJobAction();
  const lock = lockOf(job, readings, "clear");
  const done = recorded(readings, access.system);
  if (lock)
    return (
      <Empty level={1} title={`The clear is locked: ${lock}.`}>
        <p>
          {job.handOver
            ? "Codes are the next workshop's best lead. Change that in the story if it is no longer so."
            : "What is wiped before it is written down is gone."}
        </p>
        <LinkButton $look="primary" to={`/jobs/${job.id}/${job.handOver ? "story" : "read"}`}>
          {job.handOver ? "To the story" : "To the reading"}
        </LinkButton>
      </Empty>
    );
  if (job.clearing) return <Running />;
  const ways = planClear(pack, access.system, {
    recorded: done.length > 0,
    radio: vehicle.radio,
    handOver: job.handOver,
  });
  const asksRadio = ways.some((w) => w.way.costs.some((c) => c.id === "radio-code"));
  const partial = done.length > 0 && !done.at(-1)?.result?.complete;
  return (
    <>
      <h1>{ways[0]?.open ? `${ways[0].way.title}: it costs least.` : "How to clear it"}</h1>
      {partial && <Caution>The recorded list was not seen whole. What was not read is wiped too.</Caution>}
      {done.length === 0 && <Caution>Nothing of the {access.name.toLowerCase()} is recorded: read that first.</Caution>}
      {ways.length === 0 && (
        <Empty title={`This pack knows no way to clear the ${access.name.toLowerCase()}.`}>
          <p>
            {access.about.caution ?? "Look it up in the vehicle's own manual. What was read stays in the notebook."}
          </p>
        </Empty>
      )}
      {asksRadio && (
        <Sheet>
          <Choice
            label="After its power was off, the radio"
            value={vehicle.radio === "not-asked" ? null : vehicle.radio}
            onChange={(radio) => send({ intent: "radio", radio })}
            options={[
              { value: "none", label: "Needs no code" },
              { value: "code-known", label: "Needs a code, I have it" },
              { value: "code-unknown", label: "Needs a code, not found" },
            ]}
          />
        </Sheet>
      )}
      {ways.map((w) => (
        <PlannedWayCard key={w.way.id} planned={w} onBegin={() => send({ intent: "clear-begin", way: w.way.id })} />
      ))}
      {job.clears.length > 0 && (
        <Row>
          <LinkButton to={`/jobs/${job.id}/prove`}>Already cleared: to the proof</LinkButton>
        </Row>
      )}
    </>
  );
}

function PlannedWayCard({ planned: { way, gates, open }, onBegin }: { planned: PlannedWay; onBegin: () => void }) {
  const radio = gates.find((g) => g.id === "radio-code");
  return (
    <Way aria-label={way.title}>
      <h2>{radio && !radio.open ? "Another way, which cuts the radio's power" : way.title}</h2>
      {radio && !radio.open ? (
        <Row>
          <Lock size={20} aria-hidden />
          <p>{radio.reason}</p>
        </Row>
      ) : (
        <>
          <p>{way.what}</p>
          {way.trap && (
            <p>
              <strong>The trap:</strong> {way.trap}
            </p>
          )}
          <Costs aria-label="What it costs">
            {way.costs.length === 0 && <li>Costs nothing else.</li>}
            {way.costs.map((c) => {
              const Icon = ICONS[c.id];
              return (
                <li key={c.id}>
                  <Icon size={20} aria-hidden /> {c.text}
                </li>
              );
            })}
            <li>
              <TimerReset size={20} aria-hidden /> <Mono>{way.seconds} s</Mono>
            </li>
          </Costs>
          {way.caution && <Caution>{way.caution}</Caution>}
          <ol>
            {way.steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
          {gates
            .filter((g) => !g.open)
            .map((g) => (
              <Row key={g.id}>
                <Lock size={20} aria-hidden />
                <p>{g.reason}</p>
              </Row>
            ))}
          <Row>
            <Button $look="primary" isDisabled={!open} onPress={onBegin}>
              {way.kind === "button" || way.kind === "submode"
                ? "I hold it: start the time"
                : "It is off: start the time"}
            </Button>
          </Row>
        </>
      )}
    </Way>
  );
}

/** The countdown. It runs on through a reload, since the time of its start is stored. */
function Running() {
  const { job, pack } = useJob();
  const { send, busy } = useJobAction();
  const way = pack.clears.find((c) => c.id === job.clearing?.way);
  const startedAt = job.clearing ? Date.parse(job.clearing.startedAt) : 0;
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, []);
  if (!way) return null;
  const held = way.kind === "button" || way.kind === "submode";
  const passed = Math.max(0, (now - startedAt) / 1000);
  const left = Math.max(0, Math.ceil(way.seconds - passed));
  return (
    <>
      <h1>
        {held
          ? left > 0
            ? `Hold it for ${left} s more.`
            : "Long enough. Let it go."
          : left > 0
            ? `Leave it off for ${left} s more.`
            : "Long enough. Put it back."}
      </h1>
      <Sheet>
        <Dial role="timer" aria-label={`${left} seconds left`}>
          {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}
        </Dial>
        <Bar aria-hidden>
          <i style={{ width: `${Math.min(100, (100 * passed) / way.seconds)}%` }} />
        </Bar>
        <Soft>{way.title}. Longer does no harm; too short is the mistake.</Soft>
        <Stack $gap={6}>
          <h3>Afterwards</h3>
          <ul>
            {way.afterwards.map((a) => (
              <li key={a}>{a}</li>
            ))}
          </ul>
        </Stack>
        <Row>
          <Button $look="primary" isDisabled={left > 0 || busy} onPress={() => send({ intent: "clear-end" })}>
            {held ? "Let go: cleared" : "It is back in: cleared"}
          </Button>
          <Button $look="quiet" onPress={() => send({ intent: "clear-abandon" })}>
            Break off
          </Button>
        </Row>
      </Sheet>
    </>
  );
}
