import { useState } from "react";
import type { Pack } from "@core/pack/pack";
import type { SystemAccess } from "@core/pack/scope";
import type { Simulated, SimulatedAction } from "@core/simulated/state";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet, Soft, Stack } from "~/ui/bits";
import { ConnectorView } from "~/ui/connector/ConnectorView";

/** What is stuck into the connectors: a wire across two cavities, the leads of a pulse reader, or those of a serial adapter. */
export function Joined({
  v,
  pack,
  systems,
  doIt,
}: {
  v: Simulated;
  pack: Pack;
  systems: readonly SystemAccess[];
  doIt: (action: SimulatedAction) => void;
}) {
  const [connectorId, setConnector] = useState(pack.connectors[0].id);
  const [end, setEnd] = useState<string | null>(null);
  const [picked, setLead] = useState<string | null>(null);
  const connector = pack.connectors.find((c) => c.id === connectorId) ?? pack.connectors[0];
  const here = v.wire?.connector === connector.id ? v.wire : null;
  const asks = systems.map((s) => s.way.ask);
  const reader = asks.find((a) => a.kind === "reader");
  const lead = asks.find((a) => a.kind === "lead");
  const names = reader ? ["black", "signal"] : lead?.kind === "lead" ? lead.wires.map((w) => w.colour) : [];
  const leadOf = (name: string) => v.leads?.at[name] ?? null;
  const next = picked ?? names.find((n) => leadOf(n) === null) ?? names[0];
  const touch = (cavity: string) => {
    if (names.length) {
      setLead(null);
      doIt({
        do: "leads",
        leads: { connector: connector.id, fed: v.leads?.fed ?? false, at: { ...v.leads?.at, [next]: cavity } },
      });
      return;
    }
    if (v.wire) return;
    if (end === null) setEnd(cavity);
    else {
      doIt({ do: "wire", wire: { connector: connector.id, from: end, to: cavity } });
      setEnd(null);
    }
  };
  return (
    <Sheet data-wide>
      <h2>{names.length ? (reader ? "Pulse reader" : "Serial lead") : "Wire"}</h2>
      {pack.connectors.length > 1 && (
        <Choice
          label="Connector"
          value={connector.id}
          onChange={(id) => (setConnector(id), setEnd(null))}
          options={pack.connectors.map((c) => ({ value: c.id, label: `${c.colour}, ${c.cavities.length} cavities` }))}
        />
      )}
      {names.length > 0 && (
        <Choice
          label="Lead in hand"
          value={next}
          onChange={setLead}
          options={names.map((n) => ({ value: n, label: leadOf(n) ? `${n} (in ${leadOf(n)})` : n }))}
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
            <Button
              key={c.id}
              isDisabled={!names.length && Boolean(v.wire)}
              aria-pressed={end === c.id || Object.values(v.leads?.at ?? {}).includes(c.id)}
              onPress={() => touch(c.id)}
            >
              {c.id}
            </Button>
          ))}
          {reader && (
            <Button
              aria-pressed={v.leads?.fed ?? false}
              onPress={() =>
                doIt({ do: "leads", leads: { connector: connector.id, at: {}, ...v.leads, fed: !v.leads?.fed } })
              }
            >
              {v.leads?.fed ? "Red lead off the feed" : "Red lead on the feed"}
            </Button>
          )}
          <Button
            $look="quiet"
            isDisabled={!v.wire && !end && !v.leads}
            onPress={() => (
              setEnd(null),
              doIt(names.length ? { do: "leads", leads: null } : { do: "wire", wire: null })
            )}
          >
            {names.length ? "Pull all leads out" : "Pull the wire out"}
          </Button>
        </Row>
        <Soft aria-live="polite">
          {names.length
            ? names.map((n) => `${n}: ${leadOf(n) ?? "loose"}`).join(", ")
            : v.wire
              ? `The wire joins ${v.wire.from} and ${v.wire.to}.`
              : end
                ? `One end is in ${end}. Pick the other cavity.`
                : "No wire is in. Pick two cavities."}
        </Soft>
      </Stack>
    </Sheet>
  );
}
