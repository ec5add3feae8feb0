import { Printer } from "lucide-react";
import styled, { createGlobalStyle } from "styled-components";
import type { JobData } from "~/store/job-data";
import { leadsOf } from "@core/pack/way";
import { vehicleName } from "~/store/vehicle-name";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Plate, Row } from "~/ui/bits";
import { ConnectorView } from "~/ui/connector/ConnectorView";
import { jobPath } from "~/store/paths";

/** One A4 page; on the screen it stands as it will come out. */
const PaperStyle = createGlobalStyle`
  @page { size: A4; margin: 12mm; }
  @media print {
    :root { --paper: #fff; --sheet: #fff; --ink: #000; --ink-soft: #333; --rule: #bbb; --line: #888; --petrol: #000; --danger: #900; --danger-tint: #fff; font-size: 11.5px !important; }
    html { font-size: 11.5px; }
    [data-screen] { display: none !important; }
  }
`;

const Paper = styled.main`
  max-width: 186mm;
  margin: 16px auto;
  padding: 12mm;
  display: grid;
  gap: 12px;
  background: var(--sheet);
  border: 1px solid var(--line);
  @media print {
    margin: 0;
    padding: 0;
    border: 0;
    max-width: none;
  }
  ol,
  ul {
    padding-left: 1.4em;
    display: grid;
    gap: 4px;
  }
  ol {
    list-style: decimal;
  }
  ul[data-boxes] {
    padding: 0;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 240px), 1fr));
    li::before {
      content: "";
      display: inline-block;
      width: 0.8em;
      height: 0.8em;
      margin-right: 0.5em;
      border: 1.5px solid var(--ink);
    }
  }
  figure {
    max-width: 300px;
  }
  section {
    display: grid;
    gap: 6px;
    break-inside: avoid;
  }
`;

const Two = styled.div`
  display: grid;
  gap: 12px 20px;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 240px), 1fr));
  align-items: start;
`;

const Blank = styled.div`
  display: grid;
  gap: 22px;
  padding-top: 18px;
  i {
    border-bottom: 1px solid var(--ink-soft);
  }
`;

/** The hook-up on one page: what to join, seen from both sides, the steps, and room to write the counts. */
export function HookUpSheet({ data: { job, vehicle, access } }: { data: JobData }) {
  const { way, connector } = access;
  const wire = way.ask.kind === "bridge" ? way.ask.bridge : null;
  const cautions = [...new Set([access.about.caution, ...way.steps.map((s) => s.caution)].filter(Boolean))];
  return (
    <Paper id="work">
      <PaperStyle />
      <Row data-screen>
        <Button $look="primary" onPress={() => window.print()}>
          <Printer size={20} aria-hidden /> Print this page
        </Button>
        <LinkButton to={jobPath(job.id, "hook-up")}>Back to the hook-up</LinkButton>
      </Row>
      <Row>
        <Plate>{vehicle.plate}</Plate>
        <h1>{way.title}</h1>
      </Row>
      <p>
        {vehicleName(vehicle)}, {vehicle.year} · {access.name} ({access.unit}) · watch: {access.lamp}
      </p>
      {connector && (
        <Two>
          {(["socket", "wire"] as const).map((side) => (
            <section key={side}>
              <h2>{side === "socket" ? "Looking into the socket" : "From the wire side (mirrored)"}</h2>
              <ConnectorView connector={connector} side={side} wire={wire} leads={leadsOf(way)} />
            </section>
          ))}
        </Two>
      )}
      {connector && <p>{connector.where}</p>}
      {"where" in way.ask && <p>{way.ask.where}</p>}
      {cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <Two>
        <section>
          <h2>Before you begin</h2>
          <ul data-boxes>
            {way.preconditions.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
          <h2>Steps</h2>
          <ol>
            {way.steps.map((s) => (
              <li key={s.id}>
                <strong>{s.title}.</strong> {s.text} {s.timer && `(${s.timer.seconds} s)`}
              </li>
            ))}
          </ol>
        </section>
        <section>
          <h2>Nothing happens?</h2>
          <ol>
            {way.nothingHappens.slice(0, 5).map((c) => (
              <li key={c.id}>
                {c.text} {c.look}
              </li>
            ))}
          </ol>
          <h2>Seen</h2>
          <Blank aria-hidden>
            <i />
            <i />
            <i />
          </Blank>
        </section>
      </Two>
    </Paper>
  );
}
