import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import type { Pack } from "@core/pack/pack";
import { systemsOf } from "@core/pack/scope";
import type { Vehicle } from "@core/record/types";
import { act, lampOf, type Simulated, type SimulatedAction } from "@core/simulated/vehicle";
import { writeValue } from "~/store/db";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Caution, Plate, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { ConnectorView } from "~/ui/connector/ConnectorView";
import { middle, mono } from "~/ui/theme";
import { useLamp } from "./use-lamp";

const Page = styled.main`
  display: grid;
  gap: 16px;
  padding: 16px clamp(12px, 2vw, 24px) 32px;
  max-width: 1100px;
  margin: 0 auto;
  ${middle} {
    grid-template-columns: 1fr 1fr;
    > header,
    > :nth-child(2) {
      grid-column: 1 / -1;
    }
  }
`;

const Dash = styled.section`
  display: flex;
  gap: 20px;
  justify-content: center;
  padding: 26px 16px 18px;
  border-radius: 40px 40px 12px 12px;
  background: var(--band);
`;

const Lamp = styled.div`
  display: grid;
  justify-items: center;
  gap: 10px;
  width: min(150px, 38vw);
  ${mono}
  font-size: 0.7rem;
  color: #aebbc2;
  text-align: center;
  i {
    width: 58px;
    height: 36px;
    border-radius: 18px;
    background: #222c33;
    border: 2px solid #3a4a53;
  }
  &[data-lit="yes"] i {
    background: var(--lit);
    border-color: var(--lit);
    box-shadow: 0 0 26px 6px var(--lit-glow);
  }
`;

/**
 * A vehicle to try things on: a key, connectors and a wire, lamps, fuse, battery and road. It tells nothing but what a
 * real one would tell.
 */
export function SimulatedVehicle({
  vehicle,
  pack,
  name,
  state: first,
}: {
  vehicle: Vehicle;
  pack: Pack;
  name: string;
  state: Simulated;
}) {
  const [v, setV] = useState(first);
  const [connectorId, setConnector] = useState(pack.connectors[0].id);
  const [end, setEnd] = useState<string | null>(null);
  const [driving, setDriving] = useState(false);
  const systems = useMemo(() => systemsOf(pack, vehicle), [pack, vehicle]);
  const connector = pack.connectors.find((c) => c.id === connectorId) ?? pack.connectors[0];
  const doIt = (action: SimulatedAction) => setV((s) => act(s, action, pack, Date.now()));
  useEffect(() => {
    void writeValue(`simulated/${vehicle.id}`, v);
  }, [v, vehicle.id]);
  useEffect(() => {
    if (!driving) return;
    const timer = setTimeout(() => {
      doIt({ do: "drive" });
      setDriving(false);
    }, 4000);
    return () => clearTimeout(timer);
  });
  const touch = (cavity: string) => {
    if (v.wire) return;
    if (end === null) setEnd(cavity);
    else {
      doIt({ do: "wire", wire: { connector: connector.id, from: end, to: cavity } });
      setEnd(null);
    }
  };
  const here = v.wire?.connector === connector.id ? v.wire : null;
  return (
    <Page id="work">
      <header>
        <Row>
          <Plate>{vehicle.plate}</Plate>
          <h1>Simulated {name}</h1>
        </Row>
        <Soft>
          Stands in for the real thing: it does what its key, wire and fuses make it do, and tells nothing else.
        </Soft>
      </header>
      <Dash aria-label="Instruments">
        {systems.map((s) => (
          <OneLamp key={s.system} v={v} pack={pack} vehicle={vehicle} system={s.system} label={s.lamp} />
        ))}
      </Dash>
      <Sheet>
        <Choice
          label="Key"
          value={v.key}
          isDisabled={driving}
          onChange={(to) => doIt({ do: "key", to })}
          options={[
            { value: "off", label: "Off" },
            { value: "on", label: "On, engine off" },
          ]}
        />
        <Row>
          <Button isDisabled={driving || Boolean(v.wire)} onPress={() => setDriving(true)}>
            {driving ? "Driving …" : "Drive for twenty minutes"}
          </Button>
          {v.wire && <Soft>Not with a wire in the connector.</Soft>}
        </Row>
      </Sheet>
      <Sheet>
        <h2>Power</h2>
        <Row>
          <Button aria-pressed={v.fuseOutAt !== null} onPress={() => doIt({ do: "fuse", out: v.fuseOutAt === null })}>
            {v.fuseOutAt === null ? "Pull the memory fuse" : "Put the memory fuse back"}
          </Button>
          <Button
            aria-pressed={v.batteryOffAt !== null}
            onPress={() => doIt({ do: "battery", off: v.batteryOffAt === null })}
          >
            {v.batteryOffAt === null ? "Battery negative off" : "Battery negative on"}
          </Button>
          {v.blown && <Button onPress={() => doIt({ do: "new-fuse" })}>Fit a new unit fuse</Button>}
        </Row>
        {v.fuseOutAt !== null && <Since at={v.fuseOutAt} what="The fuse is out" />}
        {v.batteryOffAt !== null && <Since at={v.batteryOffAt} what="The battery is off" />}
        {v.blown && <Caution>There was a spark at the connector, and all is dark.</Caution>}
      </Sheet>
      <Sheet style={{ gridColumn: "1 / -1" }}>
        <h2>Wire</h2>
        {pack.connectors.length > 1 && (
          <Choice
            label="Connector"
            value={connector.id}
            onChange={(id) => (setConnector(id), setEnd(null))}
            options={pack.connectors.map((c) => ({ value: c.id, label: `${c.colour}, ${c.cavities.length} cavities` }))}
          />
        )}
        <Stack>
          <ConnectorView
            connector={connector}
            side="socket"
            wire={here ? [here.from, here.to] : null}
            bare
            onCavity={touch}
          />
          <Row role="group" aria-label="Cavities">
            {connector.cavities.map((c) => (
              <Button key={c.id} isDisabled={Boolean(v.wire)} aria-pressed={end === c.id} onPress={() => touch(c.id)}>
                {c.id}
              </Button>
            ))}
            <Button
              $look="quiet"
              isDisabled={!v.wire && !end}
              onPress={() => (setEnd(null), doIt({ do: "wire", wire: null }))}
            >
              Pull the wire out
            </Button>
          </Row>
          <Soft aria-live="polite">
            {v.wire
              ? `The wire joins ${v.wire.from} and ${v.wire.to}.`
              : end
                ? `One end is in ${end}. Pick the other cavity.`
                : "No wire is in. Pick two cavities."}
          </Soft>
        </Stack>
      </Sheet>
    </Page>
  );
}

function OneLamp({
  v,
  pack,
  vehicle,
  system,
  label,
}: {
  v: Simulated;
  pack: Pack;
  vehicle: Vehicle;
  system: string;
  label: string;
}) {
  const lamp = useMemo(() => lampOf(v, pack, vehicle, system), [v, pack, vehicle, system]);
  const lit = useLamp(lamp);
  return (
    <Lamp data-lit={lit ? "yes" : "no"} data-system={system} role="img" aria-label={`${label} lamp`}>
      <i />
      {label}
    </Lamp>
  );
}

function Since({ at, what }: { at: number; what: string }) {
  const [now, setNow] = useState(at);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return (
    <p role="timer">
      {what} for {Math.max(0, Math.floor((now - at) / 1000))} s.
    </p>
  );
}
