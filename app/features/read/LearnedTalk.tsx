import { useState } from "react";
import { useRevalidator } from "react-router";
import styled from "styled-components";
import type { Learned } from "@core/flash/learn/learn";
import { LAMP_NAME_MAX } from "@core/record/lamp";
import { keepLamp } from "~/store/lamps";
import { saveFile } from "~/store/save-file";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { whyNot } from "./session";
import { SETTLES, talkOf } from "./talk";

const Lines = styled.ul`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 1fr 5.5em;
    gap: 12px;
    align-items: baseline;
    max-width: 46em;
  }
  li > span:last-child {
    text-align: right;
    font-variant-numeric: tabular-nums;
    color: var(--ink-soft);
  }
`;

const percent = (p: number) => (p > 0.995 ? "over 99 %" : `${Math.round(100 * p)} %`);

/** How a lamp talks that no pack knows, with what would make it surer, and a way to keep it. */
export function LearnedTalk({ learned, done }: { learned: Learned; done: boolean }) {
  const { dialect, certainty, settles } = learned;
  const [name, setName] = useState("");
  const [kept, setKept] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { revalidate } = useRevalidator();
  if (!dialect) return null;
  const keep = async () => {
    try {
      const lamp = await keepLamp(name, dialect);
      setKept(lamp.name);
      setProblem(null);
      await revalidate();
    } catch (error) {
      setProblem(whyNot(error));
    }
  };
  const file = `${(name.trim() || "lamp").toLowerCase().replace(/[^a-z0-9]+/g, "-")}.json`;
  return (
    <Sheet aria-label="How it talks">
      <h2>How it talks</h2>
      <Soft>No make that Klinko knows blinks this way. This is worked out from the flashes alone.</Soft>
      <Lines aria-label="What was learned of it">
        {talkOf(dialect, certainty).map(({ says, sure }) => (
          <li key={says}>
            <span>{says}</span>
            <span>{percent(sure)}</span>
          </li>
        ))}
      </Lines>
      {settles.length > 0 && (
        <ul aria-label="What would make it surer">
          {settles.map((s) => (
            <li key={s}>{SETTLES[s]}</li>
          ))}
        </ul>
      )}
      {done && (
        <>
          <Field
            label="Name of this lamp"
            value={name}
            onChange={setName}
            maxLength={LAMP_NAME_MAX}
            description="Say, the vehicle's name: next time Klinko knows it by that."
          />
          {problem && <Caution>{problem}</Caution>}
          <Row $gap={8}>
            <Button $look="primary" isDisabled={!name.trim()} onPress={() => void keep()}>
              Keep how it talks
            </Button>
            <Button onPress={() => saveFile(file, JSON.stringify(dialect, null, 2))}>Save it as a file</Button>
          </Row>
          {kept && <p role="status">Kept as “{kept}”.</p>}
        </>
      )}
    </Sheet>
  );
}
