import { useState } from "react";
import styled from "styled-components";
import { lampVerdict, type LampSeen, type OthersSeen } from "@core/procedure/lamp-check";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet, Soft } from "~/ui/bits";
import { LampGlyph } from "~/ui/LampGlyph";

const Tiles = styled.div`
  display: grid;
  gap: 12px;
  grid-template-columns: repeat(auto-fit, minmax(min(45%, 170px), 1fr));
`;

const Tile = styled(Button)`
  flex-direction: column;
  padding: 18px 10px;
  color: var(--ink);
  border-color: var(--line);
  &[aria-pressed="true"] {
    border-color: var(--petrol);
    background: var(--tint);
  }
  small {
    font-weight: 400;
    color: var(--ink-soft);
  }
`;

const Verdict = styled(Sheet)<{ $pass: boolean }>`
  border-left: 8px solid var(${({ $pass }) => ($pass ? "--done" : "--danger")});
  ol {
    list-style: decimal;
    padding-left: 1.3em;
    display: grid;
    gap: 8px;
  }
`;

const SEEN: readonly { value: LampSeen; label: string; text: string }[] = [
  { value: "steady", label: "Stays lit", text: "without a break" },
  { value: "dark", label: "Stays dark", text: "never lights" },
  { value: "flashing", label: "Flashes", text: "with no wire in" },
  { value: "goes-out", label: "Goes out", text: "after some seconds" },
];

/** What the lamp does with the key on, and what that says of the unit. */
export function LampCheckStep() {
  const { job, access } = useJob();
  const { send } = useJobAction();
  const [seen, setSeen] = useState<LampSeen | null>(job.lampCheck?.seen ?? null);
  const [others, setOthers] = useState<OthersSeen>(job.lampCheck?.others ?? "not-checked");
  const verdict = seen && lampVerdict(seen, others);
  const tell = (s: LampSeen, o: OthersSeen) => {
    setSeen(s);
    setOthers(o);
    send({ intent: "lamp-check", seen: s, others: o });
  };
  return (
    <>
      <h1>Key on, engine off, no wire in. What does the lamp do?</h1>
      <Soft>
        Watch the lamp marked <strong>{access.lamp}</strong>. Give it ten seconds.
      </Soft>
      <Tiles role="group" aria-label="What the lamp does">
        {SEEN.map((s) => (
          <Tile key={s.value} aria-pressed={seen === s.value} onPress={() => tell(s.value, others)}>
            <LampGlyph look={s.value} />
            {s.label}
            <small>{s.text}</small>
          </Tile>
        ))}
      </Tiles>
      {seen === "dark" && (
        <Sheet>
          <Choice
            label="Other things that the same unit drives: fuel pump primes for two seconds, other lamps of the engine light"
            value={others}
            onChange={(o) => tell("dark", o)}
            options={[
              { value: "all", label: "They work" },
              { value: "none", label: "All dead too" },
              { value: "not-checked", label: "Not checked" },
            ]}
          />
        </Sheet>
      )}
      {verdict && (
        <Verdict $pass={verdict.pass} aria-live="polite">
          <h2>{verdict.headline}</h2>
          <p>{verdict.reason}</p>
          {verdict.look.length > 0 && (
            <>
              <h3>Look at, in this order</h3>
              <ol>
                {verdict.look.map((l) => (
                  <li key={l}>{l}</li>
                ))}
              </ol>
              <p>
                <strong>The way to the codes stays closed until the lamp is steady.</strong> Mend it, then tap what you
                see again.
              </p>
            </>
          )}
          {verdict.pass && (
            <Row>
              <LinkButton $look="primary" to={`/jobs/${job.id}/hook-up`}>
                On to the hook-up
              </LinkButton>
            </Row>
          )}
        </Verdict>
      )}
    </>
  );
}
