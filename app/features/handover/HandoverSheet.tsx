import styled from "styled-components";
import { DRIVE_WORDS } from "@core/diagnosis/drive";
import { grouped } from "@core/diagnosis/weigh";
import { groupTitle } from "@core/diagnosis/words";
import { drivable } from "@core/job/drivable";
import { codeKind } from "@core/job/faults";
import { lower, PERSISTENCE, sayKnown, sayVerdict } from "@core/job/say";
import { suspectsAsked } from "@core/job/suspects";
import { entriesFor } from "@core/pack/scope";
import { inputOf } from "@core/record/inputs";
import type { Reading } from "@core/record/types";
import { shortDate, shortTime } from "~/store/format";
import type { JobData } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { percent } from "~/ui/percent";
import { useWeighing } from "~/store/use-weighing";
import { vehicleName } from "~/store/vehicle-name";
import { LinkButton } from "~/ui/Button";
import { Paper } from "~/ui/Paper";
import { Caution, Mono, Plate, Row, Soft } from "~/ui/bits";
import { MarksLine } from "./MarksLine";

const Scroll = styled.div`
  overflow-x: auto;
`;

export type For = "workshop" | "customer";

/** What was found and done, on one page: for whoever takes over, or for the customer in plain words. It claims no more than the records hold. */
export function HandoverSheet({ data, who }: { data: JobData; who: For }) {
  const { job, vehicle } = data;
  return (
    <Paper
      more={
        <>
          <LinkButton to={who === "workshop" ? "?for=customer" : "?"} replace>
            {who === "workshop" ? "The short one for the customer" : "The full one for a workshop"}
          </LinkButton>
          <LinkButton to={jobPath(job.id)}>Back to the job</LinkButton>
        </>
      }
    >
      <Row>
        <Plate>{vehicle.plate}</Plate>
        <h1>
          {vehicleName(vehicle)}, {vehicle.year}
        </h1>
      </Row>
      <p>
        {job.title}. Job of {shortDate(job.openedAt)}
        {job.closedAt ? `, closed ${shortDate(job.closedAt)}` : ", open"}.
      </p>
      {who === "workshop" ? <Workshop data={data} /> : <Customer data={data} />}
      <Soft>
        Written by Klinko from what was recorded on this vehicle. What was not read is not known. {data.pack.title},
        table of {data.pack.revision}.
      </Soft>
    </Paper>
  );
}

/** Systems of which something was read, with what is known of each. */
const readOf = ({ judged }: JobData) =>
  judged.systems.filter((s) => s.known.answer !== "not-read" || s.proof.before.length > 0);

function Workshop({ data }: { data: JobData }) {
  const { job, judged } = data;
  const { story } = job;
  const checks = job.checks.filter((c) => !c.withdrawnAt);
  const repairs = job.repairs.filter((r) => !r.withdrawnAt);
  const systems = readOf(data);
  const stored = systems.some((s) => s.known.answer === "codes");
  return (
    <>
      {story.words && (
        <section>
          <h2>In the owner's words</h2>
          <p>{story.words}</p>
        </section>
      )}
      {systems.length === 0 && <p>Nothing was read in this job.</p>}
      {systems.map((s) => (
        <Codes key={s.access.system} data={data} system={s} />
      ))}
      <Readings data={data} />
      {(checks.length > 0 || repairs.length > 0) && (
        <section>
          <h2>Checked and done</h2>
          <ul>
            {checks.map((c) => (
              <li key={c.at + c.check}>
                {shortTime(c.at)} {c.title}: <strong>{c.measured ?? c.outcome}</strong>
              </li>
            ))}
            {repairs.map((r) => (
              <li key={r.at}>
                {shortTime(r.at)} <strong>{r.what}</strong>
                {r.part && `, part ${r.part}`}
                {r.cures.length > 0 && `, for ${r.cures.join(", ")}`}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Open data={data} />
      <section>
        <h2>Where it stands</h2>
        <p>
          <strong>{job.closedAt ? job.verdict : sayVerdict(judged)}</strong>
        </p>
        {stored && (
          <Caution>Codes are stored. Do not wipe them, nor take the battery off, before they are read again.</Caution>
        )}
      </section>
    </>
  );
}

const MEMORY = { live: "there now", stored: "in memory" };

function Codes({
  data,
  system: { access, known, proof },
}: {
  data: JobData;
  system: JobData["judged"]["systems"][number];
}) {
  const entries = new Map(entriesFor(data.pack, data.vehicle, access.system).map((e) => [e.code, e]));
  // Without a clear there is nothing to compare: each code stands as it was read.
  const rows = proof.cleared
    ? proof.rows.map((r) => ({ ...r, stands: PERSISTENCE[r.persistence].word }))
    : known.codes.map((c) => ({ ...c, kind: codeKind(data, access.system, c.code), stands: "stored" }));
  return (
    <section>
      <h2>
        {access.name} ({access.unit})
      </h2>
      <p>{sayKnown(access.name, known)}</p>
      {access.about.caution && <Caution>{access.about.caution}</Caution>}
      {rows.length > 0 && (
        <Scroll tabIndex={0} role="region" aria-label={`Codes of ${access.name}`}>
          <table>
            <thead>
              <tr>
                <th>Code</th>
                <th>What it says</th>
                <th>Circuit</th>
                <th>How sure</th>
                <th>Stands</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={`${r.code} ${r.memory}`}>
                  <td>
                    <Mono>{r.code}</Mono> {r.memory && MEMORY[r.memory]}
                  </td>
                  <td>{entries.get(r.code)?.title ?? "in no table of this vehicle"}</td>
                  <td>{entries.get(r.code)?.circuit ?? ""}</td>
                  <td>{r.sure}</td>
                  <td>{r.kind === "fault" ? r.stands : r.kind}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroll>
      )}
    </section>
  );
}

function Readings({ data: { job, readings, systems, pack } }: { data: JobData }) {
  const told = readings.filter((r) => r.recordedAt && !r.withdrawnAt);
  if (!told.length && !job.clears.length) return null;
  const nameOf = (id: string) => systems.find((s) => s.system === id)?.name ?? id;
  const lines: { at: string; text: string; reading?: Reading }[] = [
    ...told.map((r) => ({ at: r.startedAt, text: `${nameOf(r.system)} read ${inputOf(r.input).said}`, reading: r })),
    ...job.clears.map((c) => ({
      at: c.at,
      text: `${pack.clears.find((w) => w.id === c.way)?.title ?? c.way}, ${Math.round(c.seconds)} s${c.code ? `: ${c.code}` : ""}`,
    })),
  ].sort((a, b) => a.at.localeCompare(b.at));
  return (
    <section>
      <h2>Readings and clears</h2>
      <ul>
        {lines.map((l) => (
          <li key={l.at + l.text}>
            {shortTime(l.at)} {l.text}
            {l.reading && <MarksLine reading={l.reading} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

const OPEN = 3;

/** What is suspected and not mended yet. */
function Open({ data }: { data: JobData }) {
  const asked = suspectsAsked(data);
  const { weighed } = useWeighing(asked, { tools: null });
  if (data.job.end === "fixed" || !asked.codes.length || !weighed) return null;
  return (
    <section>
      <h2>Open suspects</h2>
      <ul>
        {grouped(weighed.suspects)
          .slice(0, OPEN)
          .map((g) => (
            <li key={g.id}>
              {groupTitle(g)}: {percent(g.p)}
            </li>
          ))}
      </ul>
    </section>
  );
}

/** The same in plain words, as one would say it over the counter. */
function Customer({ data }: { data: JobData }) {
  const { job, judged, pack, vehicle } = data;
  const systems = readOf(data);
  const faults = systems.flatMap(({ access, known }) => {
    const entries = entriesFor(pack, vehicle, access.system);
    // Of two memories that hold one code it is the same fault.
    const codes = [...new Map(known.codes.map((c) => [c.code, c])).values()];
    return codes
      .filter((c) => codeKind(data, access.system, c.code) === "fault")
      .map((c) => ({ key: `${access.system} ${c.code}`, ...c, entry: entries.find((e) => e.code === c.code) ?? null }));
  });
  const advice = drivable(data, judged.systems);
  const licensed = systems.flatMap(({ access, known }) =>
    known.answer === "codes" ? (access.about.caution ?? []) : [],
  );
  const repairs = job.repairs.filter((r) => !r.withdrawnAt);
  const affects = [...new Set(faults.flatMap((f) => f.entry?.affects ?? []))];
  return (
    <>
      <section>
        <h2>What the vehicle says</h2>
        {systems.length === 0 && <p>Its memory was not read.</p>}
        {systems.length > 0 && faults.length === 0 && (
          <p>{systems.map((s) => sayKnown(s.access.name, s.known)).join(" ")}</p>
        )}
        <ul>
          {faults.map((f) => (
            <li key={f.key}>
              {f.entry ? `${f.entry.title} (${lower(f.entry.circuit)})` : `A code that is in no table, ${f.code}`}
              {f.sure !== "certain" && `, ${f.sure}`}
            </li>
          ))}
        </ul>
        {affects.length > 0 && <p>What you may notice: {affects.join(" ")}</p>}
        {advice && (
          <p>
            <strong>{DRIVE_WORDS[advice.drive]}</strong>
          </p>
        )}
      </section>
      {licensed.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <section>
        <h2>What was done</h2>
        {job.clears.length > 0 && <p>Its memory was cleared {shortDate(job.clears.at(-1)!.at)}.</p>}
        {repairs.length === 0 ? (
          <p>Nothing was replaced or mended so far.</p>
        ) : (
          <ul>
            {repairs.map((r) => (
              <li key={r.at}>
                {r.what}
                {r.part && ` (${r.part})`}
                {r.cost && `: ${r.cost}`}
              </li>
            ))}
          </ul>
        )}
      </section>
      <section>
        <h2>Where it stands</h2>
        <p>
          <strong>{job.closedAt ? job.verdict : sayVerdict(judged)}</strong>
        </p>
      </section>
    </>
  );
}
