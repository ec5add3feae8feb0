import { OctagonAlert } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import type { Sure } from "@core/flash/judge/sureness";
import type { Meaning } from "@core/pack/lookup";
import { scopeText } from "@core/pack/scope";
import type { System } from "@core/pack/pack";
import type { Vehicle } from "@core/record/types";
import { shortDate } from "~/store/format";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Caution, Certainty, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { middle, mono } from "~/ui/theme";
import type { MeaningIntents } from "./intents";
import { CodeNote, NoteButton } from "./CodeNote";
import { InNoTable } from "./InNoTable";

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

/** What one code means on this vehicle. */
export function CodeMeaning({
  meaning,
  vehicle,
  sure,
  about,
  where,
  own,
  note,
}: {
  meaning: Meaning;
  vehicle: Vehicle;
  sure: Sure;
  about: System;
  /** The memories that hold it. */
  where: readonly (string | null)[];
  /** Under what an own note is kept, and the note. */
  own: string;
  note: { text: string; at: string } | undefined;
}) {
  const { code, entry, nearMisses, elsewhere } = meaning;
  const [writing, write] = useState(false);
  const because = vehicle.changes.filter((c) => c.codes.includes(code));
  return (
    <Card aria-label={`Code ${code}`}>
      <Number>
        <b>{code}</b>
        <Certainty word={sure} />
        {where.some((m) => m !== null) && (
          <p>
            {[where.includes("live") && "there now", where.includes("stored") && "in memory"]
              .filter(Boolean)
              .join(", ")}
          </p>
        )}
        <NoteButton code={code} there={note !== undefined} writing={writing} onWrite={() => write(true)} />
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
              {entry.sets && (
                <>
                  <dt>Set when</dt>
                  <dd>{entry.sets}</dd>
                </>
              )}
              {entry.affects && (
                <>
                  <dt>Affects</dt>
                  <dd>{entry.affects}</dd>
                </>
              )}
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
            {entry.expectedIf && because.length === 0 && <Expect code={code} change={entry.expectedIf} />}
            {entry.caution && <Caution>{entry.caution}</Caution>}
            {/* Nothing of a unit that only licensed people may touch is looked at or measured. */}
            {!about.caution && because.length === 0 && (
              <div>
                <h3>Look first</h3>
                {entry.lookFirst.length > 0 ? (
                  <ol>
                    {entry.lookFirst.map((l) => (
                      <li key={l}>{l}</li>
                    ))}
                  </ol>
                ) : (
                  <p>Its table says no more. Begin with the plug, the wires and the ground of this circuit.</p>
                )}
              </div>
            )}
          </>
        ) : (
          <InNoTable code={code} nearMisses={nearMisses} />
        )}
        {writing && <CodeNote key={own} of={own} code={code} note={note?.text ?? ""} onDone={() => write(false)} />}
        {note && !writing && (
          <p>
            <strong>Your note:</strong> {note.text} <Soft as="span">{shortDate(note.at)}</Soft>
          </p>
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

/** A change that would explain the code: said once, it is expected on this vehicle from there on. */
function Expect({ code, change }: { code: string; change: string }) {
  const { send, busy, problem } = useIntents<MeaningIntents>("meaning");
  return (
    <>
      <Row>
        <Button isDisabled={busy} onPress={() => send({ intent: "expect", change, code })}>
          {change}: {code} is expected
        </Button>
      </Row>
      <Trouble problem={problem} />
    </>
  );
}
