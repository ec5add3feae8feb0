import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import type { Decoded } from "@core/flash/decode";
import { knownIn } from "@core/job/known";
import { sayKnown, settles } from "@core/job/say";
import { toldOf } from "@core/job/told";
import { entriesFor } from "@core/pack/scope";
import { evidenceOf } from "@core/record/evidence";
import { readingOf } from "@core/record/readings";
import type { Reading } from "@core/record/types";
import { shortTime } from "~/store/format";
import type { JobData } from "~/store/job-data";
import { useIntents } from "~/store/use-job";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Row, Sheet, Soft } from "~/ui/bits";
import { flashWorker } from "~/workers/flash";
import { drawStrip } from "./strip/draw-svg";
import { layStrip } from "./strip/layout";
import type { ReadIntents } from "./intents";
import { Trouble } from "~/ui/Trouble";

const Item = styled.details`
  border-top: 1px solid var(--rule);
  summary {
    min-height: 48px;
    padding: 10px 0;
    cursor: pointer;
  }
  &[data-withdrawn="yes"] summary {
    text-decoration: line-through;
  }
`;

const Picture = styled.div`
  overflow-x: auto;
  img {
    display: block;
    max-width: none;
    border: 1px solid var(--line);
    border-radius: 8px;
  }
`;

/** What was recorded of this system: each reading can be looked at again, and taken back. It is never erased. */
export function RecordedReadings({ data }: { data: JobData }) {
  const { readings, access } = data;
  const own = readings.flatMap((r) => (r.recordedAt ? (readingOf(r, access.system) ?? []) : []));
  const [open, setOpen] = useState<string | null>(null);
  if (!own.length) return null;
  return (
    <Sheet aria-label="Recorded readings">
      <h2>Recorded readings</h2>
      <div>
        {own.map((r) => (
          <Item
            key={r.id}
            data-withdrawn={r.withdrawnAt ? "yes" : "no"}
            onToggle={(e) => e.currentTarget.open && setOpen(r.id)}
          >
            <summary>
              <strong>{shortTime(r.startedAt)}</strong> {lineOf(data, r)}
              {r.withdrawnAt && ` Taken back ${shortTime(r.withdrawnAt)}.`}
            </summary>
            {open === r.id && <Looked data={data} reading={r} />}
          </Item>
        ))}
      </div>
    </Sheet>
  );
}

/** What a reading says by itself. One that was taken back is told as if it had not been. */
function lineOf(data: JobData, { withdrawnAt: _, ...reading }: Reading): string {
  const told = toldOf(data, reading, data.access.system);
  return told ? sayKnown(data.access.name, knownIn({ clear: null, told: [told] }, data.access.system)) : "Readiness.";
}

function Looked({ data, reading }: { data: JobData; reading: Reading }) {
  const { send, problem } = useIntents<ReadIntents>("read");
  const { access } = data;
  const told = toldOf(data, reading, access.system);
  const nameOf = (system: string) => data.systems.find((s) => s.system === system)?.name ?? system;
  return (
    <div style={{ display: "grid", gap: 10, paddingBottom: 12 }}>
      {access.dialect && reading.marks.some((m) => m.kind !== "p") && access.dialect.advance === "self" && (
        <StripPicture data={data} reading={reading} />
      )}
      {reading.counts && <p>Called out: {reading.counts}</p>}
      {told && told.doubts.length > 0 && (
        <ul>
          {[...new Set(told.doubts.map((d) => settles(d, nameOf)))].map((d) => (
            <li key={d}>{d}</li>
          ))}
        </ul>
      )}
      {!reading.withdrawnAt && (
        <Row>
          <ConfirmButton
            label="Take it back"
            of={shortTime(reading.startedAt)}
            question="It stays here and counts for nothing. Take it back?"
            sure="Take it back"
            keep="Let it stand"
            onConfirm={() => send({ intent: "withdraw", reading: reading.id })}
          />
          <Trouble problem={problem} />
        </Row>
      )}
    </div>
  );
}

/** The strip of a reading, read again as it was. */
function StripPicture({ data, reading }: { data: JobData; reading: Reading }) {
  const { access, pack, vehicle } = data;
  const [decoded, setDecoded] = useState<Decoded | null>(null);
  useEffect(() => {
    let gone = false;
    const dialect = access.dialect!;
    const table = entriesFor(pack, vehicle, access.system).map((e) => e.code);
    // What a film tells was brought to marks when it was recorded.
    const { levels: _, ...marks } = reading;
    const evidence = evidenceOf(marks, reading.until ?? 0, dialect);
    if (evidence.mode !== "levels")
      void flashWorker()
        .decode(dialect, evidence, table)
        .then((d) => !gone && setDecoded(d));
    return () => {
      gone = true;
    };
  }, [access, pack, vehicle, reading]);
  const url = useMemo(() => {
    const { lines, pxPerMs } = layStrip(reading.marks, decoded, { width: 650, perSecond: 24 });
    const { svg } = drawStrip(lines, pxPerMs, `${access.name}, ${shortTime(reading.startedAt)}`);
    return URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  }, [reading, decoded, access.name]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  return (
    <Picture tabIndex={0} role="region" aria-label="Strip of this reading">
      <img src={url} alt={`${reading.marks.length} marks. ${decoded ? "" : "Working it out."}`} />
      {!decoded && <Soft>Working it out …</Soft>}
    </Picture>
  );
}
