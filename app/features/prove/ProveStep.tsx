import { Check, Minus, X } from "lucide-react";
import styled from "styled-components";
import { entriesFor } from "@core/pack/scope";
import { compareReadings, verdictSentence, type Persistence } from "@core/proving/compare";
import { lockOf } from "@core/record/job";
import { afterClear, beforeAndAfter, codesRead } from "@core/record/readings";
import type { Reading } from "@core/record/types";
import { shortTime } from "~/store/format";
import { useJob, useJobAction } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Empty, Row, Sheet, Soft } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { mono } from "~/ui/theme";

const Scroll = styled.div`
  overflow-x: auto;
`;

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  th,
  td {
    text-align: left;
    padding: 12px 14px 12px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
  }
  thead th {
    color: var(--ink-soft);
    font-weight: 400;
    font-size: 0.9rem;
  }
  tbody th {
    ${mono}
    font-size: 1.5rem;
    line-height: 1.1;
  }
  small {
    display: block;
    font-family: "Atkinson Hyperlegible Next Variable", system-ui, sans-serif;
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.85rem;
  }
`;

const KIND: Record<Persistence, { word: string; text: string }> = {
  hard: { word: "hard", text: "back at once" },
  intermittent: { word: "intermittent", text: "back on the road" },
  history: { word: "history", text: "stays away" },
  quiet: { word: "quiet so far", text: "not driven yet" },
  new: { word: "new", text: "was not there before" },
};

const RUN_WORDS: Record<Reading["run"], string> = {
  before: "",
  "key-on": "switched on",
  idle: "idled",
  drive: "driven",
};

/** Before and after, side by side, and what that proves. */
export function ProveStep() {
  const { job, vehicle, pack, readings, systems, access } = useJob();
  const { send, busy } = useJobAction();
  const lock = lockOf(job, readings, "prove");
  if (lock && !job.closedAt)
    return (
      <Empty level={1} title={`The proof is locked: ${lock}.`}>
        <p>Proof needs a reading before the clear and one after it.</p>
        <LinkButton $look="primary" to={`/jobs/${job.id}/clear`}>
          To the clear
        </LinkButton>
      </Empty>
    );
  const { before, after } = beforeAndAfter(job, readings, access.system, access.memory);
  const rows = before ? compareReadings(codesRead(before), after.map(afterClear)) : [];
  const verdict = verdictSentence(rows, after.length);
  const titles = new Map(entriesFor(pack, vehicle, access.system).map((e) => [e.code, e.title]));
  const driven = after.some((r) => r.run === "drive");
  return (
    <>
      <h1 aria-live="polite">{verdict}</h1>
      <SystemChoice systems={systems} value={access.system} onChange={(system) => send({ intent: "system", system })} />
      {rows.length > 0 && (
        <Sheet>
          <Scroll tabIndex={0} role="region" aria-label="Before and after">
            <Table>
              <thead>
                <tr>
                  <th scope="col">Code</th>
                  <th scope="col">
                    Before
                    <small>{before && shortTime(before.startedAt)}</small>
                  </th>
                  {after.map((r) => (
                    <th scope="col" key={r.id}>
                      After, {RUN_WORDS[r.run]}
                      <small>{shortTime(r.startedAt)}</small>
                    </th>
                  ))}
                  <th scope="col">That makes it</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.code}>
                    <th scope="row">
                      {row.code}
                      <small>{titles.get(row.code) ?? "in no table"}</small>
                    </th>
                    <td>
                      <Seen value={row.before} />
                    </td>
                    {row.after.map((a, i) => (
                      <td key={i}>
                        <Seen value={a} />
                      </td>
                    ))}
                    <td>
                      <strong>{KIND[row.persistence].word}</strong>
                      <small>{KIND[row.persistence].text}</small>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
        </Sheet>
      )}
      {!job.closedAt && (
        <Sheet>
          <h2>
            {after.length === 0 ? "Read again now" : driven ? "Read as often as you like" : "Drive, then read again"}
          </h2>
          {after.length === 0 ? (
            <p>Key on, wire in as before: what is back at once is a hard fault.</p>
          ) : (
            <p>
              {pack.proving.drive} <strong>Nobody reads a screen while driving.</strong>
            </p>
          )}
          <Soft>{pack.proving.readiness}</Soft>
          <Row>
            <LinkButton $look={after.length < 2 ? "primary" : "secondary"} to={`/jobs/${job.id}/read`}>
              Read again
            </LinkButton>
            <LinkButton to={`/jobs/${job.id}/clear`}>Clear again</LinkButton>
            <Button isDisabled={after.length === 0 || busy} onPress={() => send({ intent: "close", verdict })}>
              Close the job with this verdict
            </Button>
          </Row>
        </Sheet>
      )}
      {job.closedAt && (
        <Row>
          <p>
            <strong>Closed {shortTime(job.closedAt)}.</strong>
          </p>
          <Button onPress={() => send({ intent: "reopen" })}>Open it again</Button>
          <LinkButton to="/">To the garage</LinkButton>
        </Row>
      )}
    </>
  );
}

function Seen({ value }: { value: boolean | null }) {
  if (value === null)
    return (
      <>
        <Minus aria-hidden />
        <small>not known</small>
      </>
    );
  return value ? (
    <>
      <X aria-hidden /> <small>there</small>
    </>
  ) : (
    <>
      <Check aria-hidden color="var(--done)" /> <small>gone</small>
    </>
  );
}
