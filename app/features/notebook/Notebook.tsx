import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { Job, StepId } from "@core/record/types";
import { shortTime } from "~/store/format";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { wide } from "~/ui/theme";
import type { JobIntents } from "~/store/job-intents";
import { Trouble } from "~/ui/Trouble";

const Page = styled.aside`
  background:
    linear-gradient(var(--rule), var(--rule)) 0 0 / 100% 1px no-repeat,
    repeating-linear-gradient(transparent 0 27px, var(--rule) 27px 28px) var(--sheet);
  padding: 14px 18px 18px;
  display: grid;
  grid-template-rows: auto 1fr auto;
  gap: 14px;
  border-left: 3px solid var(--ink);
  h2 {
    line-height: 28px;
  }
  ${wide} {
    position: sticky;
    top: 0;
    max-height: calc(100dvh - 64px);
  }
`;

const Lines = styled.ol`
  font-size: 0.9rem;
  line-height: 28px;
  overflow-y: auto;
  min-height: 84px;
  max-height: 340px;
  ${wide} {
    max-height: none;
  }
  time {
    font-variant-numeric: tabular-nums;
    font-weight: 700;
    font-size: 0.85rem;
    margin-right: 8px;
  }
  li[data-by="person"] {
    font-style: italic;
  }
`;

const Write = styled.form`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: end;
`;

/** The notebook of a job: it fills itself, and takes typed lines. */
export function Notebook({ job, step }: { job: Job; step: StepId }) {
  const [text, setText] = useState("");
  const { send, busy, problem } = useIntents<JobIntents>(null, () => setText(""));
  const lines = useRef<HTMLOListElement>(null);
  useEffect(() => {
    lines.current?.scrollTo({ top: lines.current.scrollHeight });
  }, [job.notebook.length]);
  return (
    <Page aria-label="Notebook">
      <h2>Notebook</h2>
      <Lines ref={lines} tabIndex={0} aria-label="Lines of the notebook">
        {job.notebook.map((n, i) => (
          <li key={i} data-by={n.by}>
            <time dateTime={n.at}>{shortTime(n.at)}</time>
            {n.text}
          </li>
        ))}
      </Lines>
      <Write
        onSubmit={(e) => {
          e.preventDefault();
          // What was typed stays until it is stored.
          if (text.trim() && !busy) send({ intent: "note", step, text: text.trim() });
        }}
      >
        <Field label="Write a line" value={text} onChange={setText} maxLength={1000} />
        <Button type="submit">Add</Button>
      </Write>
      <Trouble problem={problem} />
    </Page>
  );
}
