import { Printer } from "lucide-react";
import { useEffect, useState } from "react";
import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import type { SystemAccess } from "@core/pack/scope";
import styled from "styled-components";
import { tellsFrom, type Way } from "@core/pack/way";
import { bridgeEffect, leadsEffect } from "@core/procedure/bridge";
import { lockOfStep, type JobData } from "~/store/job-data";
import { useAwake } from "~/store/use-awake";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Caution, Empty, Kbd, Mono, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { Assumed } from "~/ui/Assumed";
import { SimulatedLink } from "~/ui/SimulatedLink";
import { StepTimer } from "~/ui/StepTimer";
import { middle, mono, wide } from "~/ui/theme";
import { Causes } from "./Causes";
import { Wiring } from "./Wiring";
import type { JobIntents } from "~/store/job-intents";
import type { HookUpIntents } from "./intents";
import { jobPath, sheetPath } from "~/store/paths";
import { Trouble } from "~/ui/Trouble";

const Columns = styled.div`
  display: grid;
  gap: 16px 24px;
  align-items: start;
  ${wide} {
    grid-template-columns: minmax(0, 1fr) 250px;
  }
`;

const Runner = styled(Sheet)`
  border: 2px solid var(--line);
  ${middle} {
    grid-template-columns: auto 1fr auto;
    align-items: center;
    gap: 20px;
  }
`;

const Count = styled.p`
  ${mono}
  font-size: 2.2rem;
  font-weight: 700;
  line-height: 1;
  small {
    font-size: 0.75rem;
    font-weight: 400;
    color: var(--ink-soft);
    margin-left: 6px;
  }
`;

const Why = styled(Disclosure)`
  button {
    text-align: left;
  }
  ol {
    list-style: decimal;
    padding: 8px 0 0 1.4em;
    display: grid;
    gap: 8px;
  }
`;

const KEY_WORDS = { off: "Key off.", on: "Key on, engine off.", run: "Engine runs.", any: "" };

/** The work of this way in one sentence, for the step that is open. */
function headline(way: Way, step: Way["steps"][number]): string {
  const { ask } = way;
  const key =
    step.key === "on" ? "Key on now." : step.key !== "run" ? "Key off first." : step.wire === "in" ? "Start it." : "";
  switch (ask.kind) {
    case "bridge": {
      const [a, b] = ask.bridge;
      return `${step.wire === "in" ? `Join ${a} and ${b}.` : `You will join ${a} and ${b}.`} ${key}`;
    }
    case "reader":
      return step.wire === "in"
        ? `Reader on ${ask.ground} and ${ask.signal}. ${key}`
        : `The reader goes on ${ask.ground} and ${ask.signal}. ${key}`;
    case "lead":
      return `The lead goes on ${ask.wires.map((w) => w.cavity).join(", ")}. ${key}`;
    case "key-cycle":
      return `Key on ${ask.times} times within ${ask.withinSeconds} s. No wire.`;
    case "buttons":
      return `Hold ${ask.buttons.join(" and ")}. No wire.`;
    case "unit-button":
      return "The unit has its own button and LED. No wire needed.";
    case "key-on":
      return "Key on, and watch. No wire.";
  }
}

/** What this hook-up does, from the same rules that judge a wrong one. */
function effectOf({ access: { way, connector } }: JobData): string | null {
  const { ask } = way;
  if (!connector) return null;
  if (ask.kind === "bridge") return bridgeEffect(connector, way, ...ask.bridge).why;
  if (ask.kind === "reader") return leadsEffect(connector, way, ask.ground, ask.signal).why;
  return null;
}

/** Find the connector, look at the right side, join the right cavities; one step at a time, by button or Enter. */
export function HookUp() {
  const data = useJob();
  const { job, vehicle, access, systems } = data;
  const { send, busy, problem } = useIntents<HookUpIntents>("hook-up");
  const whole = useIntents<JobIntents>(null);
  const { way, connector } = access;
  useAwake();
  const [ready, setReady] = useState<string[]>([]);
  const lock = lockOfStep(data, "hook-up");
  // What the lamp tells after the rest is watched on the page of the reading, so that nothing of it is lost.
  const steps = way.steps.slice(0, Math.max(1, tellsFrom(way)));
  const at = Math.min(job.hookUpStep, steps.length - 1);
  const step = steps[at];
  const last = at === steps.length - 1;
  // What the steps themselves bring about is not asked before them.
  const asked = way.preconditions.filter(
    (p) => !steps.some((x) => x.timer?.kind === "warm-up") || !/temperature|warm/i.test(p),
  );
  const missing = asked.filter((p) => !ready.includes(p));
  const waits = at === 0 && missing.length > 0;
  const next = () => {
    if (!waits && !busy) send({ intent: "hook-up", step: last ? at : at + 1, done: last });
  };
  useEnter(next, lock === null);
  if (lock)
    return (
      <Empty level={1} title={`The hook-up is closed: ${lock}.`}>
        <p>Only a unit that passes the lamp check is worth asking for codes.</p>
        <LinkButton $look="primary" to={jobPath(job.id, "lamp-check")}>
          To the lamp check
        </LinkButton>
      </Empty>
    );
  const effect = effectOf(data);
  const sure = steps.length < way.steps.length ? "Ready: on to the reading" : "On to the reading";
  return (
    <>
      <h1>{headline(way, step)}</h1>
      <SystemChoice
        systems={systems}
        value={access.system}
        onChange={(system) => whole.send({ intent: "system", system })}
      />
      <Trouble problem={problem ?? whole.problem} />
      <Assumed pack={data.pack} way={way} parts={connector ? ["way", "plug"] : ["way"]} />
      {access.about.caution && <Caution>{access.about.caution}</Caution>}
      {at === 0 && (
        <Sheet>
          <Choices label="Before you begin" options={asked} value={ready} onChange={setReady} />
        </Sheet>
      )}
      <Runner aria-live="polite">
        <Count>
          {at + 1}
          <small>of {steps.length}</small>
        </Count>
        <div style={{ display: "grid", gap: 8 }}>
          <h2 data-step>{step.title}</h2>
          <p>{step.text}</p>
          {step.timer && (
            <StepTimer
              key={step.id}
              step={step}
              timer={step.timer}
              startedAt={job.stepTimer?.step === step.id ? job.stepTimer.startedAt : null}
            />
          )}
          {waits && <Soft>Tick what is above first.</Soft>}
          {!step.id.startsWith("key") && KEY_WORDS[step.key] && <Soft>{KEY_WORDS[step.key]}</Soft>}
        </div>
        <Row>
          <Button isDisabled={at === 0} onPress={() => send({ intent: "hook-up", step: at - 1, done: false })}>
            Back
          </Button>
          <Button $look="primary" isDisabled={waits || busy} onPress={next}>
            {last ? sure : step.id === "wire" ? "Wire is in" : "Done"} <Kbd>Enter</Kbd>
          </Button>
        </Row>
      </Runner>
      <Columns>
        {connector ? (
          <Wiring
            key={way.id}
            connector={connector}
            way={way}
            shown={step.wire === "in" || way.ask.kind !== "bridge"}
          />
        ) : (
          <Sheet>
            <h2>{way.title}</h2>
            {"where" in way.ask && <p>{way.ask.where}</p>}
          </Sheet>
        )}
        <Stack>
          <About access={access} effect={effect} />
          {step.caution && <Caution>{step.caution}</Caution>}
          <LinkButton $look="quiet" to={sheetPath(job.id)} style={{ justifySelf: "start", marginInlineStart: -14 }}>
            <Printer size={18} aria-hidden /> Hook-up sheet to print
          </LinkButton>
          <SimulatedLink vehicle={vehicle} />
        </Stack>
      </Columns>
      {(last || step.wire === "in") && (
        <Why>
          <Button slot="trigger" $look="quiet">
            Nothing happens?
          </Button>
          <DisclosurePanel>
            <Causes way={way} ruledOut={job.ruledOut?.[way.id] ?? []} />
          </DisclosurePanel>
        </Why>
      )}
      <Soft>
        Method {way.method} · {way.title}
      </Soft>
    </>
  );
}

/** Enter goes on, wherever the focus is, unless it has something else to do there. */
function useEnter(next: () => void, on: boolean): void {
  useEffect(() => {
    if (!on) return;
    const onKey = (e: KeyboardEvent) => {
      if (
        e.key !== "Enter" ||
        e.defaultPrevented ||
        (e.target as HTMLElement).closest("button, a, textarea, [role=tab], input:not([type=checkbox])")
      )
        return;
      next();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  });
}

/** What is joined, and what that does. */
function About({ access: { way }, effect }: { access: SystemAccess; effect: string | null }) {
  return (
    <>
      {effect && (
        <>
          <h2>{way.ask.kind === "bridge" ? "What the right wire does" : "What this does"}</h2>
          <p>{effect}</p>
        </>
      )}
      {way.ask.kind === "reader" && <p>Red lead: {way.ask.feed}.</p>}
      {way.ask.kind === "lead" && (
        <>
          <h2>The lead</h2>
          <ul>
            {way.ask.wires.map((w) => (
              <li key={w.cavity}>
                <Mono>{w.cavity}</Mono>: {w.colour}, to {w.to}
              </li>
            ))}
          </ul>
          <p>{way.ask.insulate}</p>
        </>
      )}
    </>
  );
}
