import { useState } from "react";
import { Button } from "~/ui/Button";
import { DropZone } from "react-aria-components/DropZone";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { Text } from "react-aria-components/Text";
import styled from "styled-components";
import { TRACE_MAX_BYTES } from "@core/lamp/trace";
import { marksOfTrace } from "@core/record/evidence";
import type { Mark } from "@core/record/types";
import { flashWorker } from "~/workers/flash";
import { Caution, Soft } from "~/ui/bits";

const Zone = styled(DropZone)`
  display: grid;
  gap: 10px;
  justify-items: center;
  padding: 22px;
  border: 3px dashed var(--line);
  border-radius: 12px;
  text-align: center;
  &[data-drop-target] {
    border-color: var(--petrol);
    background: var(--tint);
  }
`;

/** A trace file by drop or picker, read in the worker. A bad one changes nothing. */
export function TraceImport({
  rest,
  onTrace,
}: {
  rest: "dark" | "lit";
  onTrace: (marks: Mark[], until: number) => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [reading, setReading] = useState<string | null>(null);
  const open = async (file: File) => {
    setProblem(null);
    setReading(file.name);
    const result = await flashWorker().readTrace(file, TRACE_MAX_BYTES);
    setReading(null);
    if ("fault" in result) setProblem(`${file.name}, line ${result.fault.line}: ${result.fault.message}`);
    else onTrace(marksOfTrace(result.trace, rest), result.trace.until);
  };
  return (
    <>
      <Zone
        onDrop={(e) => {
          const item = e.items.find((i) => i.kind === "file");
          if (item?.kind === "file") void item.getFile().then(open);
        }}
      >
        <Text slot="label">{reading ? `Reading ${reading} …` : "Drop a trace here"}</Text>
        <FileTrigger
          acceptedFileTypes={[".csv", ".txt", "text/csv", "text/plain"]}
          onSelect={(files) => files?.[0] && void open(files[0])}
        >
          <Button>Pick a file</Button>
        </FileTrigger>
        <Soft>
          CSV with the columns <code>t_ms,lit</code>: the time in milliseconds, and 1 or 0.
        </Soft>
      </Zone>
      {problem && (
        <div role="alert">
          <Caution>
            {problem} <strong>The job is as it was.</strong>
          </Caution>
        </div>
      )}
    </>
  );
}
