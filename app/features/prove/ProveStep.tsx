import { Check, Minus, X } from "lucide-react";
import styled from "styled-components";
import { entriesFor, type SystemAccess } from "@core/pack/scope";
import { END_WORDS, endsOf } from "@core/job/end";
import { lower, PERSISTENCE, sayVerdict, why } from "@core/job/say";
import { goneOf, goneText, type CodeGone } from "@core/job/gone";
import type { Proof, Row } from "@core/job/proof";
import { emptyAnswer } from "@core/proving/empty";
import type { Reading } from "@core/record/types";
import { shortTime } from "~/store/format";
import { lockOfStep, ownOf } from "~/store/job-data";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Empty, Row as Line, Sheet, Soft } from "~/ui/bits";
import { SystemChoice } from "~/ui/SystemChoice";
import { Why } from "~/ui/Why";
import { mono } from "~/ui/theme";
import type { JobIntents } from "~/store/job-intents";
import { handoverPath, jobPath } from "~/store/paths";
import { Assumed } from "~/ui/Assumed";
import { Trouble } from "~/ui/Trouble";
import { AfterClear } from "./AfterClear";
import { Counting } from "./Counting";
import { Ready } from "./Ready";
import { QuietDrives } from "./QuietDrives";
import { Rides } from "./Rides";
import { Tests } from "./Tests";

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

const RUN_WORDS: Record<Reading["run"], string> = {
  before: "",
  "key-on": "switched on",
  idle: "idled",
  drive: "driven",
};

/** Before and after, side by side, and what that proves. */
export function ProveStep() {
  const data = useJob();
  const { job, vehicle, pack, systems, access, judged } = data;
  const { send, busy, problem } = useIntents<JobIntents>(null);
  const lock = lockOfStep(data, "prove");
  if (lock && !job.closedAt)
    return (
      <Empty level={1} title={`The proof is locked: ${lock}.`}>
        <p>Proof needs a reading before the clear and one after it.</p>
        <LinkButton $look="primary" to={jobPath(job.id, "clear")}>
          To the clear
        </LinkButton>
      </Empty>
    );
  const { proof } = ownOf(data);
  const proofs = judged.systems.map((s) => s.proof);
  const verdict = sayVerdict(judged);
  const about = judged.statements.find((s) => s.kind === "verdict")!;
  const reasons = judged.statements.filter((s) => s.system === access.system && s.kind === "persistence");
  const titles = new Map(entriesFor(pack, vehicle, access.system).map((e) => [e.code, e.title]));
  const read = systems.filter((s) => s.way.tells.kind !== "readiness");
  return (
    <>
      <h1 aria-live="polite">{job.closedAt ? job.verdict : verdict}</h1>
      <SystemChoice systems={read} value={access.system} onChange={(system) => send({ intent: "system", system })} />
      {!proof.cleared && (
        <Soft>The {lower(access.name)} was not cleared in this job. What was read of it stands as it was read.</Soft>
      )}
      <Counting />
      <Assumed pack={data.pack} parts={["proving"]} />
      {proof.tooSoon && (
        <Caution>
          Too little time has passed since the clear for that drive: {pack.proving.drive} Until then nothing is proven
          by it.
        </Caution>
      )}
      {proof.rows.length > 0 && (
        <Sheet>
          <BeforeAndAfter proof={proof} titles={titles} gone={(row) => goneOf(data, proofs, access.system, row)} />
          <Why lines={[...new Set([about, ...reasons].flatMap((s) => why(s, data, shortTime)))]} />
        </Sheet>
      )}
      {!job.closedAt && (
        <Sheet>
          <h2>{job.counting && !proof.cleared ? "Meanwhile" : nextHeading(proof)}</h2>
          {nextText(proof, access)}
          {proof.cleared && proof.state !== "not-fixed" && proof.after.length > 0 && (
            <p>
              {pack.proving.drive} <strong>Nobody reads a screen while driving.</strong>
            </p>
          )}
          <Soft>{pack.proving.readiness}</Soft>
          <Line>
            <LinkButton
              $look={
                proof.state === "fixed" || proof.state === "not-fixed" || (job.counting && !proof.cleared)
                  ? "secondary"
                  : "primary"
              }
              to={jobPath(job.id, "read")}
            >
              {proof.before.length + proof.after.length ? "Read again" : "Read it"}
            </LinkButton>
            <LinkButton to={jobPath(job.id, "clear")}>{proof.cleared ? "Clear again" : "Clear it"}</LinkButton>
          </Line>
        </Sheet>
      )}
      {!job.closedAt && <AfterClear />}
      {!job.closedAt && <Tests proof={proof} />}
      {!job.closedAt && <Rides />}
      {!job.closedAt && <QuietDrives />}
      {!job.closedAt && <Ready />}
      <Trouble problem={problem} />
      {job.closedAt && (
        <Line>
          <p>
            <strong>
              {job.end ? END_WORDS[job.end] : "Closed"}, {shortTime(job.closedAt)}.
            </strong>
          </p>
          <Button onPress={() => send({ intent: "reopen" })}>Open it again</Button>
          <LinkButton to={handoverPath(job.id)}>The sheet of this job</LinkButton>
          <LinkButton to="/">To the garage</LinkButton>
        </Line>
      )}
      {!job.closedAt && endsOf(judged)[0] !== "not-proven" && proof.after.length > 0 && (
        <Line>
          <Button isDisabled={busy} onPress={() => send({ intent: "close", end: endsOf(judged)[0] })}>
            Close the job with this verdict
          </Button>
        </Line>
      )}
    </>
  );
}

/** The codes, reading by reading, and what that makes each of them. */
function BeforeAndAfter({
  proof,
  titles,
  gone,
}: {
  proof: Proof;
  titles: ReadonlyMap<string, string>;
  gone: (row: Row) => CodeGone | null;
}) {
  const likely = proof.rows.map(gone);
  return (
    <Scroll tabIndex={0} role="region" aria-label="Before and after">
      <Table>
        <thead>
          <tr>
            <th scope="col">Code</th>
            <th scope="col">
              {proof.cleared ? "Before" : "Read"}
              <small>{proof.before.length > 0 && shortTime(proof.before.at(-1)!.reading.startedAt)}</small>
            </th>
            {proof.after.map(({ reading }, i) => (
              <th scope="col" key={reading.id}>
                After, {RUN_WORDS[proof.ran[i]]}
                <small>{shortTime(reading.startedAt)}</small>
              </th>
            ))}
            {proof.cleared && <th scope="col">That makes it</th>}
          </tr>
        </thead>
        <tbody>
          {proof.rows.map((row, n) => (
            <tr key={`${row.memory} ${row.code}`}>
              <th scope="row">
                {row.code}
                <small>
                  {row.memory === "live" ? "there now: " : row.memory === "stored" ? "in memory: " : ""}
                  {titles.get(row.code) ?? "in no table"}
                </small>
              </th>
              <td>
                <Seen value={row.before} />
              </td>
              {row.after.map((a, i) => (
                <td key={i}>
                  <Seen value={a} />
                </td>
              ))}
              {proof.cleared && (
                <td>
                  <strong>{row.kind === "fault" ? PERSISTENCE[row.persistence].word : row.kind}</strong>
                  <small>
                    {row.kind === "expected"
                      ? "a change on this vehicle explains it"
                      : row.kind === "status"
                        ? "no fault"
                        : PERSISTENCE[row.persistence].text}
                  </small>
                  {likely[n] && <small>{goneText(likely[n])}</small>}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}

/** What comes next for this system: a fault that is there is mended first, whatever was driven. */
function nextHeading(p: Proof): string {
  if (!p.cleared) return p.before.length ? "Clear it, or leave it as it is" : "Not read yet";
  if (!p.after.length) return "Read again now";
  if (p.rows.some((r) => r.kind === "fault" && r.persistence === "still")) return "Still stored: did the clear take?";
  if (p.state === "not-fixed") return "Mend it, then clear and read again";
  if (p.state === "fixed") return "Read as often as you like";
  return p.ran.includes("drive") ? "Read once more" : "Drive, then read again";
}

function nextText(p: Proof, access: SystemAccess) {
  if (!p.cleared) return null;
  if (!p.after.length) {
    const empty = emptyAnswer(access);
    return (
      <>
        <p>
          Key on{access.way.ask.kind === "bridge" ? ", wire in as before" : ""}: what is back at once is there now, or
          the clear did not take.
        </p>
        {empty && (
          <p>
            <strong>With nothing stored: {empty.looks}</strong> {empty.otherwise}
          </p>
        )}
      </>
    );
  }
  if (p.rows.some((r) => r.kind === "fault" && r.persistence === "still"))
    return (
      <p>
        Clear it by another way, surest first (battery), and read with the key just turned on. Back again: it is there
        now.
      </p>
    );
  if (p.state === "not-proven" && p.ran.includes("drive"))
    return <p>The list was not seen whole since the drive: one whole round settles it.</p>;
  return null;
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
      <Check aria-hidden color="var(--done)" /> <small>not there</small>
    </>
  );
}
