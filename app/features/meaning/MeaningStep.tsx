import { OctagonAlert } from "lucide-react";
import styled from "styled-components";
import { meaningsOf, type Meaning } from "@core/pack/lookup";
import { scopeText } from "@core/pack/scope";
import { certaintyWord } from "@core/record/job";
import { recorded } from "@core/record/readings";
import type { Vehicle } from "@core/record/types";
import { shortTime } from "~/store/format";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Certainty, Empty, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { KeptFilms } from "~/ui/KeptFilms";
import { SystemChoice } from "~/ui/SystemChoice";
import { middle, mono } from "~/ui/theme";

const Card = styled(Sheet)`
  grid-template-columns: minmax(0, 1fr);
  ${middle} {
    grid-template-columns: 110px minmax(0, 1fr);
  }
  dl {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 6px 14px;
    dt {
      color: var(--ink-soft);
    }
  }
  ol {
    list-style: decimal;
    padding-left: 1.3em;
    display: grid;
    gap: 4px;
  }
`;

const Number = styled.div`
  b {
    ${mono}
    display: block;
    font-size: 2.6rem;
    line-height: 1.1;
  }
  font-size: 0.9rem;
`;

const First = styled.p`
  display: flex;
  gap: 10px;
  color: var(--danger);
  font-weight: 700;
  svg {
    flex: none;
  }
`;

/** What was read, on this vehicle: circuits, what sets them, where to look first. */
export function MeaningStep() {
  const { job, vehicle, pack, readings, systems, access } = useJob();
  const { send, busy } = useJobAction();
  const last = recorded(readings, access.system).at(-1);
  const codes = last?.result?.codes ?? [];
  const meanings = meaningsOf(pack, vehicle, access.system, access.dialect, codes);
  const faults = meanings.filter((m) => m.entry?.kind !== "status");
  const status = meanings.filter((m) => m.entry?.kind === "status");
  const shared = sharedCircuits(faults);
  return (
    <>
      <h1>{last?.readiness ? READINESS[last.readiness] : headline(meanings, last?.result?.state)}</h1>
      <SystemChoice systems={systems} value={access.system} onChange={(system) => send({ intent: "system", system })} />
      {!last ? (
        <Empty title={`No reading of the ${access.name.toLowerCase()} is recorded yet.`}>
          <LinkButton $look="primary" to={`/jobs/${job.id}/read`}>
            To the reading
          </LinkButton>
        </Empty>
      ) : (
        <Soft>
          Read {shortTime(last.startedAt)}, {pack.title}, for {vehicle.year}, engine {vehicle.engine}. A code names a
          circuit, not a part to buy: look at the plug first.
        </Soft>
      )}
      {last?.input === "camera" && <KeptFilms key={last.id} reading={last.id} />}
      {last?.readiness === "not-complete" && (
        <Sheet>
          <h2>What completes the monitors</h2>
          <p>{pack.proving.drive}</p>
          <Soft>{pack.proving.readiness}</Soft>
        </Sheet>
      )}
      {shared.map((s) => (
        <Sheet key={s.circuit}>
          <p>
            <strong>
              {s.codes.join(" and ")} name the same circuit: {s.circuit}.
            </strong>{" "}
            One cause may explain both.
          </p>
        </Sheet>
      ))}
      {faults.map((m) => (
        <CodeMeaning key={m.code} meaning={m} vehicle={vehicle} certainty={last?.result?.codeConfidence[m.code] ?? 0} />
      ))}
      {status.length > 0 && <h2>Status, no fault</h2>}
      {status.map((m) => (
        <CodeMeaning key={m.code} meaning={m} vehicle={vehicle} certainty={last?.result?.codeConfidence[m.code] ?? 0} />
      ))}
      {last && (
        <Row>
          {job.handOver ? (
            <Soft>Another workshop takes over: leave the codes stored for them.</Soft>
          ) : last.readiness ? null : (
            <Button $look="primary" isDisabled={busy} onPress={() => send({ intent: "meaning" })}>
              On to the clear
            </Button>
          )}
          <LinkButton to={`/jobs/${job.id}/read`}>Read once more</LinkButton>
        </Row>
      )}
    </>
  );
}

const READINESS = {
  complete: "Ready: all monitors are complete.",
  "not-complete": "Not ready: the monitors are not complete.",
  unclear: "Readiness was not clear: watch the lamp once more.",
};

function headline(meanings: Meaning[], state: string | undefined): string {
  if (!state) return "Nothing is read yet.";
  if (!meanings.length)
    return state === "none"
      ? "Nothing is stored."
      : state === "dark"
        ? "The lamp stayed dark: nothing stored, if the lamp check passed."
        : "No code could be read.";
  const first = meanings.find((m) => m.entry?.first);
  if (first) return `${first.code} comes first, whatever else is stored.`;
  const faults = meanings.filter((m) => m.entry?.kind !== "status");
  if (!faults.length) return "Only status codes, no fault.";
  const unknown = faults.filter((m) => !m.entry);
  if (unknown.length === faults.length)
    return `${unknown.map((m) => m.code).join(", ")} ${unknown.length === 1 ? "is" : "are"} in no table of this vehicle.`;
  return `${faults.length === 1 ? "One fault" : `${faults.length} faults`}. Look at the plugs first.`;
}

function sharedCircuits(faults: Meaning[]): { circuit: string; codes: string[] }[] {
  const by = new Map<string, string[]>();
  for (const m of faults) if (m.entry) by.set(m.entry.circuit, [...(by.get(m.entry.circuit) ?? []), m.code]);
  return [...by].filter(([, codes]) => codes.length > 1).map(([circuit, codes]) => ({ circuit, codes }));
}

function CodeMeaning({ meaning, vehicle, certainty }: { meaning: Meaning; vehicle: Vehicle; certainty: number }) {
  const { code, entry, nearMisses, elsewhere } = meaning;
  const because = vehicle.changes.filter((c) => c.codes.includes(code));
  return (
    <Card aria-label={`Code ${code}`}>
      <Number>
        <b>{code}</b>
        <Certainty word={certaintyWord(certainty)} />
      </Number>
      <div style={{ display: "grid", gap: 12 }}>
        {entry ? (
          <>
            {entry.first && (
              <First>
                <OctagonAlert aria-hidden /> {entry.first}
              </First>
            )}
            <h2>{entry.title}</h2>
            {because.map((c) => (
              <p key={c.text}>
                <strong>Expected on this vehicle:</strong> {c.text}. No fault to chase.
              </p>
            ))}
            <dl>
              <dt>Circuit</dt>
              <dd>{entry.circuit}</dd>
              <dt>Set when</dt>
              <dd>{entry.sets}</dd>
              <dt>Affects</dt>
              <dd>{entry.affects}</dd>
            </dl>
            {entry.details && (
              <div>
                <h3>This number stands for several faults</h3>
                <ul>
                  {entry.details.map((d) => (
                    <li key={d.title}>
                      <strong>{d.title}:</strong> {d.tell}
                    </li>
                  ))}
                </ul>
              </div>
            )}
            <div>
              <h3>Look first</h3>
              <ol>
                {entry.lookFirst.map((l) => (
                  <li key={l}>{l}</li>
                ))}
              </ol>
            </div>
          </>
        ) : (
          <>
            <h2>In no table of this vehicle</h2>
            <p>
              A miscount, a status code that is not written down, or the table of another year. Read once more before
              you chase it.
            </p>
            {nearMisses.length > 0 && (
              <div>
                <h3>One flash away, and in the table</h3>
                <ul>
                  {nearMisses.map((n) => (
                    <li key={n.code}>
                      <Mono>{n.code}</Mono> {n.title}, {n.circuit}
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </>
        )}
        {elsewhere.map((e, i) => (
          <Soft key={i}>
            {e.title === entry?.title ? "Also" : "Not to be taken for"} {code} on {scopeText(e.scope)}: {e.title}.
          </Soft>
        ))}
      </div>
    </Card>
  );
}
