import { Printer } from "lucide-react";
import styled, { createGlobalStyle } from "styled-components";
import type { Pack } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { connectorIdOf, leadsOf } from "@core/pack/way";
import { makePath } from "~/store/paths";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Mono, Row, Soft } from "~/ui/bits";
import { ConnectorView } from "~/ui/connector/ConnectorView";

const PageStyle = createGlobalStyle`
  @media print {
    @page { size: A4; margin: 12mm; }
    html { font-size: 11px; }
    [data-screen] { display: none !important; }
  }
`;

const Paper = styled.main`
  display: grid;
  gap: 14px;
  max-width: 860px;
  margin: 0 auto;
  padding: 20px 16px 40px;
  section {
    display: grid;
    gap: 6px;
    break-inside: avoid;
  }
  figure {
    max-width: 320px;
  }
  ol {
    list-style: decimal;
    padding-left: 1.4em;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 3px 8px;
    border-bottom: 1px solid var(--line);
    text-align: left;
    vertical-align: top;
  }
`;

/** One page to print: the plug, the steps, and what the codes mean. */
export function GlovePage({ pack }: { pack: Pack }) {
  return (
    <Paper id="work">
      <PageStyle />
      <Row data-screen>
        <Button $look="primary" onPress={() => window.print()}>
          <Printer size={20} aria-hidden /> Print this page
        </Button>
        <LinkButton to={makePath(pack.id)}>Back to the make</LinkButton>
      </Row>
      <h1>{pack.title}</h1>
      <Soft>{pack.source}</Soft>
      {pack.own?.note && <p>{pack.own.note}</p>}
      {pack.ways.map((way) => {
        const connector = pack.connectors.find((c) => c.id === connectorIdOf(way));
        const cautions = [...new Set(way.steps.flatMap((s) => s.caution ?? []))];
        return (
          <section key={way.id}>
            <h2>{way.title}</h2>
            {connector && (
              <>
                <ConnectorView
                  connector={connector}
                  side="socket"
                  wire={way.ask.kind === "bridge" ? way.ask.bridge : null}
                  leads={leadsOf(way)}
                />
                <p>{connector.where} Looking into the socket.</p>
              </>
            )}
            {cautions.map((c) => (
              <Caution key={c}>{c}</Caution>
            ))}
            <ol>
              {way.steps.map((s) => (
                <li key={s.id}>
                  <strong>{s.title}.</strong> {s.text}
                </li>
              ))}
            </ol>
          </section>
        );
      })}
      {pack.tables.map((t) => (
        <section key={t.id} style={{ breakInside: "auto" }}>
          <h2>{pack.systems.find((s) => s.id === t.system)?.name ?? t.system}</h2>
          <table>
            <thead>
              <tr>
                <th scope="col">Code</th>
                <th scope="col">Meaning</th>
                <th scope="col">Set when, and where to look</th>
              </tr>
            </thead>
            <tbody>
              {t.entries.map((e) => (
                <tr key={`${e.code} ${JSON.stringify(e.scope ?? t.scope)}`}>
                  <td>
                    <Mono>{e.code}</Mono>
                  </td>
                  <td>
                    {e.title}
                    {(e.scope ?? t.scope) && <Soft>{scopeText(e.scope ?? t.scope)}</Soft>}
                  </td>
                  <td>{[e.sets, ...e.lookFirst].filter(Boolean).join(" ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </Paper>
  );
}
