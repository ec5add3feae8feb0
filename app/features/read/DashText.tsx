import { useState } from "react";
import styled from "styled-components";
import { readLine, type DashLine } from "@core/display/dash-line";
import { entriesFor } from "@core/pack/scope";
import type { DashText as Tells } from "@core/pack/way";
import { runToAsk, wasCleared } from "@core/job/epochs";
import type { Reading, SystemList } from "@core/record/types";
import type { JobData } from "~/store/job-data";
import { useDraft } from "~/store/use-draft";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { Caution, Kbd, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { sayLists, useRecordLists } from "./record-lists";
import { RunChoice } from "./RunChoice";
import { ShownLine } from "./ShownLine";

const Lines = styled.ol`
  display: grid;
  gap: 8px;
  li {
    display: grid;
    gap: 6px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
  }
  li:first-child {
    border-top: 0;
  }
`;

const isLines = (v: unknown): v is string[] => Array.isArray(v) && v.every((x) => typeof x === "string");

/** A number where the odometer was: each line is typed as it stands there. */
export function DashText({ data, tells }: { data: JobData; tells: Tells }) {
  const { job, systems, pack, vehicle, access } = data;
  const [lines, setLines] = useDraft<string[]>(`${job.id}/${access.way.id}`, [], isLines);
  const [typed, setTyped] = useState("");
  const [run, setRun] = useState<Reading["run"]>(() => runToAsk(data, access.system));
  const record = useRecordLists(data);
  const known = tells.systems.filter((s) => systems.some((x) => x.system === s.system));
  const nameOf = (system: string) => systems.find((s) => s.system === system)?.name ?? system;
  const read = lines.map((line) => readLine(line, known, tells.none));
  /** A line without a letter that is known is taken for the first system. */
  const systemOf = (r: DashLine) => ("system" in r && r.system) || known[0].system;
  const ended = read.some((r) => r.kind === "none");
  const lists: Record<string, SystemList> = Object.fromEntries(
    known.map((s) => {
      const codes = [...new Set(read.flatMap((r) => (r.kind === "code" && r.system === s.system ? [r.code] : [])))];
      const unclear = read.flatMap((r) => (r.kind === "unclear" && systemOf(r) === s.system ? [r.text] : []));
      const state = codes.length ? "codes" : unclear.length || !ended ? "unclear" : "none";
      return [s.system, { state, codes, unclear }];
    }),
  );
  const add = () => {
    if (!typed.trim()) return;
    setLines([...lines, typed.trim().slice(0, 12)]);
    setTyped("");
  };
  const count = read.filter((r) => r.kind === "code").length;
  return (
    <>
      <h1 aria-live="polite">
        {ended
          ? count
            ? `${count === 1 ? "One number" : `${count} numbers`}, then nothing more.`
            : "No number: most likely nothing is stored."
          : lines.length
            ? `Press ${tells.next}, and type the next one.`
            : "Type what stands where the odometer was."}
      </h1>
      <Soft>
        {known.map((s, i) => (
          <span key={s.system}>
            {i > 0 && ", "}
            {s.prefix ? (
              <>
                <Mono>{s.prefix}</Mono> in front: {nameOf(s.system)}
              </>
            ) : (
              <>
                {i ? "no letter" : "No letter"}: {nameOf(s.system)}
              </>
            )}
          </span>
        ))}
        . <Mono>{tells.none}</Mono>: nothing more. A digit that is not clear: <Mono>?</Mono>.
      </Soft>
      {wasCleared(data, access.memory) && <RunChoice value={run} onChange={setRun} />}
      {lines.length > 0 && (
        <Sheet>
          <Lines aria-label="Lines of the display">
            {read.map((r, i) => (
              <li key={i}>
                <ShownLine
                  text={lines[i]}
                  line={r}
                  entries={entriesFor(pack, vehicle, systemOf(r))}
                  before={r.kind === "code" ? `${nameOf(r.system)}: ` : ""}
                  onTakeOut={() => setLines(lines.toSpliced(i, 1))}
                  onPick={(code) => {
                    const s = known.find((k) => k.system === systemOf(r))!;
                    setLines(lines.with(i, `${s.prefix}${code.padStart(s.digits, "0")}`));
                  }}
                />
              </li>
            ))}
          </Lines>
        </Sheet>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
        style={{ display: "grid", gap: 10 }}
      >
        <Field label="On the display" value={typed} onChange={setTyped} autoFocus autoComplete="off" />
        <Row>
          <Button $look={ended ? "secondary" : "primary"} type="submit">
            Take it <Kbd>Enter</Kbd>
          </Button>
          <Button onPress={() => setLines([...lines, tells.none])} isDisabled={ended}>
            <Mono>{tells.none}</Mono> nothing more
          </Button>
        </Row>
      </form>
      {!ended && lines.length > 0 && (
        <Caution>Step on until {tells.none} stands there: before that more may come.</Caution>
      )}
      <Row>
        <Button
          $look={ended ? "primary" : "secondary"}
          isDisabled={!lines.length}
          onPress={() => {
            setLines([]);
            void record({ input: "text", run, lists, says: sayLists(lists, nameOf) });
          }}
        >
          Record this reading
        </Button>
      </Row>
    </>
  );
}
