import { assumedOf } from "@core/pack/assumed";
import { namesBy } from "@core/pack/make/parts";
import type { Pack } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { connectorIdOf, leadsOf } from "@core/pack/way";
import { makePath } from "~/store/paths";
import { LinkButton } from "~/ui/Button";
import { Caution, Mono, Soft } from "~/ui/bits";
import { Paper } from "~/ui/Paper";
import { ConnectorView } from "~/ui/connector/ConnectorView";

/** One page to print: the plug, the steps, and what the codes mean. */
export function GlovePage({ pack }: { pack: Pack }) {
  return (
    <Paper more={<LinkButton to={makePath(pack.id)}>Back to the make</LinkButton>}>
      <h1>{pack.title}</h1>
      <Soft>{pack.source}</Soft>
      {pack.own?.note && <p>{pack.own.note}</p>}
      {pack.ways.map((way) => {
        const connector = pack.connectors.find((c) => c.id === connectorIdOf(way));
        const cautions = [...new Set(way.steps.flatMap((s) => s.caution ?? []))];
        const open = connector && assumedOf(pack, way).includes("plug");
        const several = pack.systems.length > 1 ? `${namesBy(pack, way.id)}: ` : "";
        return (
          <section key={way.id}>
            <h2>
              {several}
              {way.title}
            </h2>
            {connector && (
              <>
                <ConnectorView
                  connector={connector}
                  side="socket"
                  wire={way.ask.kind === "bridge" && !open ? way.ask.bridge : null}
                  leads={open ? {} : leadsOf(way)}
                />
                <p>{connector.where} Looking into the socket.</p>
              </>
            )}
            {open && <Caution>Nobody has said which cavities are joined: put no wire in by this page.</Caution>}
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
