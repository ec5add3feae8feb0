import { Clock, KeyRound, Lock, Radio, Settings2, TimerReset } from "lucide-react";
import { lower } from "@core/job/say";
import { daysTo, InspectionDay } from "~/ui/InspectionDay";
import { useEffect, useState } from "react";
import styled from "styled-components";
import type { PlannedWay } from "@core/clearing/plan";
import { clearPlan } from "@core/job/clear-plan";
import { countedOf, countedText, toCount } from "@core/clearing/counting";
import type { ClearWay, CostId } from "@core/pack/pack";
import { mayBePermanent } from "@core/proving/ready";
import { epochsOf } from "@core/job/epochs";
import { clock } from "~/store/clock";
import { lockOfStep, ownOf, type JobData } from "~/store/job-data";
import { useIntents, useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { Button, LinkButton } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { SystemChoice } from "~/ui/SystemChoice";
import { Choice } from "~/ui/Choice";
import { Bar, Caution, Empty, Mono, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { figures } from "~/ui/theme";
import type { JobIntents } from "~/store/job-intents";
import { IMMOBILISER, RADIO } from "~/ui/keep-alive";
import { ACTS, BEGIN } from "./acts";
import type { ClearIntents } from "./intents";
import { jobPath } from "~/store/paths";
import { Trouble } from "~/ui/Trouble";

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
  ${figures}
  font-size: clamp(3.4rem, 14vw, 6rem);
  font-weight: 700;
  line-height: 1;
`;

const ICONS: Record<CostId, typeof Clock> = {
  "radio-code": Radio,
  immobiliser: KeyRound,
  clock: Clock,
  "learned-idle": Settings2,
  readiness: TimerReset,
  time: TimerReset,
};

/** Locked until what is stored is written down; a clear that has begun goes on. */
export function ClearStep() {
  const data = useJob();
  const { job } = data;
  const lock = lockOfStep(data, "clear");
  if (lock)
    return (
      <Empty level={1} title={`The clear is locked: ${lock}.`}>
        <p>
          {job.handOver
            ? "Codes are the next workshop's best lead. Change that in the story if it is no longer so."
            : "What is wiped before it is written down is gone."}
        </p>
        <LinkButton $look="primary" to={jobPath(job.id, job.handOver ? "story" : "read")}>
          {job.handOver ? "To the story" : "To the reading"}
        </LinkButton>
      </Empty>
    );
  return job.clearing ? <Running /> : <Plan />;
}

/** Whether to clear, and the ways to do it with what each costs. */
function Plan() {
  const data = useJob();
  const { job, vehicle, access, judged } = data;
  const { send, problem } = useIntents<ClearIntents>("clear");
  const whole = useIntents<JobIntents>(null);
  const { school } = useSettings();
  const { known } = ownOf(data);
  const read = judged.systems.filter((s) => s.access.way.tells.kind !== "readiness");
  const plan = clearPlan(data, judged, access.system, { inspectionIn: daysTo(vehicle.inspection), school });
  const { tells, ways, advice } = plan;
  const costs = (id: CostId) => ways.some((w) => w.way.costs.some((c) => c.id === id));
  const name = lower(access.name);
  const counted = countedOf(job);
  return (
    <>
      <h1>{!tells ? `Read the ${name} first.` : ways.length ? advice.headline : `How to clear the ${name}`}</h1>
      <SystemChoice
        systems={read.map((s) => s.access)}
        value={access.system}
        onChange={(system) => whole.send({ intent: "system", system })}
      />
      {tells && ways.length > 0 && <p>{advice.reason}</p>}
      {tells && ways.length > 0 && advice.is === "look" && (
        <Row>
          <LinkButton $look="primary" to={jobPath(job.id, plan.whole ? "checks" : "read")}>
            {plan.whole ? "To the checks" : "Read it once more"}
          </LinkButton>
        </Row>
      )}
      {!tells && (
        <Caution>
          {known.answer === "not-read"
            ? `Nothing of the ${name} is recorded: read that first.`
            : `The ${name} was read, and nothing could be told from it: read once more.`}
        </Caution>
      )}
      {ways.length === 0 && (
        <Empty title={`This pack knows no way to clear the ${name}.`}>
          <p>
            {access.about.caution ?? "Look it up in the vehicle's own manual. What was read stays in the notebook."}
          </p>
        </Empty>
      )}
      {costs("radio-code") && (
        <Sheet>
          <Choice
            label="After a power cut, the radio"
            value={vehicle.radio === "not-asked" ? null : vehicle.radio}
            onChange={(radio) => send({ intent: "radio", radio })}
            options={RADIO}
          />
        </Sheet>
      )}
      {costs("immobiliser") && (
        <Sheet>
          <Choice
            label="After a power cut, the immobiliser"
            value={vehicle.immobiliser === "not-asked" ? null : vehicle.immobiliser}
            onChange={(immobiliser) => send({ intent: "immobiliser", immobiliser })}
            options={IMMOBILISER}
          />
        </Sheet>
      )}
      {costs("readiness") && (
        <Sheet>
          <InspectionDay
            because="Its monitors have to be complete by then"
            on={vehicle.inspection ?? ""}
            onTold={(on) => whole.send({ intent: "vehicle", inspection: on })}
          />
        </Sheet>
      )}
      {tells && ways.length > 0 && mayBePermanent(data.pack, vehicle) && (
        <Soft>
          From {data.pack.proving.permanentFrom} on this make has permanent codes: no clear wipes them. They go by
          themselves once the unit has seen that the fault is gone.
        </Soft>
      )}
      <Trouble problem={problem ?? whole.problem} />
      {counted && (
        <Row>
          <p>
            <strong>Wiping itself: {countedText(counted)}.</strong> Another clear can be done meanwhile.
          </p>
          <LinkButton to={jobPath(job.id, "prove")}>To the count</LinkButton>
        </Row>
      )}
      {ways.map((w, i) => (
        <PlannedWayCard
          key={w.way.id}
          planned={w}
          least={i === 0 && ways.length > 1}
          loud={advice.is === "clear" || advice.is === "nothing"}
          isCounted={counted !== null && w.way.id === job.counting?.way}
          left={leftToWipe(data, w.way)}
          onBegin={() =>
            send({
              intent: "begin",
              way: w.way.id,
              despite: w.gates.filter((g) => g.is === "ask").map((g) => g.reason),
            })
          }
        />
      ))}
      {job.clears.length > 0 && (
        <Row>
          <LinkButton to={jobPath(job.id, "prove")}>Already cleared: to the proof</LinkButton>
        </Row>
      )}
    </>
  );
}

/** Where each code is wiped alone: those of the last reading that are still to be wiped. */
function leftToWipe(data: JobData, way: PlannedWay["way"]): string[] {
  if (!way.each) return [];
  const epoch = epochsOf(data, way.system).at(-1)!;
  const last = epoch.told.findLast((t) => t.codes.length > 0);
  const since = data.job.clears.filter(
    (c) => c.system === way.system && c.code && last && c.at > last.reading.startedAt,
  );
  return (last?.codes ?? []).map((x) => x.code).filter((code) => !since.some((c) => c.code === code));
}

/** How long, or how often. */
function takes(way: ClearWay): string {
  const [{ seconds }, count] = [way, toCount(way)];
  if (count) return `${count.need} ${count.of}`;
  return seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}

function PlannedWayCard({
  planned: { way, gates, may },
  least,
  loud,
  isCounted,
  left,
  onBegin,
}: {
  planned: PlannedWay;
  /** It costs less than the others. */
  least: boolean;
  /** Nothing speaks against it: its button may be the loudest thing of the page. */
  loud: boolean;
  /** The unit is on its way to wipe itself like this. */
  isCounted: boolean;
  left: string[];
  onBegin: () => void;
}) {
  const asks = gates.filter((g) => g.is === "ask");
  const shut = gates.filter((g) => g.is === "shut");
  const begin = BEGIN[way.does];
  return (
    <Way aria-label={way.title}>
      <h2>
        {way.title}
        {least && <Soft as="span"> costs least</Soft>}
      </h2>
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
          <TimerReset size={20} aria-hidden /> <span>{takes(way)}</span>
        </li>
      </Costs>
      {way.caution && <Caution>{way.caution}</Caution>}
      <ol>
        {way.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      {way.each && left.length > 0 && (
        <p>
          Each code is wiped alone. Next: <Mono>{left[0]}</Mono>
          {left.length > 1 && `, then ${left.slice(1).join(", ")}`}.
        </p>
      )}
      {shut.map((g) => (
        <Row key={g.id}>
          <Lock size={20} aria-hidden />
          <p style={{ flex: "1 1 200px" }}>{g.reason}</p>
        </Row>
      ))}
      {asks.map((g) => (
        <Caution key={g.id}>{g.reason}</Caution>
      ))}
      <Row>
        {isCounted ? (
          <p>
            <strong>It is being counted.</strong>
          </p>
        ) : asks.length > 0 && may ? (
          <ConfirmButton
            label={begin}
            of={way.title}
            question="All the same?"
            sure={way.does === "count" ? "Yes, count from now" : "Yes, start the time"}
            keep="No"
            onConfirm={onBegin}
          />
        ) : (
          <Button $look={loud ? "primary" : "secondary"} isDisabled={!may} onPress={onBegin}>
            {begin}
          </Button>
        )}
      </Row>
    </Way>
  );
}

/** The countdown. It runs on through a reload, since the time of its start is stored. */
function Running() {
  const data = useJob();
  const { job, pack } = data;
  const { send, busy, problem } = useIntents<ClearIntents>("clear");
  const way = pack.clears.find((c) => c.id === job.clearing?.way);
  const startedAt = job.clearing ? Date.parse(job.clearing.startedAt) : 0;
  const [now, setNow] = useState(() => clock.now());
  useEffect(() => clock.every(200, () => setNow(clock.now())), []);
  if (!way || way.does === "count") return null;
  const code = leftToWipe(data, way)[0];
  const act = ACTS[way.does];
  const passed = Math.max(0, (now - startedAt) / 1000);
  const left = Math.max(0, Math.ceil(way.seconds - passed));
  return (
    <>
      <h1>{left > 0 ? act.running(left) : act.enough}</h1>
      <Sheet>
        <Dial role="timer" aria-label={`${left} seconds left`}>
          {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}
        </Dial>
        <Bar aria-hidden>
          <i style={{ width: `${Math.min(100, (100 * passed) / way.seconds)}%` }} />
        </Bar>
        <Soft>
          {way.title}. {act.aside} The next reading tells whether it wiped anything.
        </Soft>
        {!act.waits && (
          <ol>
            {way.steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
        )}
        {way.afterwards.length + (way.relearn?.length ?? 0) > 0 && (
          <Stack $gap={6}>
            <h3>Afterwards</h3>
            <ul>
              {(way.relearn ?? []).map((r) => (
                <li key={r.id}>{r.how}</li>
              ))}
              {way.afterwards.map((a) => (
                <li key={a}>{a}</li>
              ))}
            </ul>
          </Stack>
        )}
        <Row>
          <Button
            $look="primary"
            isDisabled={(act.waits && left > 0) || busy}
            onPress={() => send({ intent: "end", ...(way.each && code !== undefined && { code }) })}
          >
            {way.each && code ? act.doneOf(code) : act.done}
          </Button>
          <Button $look="quiet" onPress={() => send({ intent: "abandon" })}>
            Break off
          </Button>
        </Row>
        <Trouble problem={problem} />
      </Sheet>
    </>
  );
}
