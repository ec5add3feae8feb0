import { ExternalLink } from "lucide-react";
import { useEffect, useState } from "react";
import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import styled from "styled-components";
import { bridgeEffect, isForbidden } from "@core/procedure/bridge";
import { lockOf } from "@core/record/job";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Caution, Empty, Kbd, Mono, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { ConnectorView, type Side } from "~/ui/connector/ConnectorView";
import { SystemChoice } from "~/ui/SystemChoice";
import { middle, mono, wide } from "~/ui/theme";

const Columns = styled.div`
  display: grid;
  gap: 16px 24px;
  align-items: start;
  ${wide} {
    grid-template-columns: minmax(0, 1fr) 250px;
  }
`;

const Sides = styled(TabList)`
  display: flex;
  gap: 4px;
`;

const SideTab = styled(Tab)`
  display: flex;
  align-items: center;
  min-height: 48px;
  padding: 0 14px;
  font-weight: 700;
  color: var(--ink-soft);
  border-bottom: 3px solid transparent;
  cursor: pointer;
  &[data-selected] {
    color: var(--ink);
    border-bottom-color: var(--ink);
  }
`;

const Runner = styled(Sheet)<{ $sticks: boolean }>`
  position: ${({ $sticks }) => ($sticks ? "sticky" : "static")};
  bottom: 0;
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

const NOTCH = { top: "up", bottom: "down", left: "left", right: "right", none: "none" };

/** Find the connector, look at the right side, join the right cavities; one step at a time, by button or Enter. */
export function HookUp() {
  const { job, vehicle, readings, access, systems } = useJob();
  const { send, busy } = useJobAction();
  const { way, connector } = access;
  const [side, setSide] = useState<Side>("socket");
  const [ready, setReady] = useState<string[]>([]);
  const lock = lockOf(job, readings, "hook-up");
  const steps = way.steps;
  const at = Math.min(job.hookUpStep, steps.length - 1);
  const step = steps[at];
  const last = at === steps.length - 1;
  const missing = way.preconditions.filter((p) => !ready.includes(p));
  const waits = at === 0 && missing.length > 0;
  const next = () => {
    if (!waits && !busy) send({ intent: "hook-up", step: last ? at : at + 1, done: last });
  };
  useEffect(() => {
    if (lock) return;
    const onKey = (e: KeyboardEvent) => {
      if (
        e.key !== "Enter" ||
        e.defaultPrevented ||
        (e.target as HTMLElement).closest("button, a, input, textarea, label, [role=tab]")
      )
        return;
      next();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  });
  if (lock)
    return (
      <Empty level={1} title={`The hook-up is closed: ${lock}.`}>
        <p>Only a unit that passes the lamp check is worth asking for codes.</p>
        <LinkButton $look="primary" to={`/jobs/${job.id}/lamp-check`}>
          To the lamp check
        </LinkButton>
      </Empty>
    );
  const [a, b] = way.bridge;
  const effect = bridgeEffect(connector, way, a, b);
  const never = connector.cavities.filter((c) => isForbidden(connector, c.id)).map((c) => c.id);
  const wireIn = step.wire === "in";
  return (
    <>
      <h1>
        {wireIn ? `Join ${a} and ${b}.` : `You will join ${a} and ${b}.`}{" "}
        {step.key === "on" ? "Key on now." : "Key off first."}
      </h1>
      <SystemChoice systems={systems} value={access.system} onChange={(system) => send({ intent: "system", system })} />
      {at === 0 && (
        <Sheet>
          <Choices label="Before you begin" options={way.preconditions} value={ready} onChange={setReady} />
        </Sheet>
      )}
      <Columns>
        <Tabs selectedKey={side} onSelectionChange={(k) => setSide(k as Side)}>
          <Sides aria-label="Side of the connector">
            <SideTab id="socket">Looking into the socket</SideTab>
            <SideTab id="wire">From the wire side</SideTab>
          </Sides>
          {(["socket", "wire"] as const).map((s) => (
            <TabPanel key={s} id={s} style={{ paddingTop: 10 }}>
              <ConnectorView connector={connector} side={s} wire={wireIn ? way.bridge : null} />
            </TabPanel>
          ))}
          <Soft>
            {connector.where} Notch {NOTCH[connector.notch]}.{" "}
            {never.length > 0 && <>Hatched ({never.join(", ")}): never.</>}
          </Soft>
        </Tabs>
        <Stack>
          <h2>What this wire does</h2>
          <p>{effect.why}</p>
          {step.caution && <Caution>{step.caution}</Caution>}
          {vehicle.id.startsWith("demo-") && (
            <p>
              <a
                href={`/simulated/${vehicle.id}`}
                target={`klinko-simulated-${vehicle.id}`}
                rel="opener"
                style={{ display: "inline-flex", gap: 8, minHeight: 48, alignItems: "center" }}
              >
                Open the simulated vehicle <ExternalLink size={18} aria-hidden />
              </a>
            </p>
          )}
        </Stack>
      </Columns>
      <Runner aria-live="polite" $sticks={!waits}>
        <Count>
          {at + 1}
          <small>of {steps.length}</small>
        </Count>
        <div>
          <h2>{step.title}</h2>
          <p>{step.text}</p>
          {waits && <Soft>Tick what is above first.</Soft>}
        </div>
        <Row>
          <Button isDisabled={at === 0} onPress={() => send({ intent: "hook-up", step: at - 1, done: false })}>
            Back
          </Button>
          <Button $look="primary" isDisabled={waits || busy} onPress={next}>
            {last ? "It blinks: read it" : step.id === "wire" ? "Wire is in" : "Done"} <Kbd>Enter</Kbd>
          </Button>
        </Row>
      </Runner>
      {last && (
        <Why>
          <Button slot="trigger" $look="quiet">
            Nothing happens?
          </Button>
          <DisclosurePanel>
            <ol>
              {way.nothingHappens.map((n) => (
                <li key={n}>{n}</li>
              ))}
            </ol>
          </DisclosurePanel>
        </Why>
      )}
      <Soft>
        Method {way.method} · dialect <Mono>{way.dialect}</Mono>
      </Soft>
    </>
  );
}
