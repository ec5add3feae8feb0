import { useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import styled from "styled-components";
import type { Connector } from "@core/pack/pack";
import { leadsOf, type Way } from "@core/pack/way";
import { bridgeEffect, isForbidden, type BridgeEffect } from "@core/procedure/bridge";
import { Button } from "~/ui/Button";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { ConnectorView, type Side } from "~/ui/connector/ConnectorView";

const Sides = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
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

const NOTCH = { top: "up", bottom: "down", left: "left", right: "right", none: "none" };
const KIND_WORDS: Record<BridgeEffect["kind"], string> = {
  right: "Right",
  nothing: "Nothing would happen",
  "other-system": "Another unit would answer",
  danger: "Danger",
};

/** The connector from both sides, with what goes into it; a wire can be tried on the drawing before it is tried on the vehicle. */
export function Wiring({ connector, way, shown }: { connector: Connector; way: Way; shown: boolean }) {
  const [side, setSide] = useState<Side>("socket");
  const [zoom, setZoom] = useState(1);
  const [tries, setTries] = useState(false);
  const [tried, setTried] = useState<[string, string] | null>(null);
  const [end, setEnd] = useState<string | null>(null);
  const never = connector.cavities.filter((c) => isForbidden(connector, c.id)).map((c) => c.id);
  const bridge = way.ask.kind === "bridge" && shown ? way.ask.bridge : null;
  const effect = tried && bridgeEffect(connector, way, ...tried);
  const touch = (cavity: string) => {
    if (end === null || end === cavity) return setEnd(end === null ? cavity : null);
    setTried([end, cavity]);
    setEnd(null);
  };
  return (
    <Tabs selectedKey={side} onSelectionChange={(k) => setSide(k as Side)}>
      <Sides aria-label="Side of the connector">
        <SideTab id="socket">Looking into the socket</SideTab>
        <SideTab id="wire">From the wire side</SideTab>
      </Sides>
      {(["socket", "wire"] as const).map((s) => (
        <TabPanel key={s} id={s} style={{ paddingTop: 10 }}>
          <ConnectorView
            connector={connector}
            side={s}
            zoom={zoom}
            wire={tries ? tried : bridge}
            {...(!tries && shown ? { leads: leadsOf(way) } : {})}
            {...(tries ? { onWire: (a: string, b: string) => (setTried([a, b]), setEnd(null)) } : {})}
          />
        </TabPanel>
      ))}
      {tries && (
        <div aria-live="polite">
          {effect && tried ? (
            effect.kind === "danger" ? (
              <Caution>
                <strong>
                  {tried.join(" and ")}: {KIND_WORDS[effect.kind]}.
                </strong>{" "}
                {effect.why}
              </Caution>
            ) : (
              <p>
                <strong>
                  {tried.join(" and ")}: {KIND_WORDS[effect.kind]}.
                </strong>{" "}
                {effect.why}
              </p>
            )
          ) : (
            <Soft>{end ? `One end is in ${end}.` : "No wire is tried yet."}</Soft>
          )}
        </div>
      )}
      <Soft>
        {connector.where} Notch {NOTCH[connector.notch]}.{" "}
        {never.length > 0 && <>Hatched ({never.join(", ")}): never.</>}
      </Soft>
      {connector.orElse?.map((o) => (
        <Soft key={o}>{o}</Soft>
      ))}
      {connector.lookAlike && <Caution>{connector.lookAlike}</Caution>}
      <Row style={{ marginTop: 8 }}>
        <Row $gap={4} role="group" aria-label="Size of the drawing">
          <Button $look="quiet" isDisabled={zoom <= 1} onPress={() => setZoom(zoom - 0.5)} aria-label="Smaller">
            −
          </Button>
          <Button $look="quiet" isDisabled={zoom >= 3} onPress={() => setZoom(zoom + 0.5)} aria-label="Larger">
            +
          </Button>
        </Row>
        {way.ask.kind === "bridge" && (
          <Button aria-pressed={tries} onPress={() => (setTries(!tries), setTried(null), setEnd(null))}>
            {tries ? "Back to the right wire" : "What would another wire do?"}
          </Button>
        )}
      </Row>
      {tries && (
        <Sheet style={{ marginTop: 8 }}>
          <Soft>Drag from cavity to cavity on the drawing, or pick two here. Nothing is harmed on paper.</Soft>
          <Row role="group" aria-label="Cavities to try" $gap={6}>
            {connector.cavities.map((c) => (
              <Button
                key={c.id}
                aria-pressed={end === c.id || Boolean(tried?.includes(c.id))}
                onPress={() => touch(c.id)}
              >
                {c.id}
              </Button>
            ))}
          </Row>
        </Sheet>
      )}
    </Tabs>
  );
}
