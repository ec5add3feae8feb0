import { useState } from "react";
import { TRACE_MAX_BYTES } from "@core/lamp/trace";
import { marksOfTrace } from "@core/record/evidence";
import type { Mark } from "@core/record/types";
import { flashWorker } from "~/workers/flash";
import { FileDrop } from "~/ui/FileDrop";
import { Caution } from "~/ui/bits";

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
      <FileDrop
        label={reading ? `Reading ${reading} …` : "Drop a trace here"}
        pick="Pick a file"
        accept={[".csv", ".txt", "text/csv", "text/plain"]}
        onFile={(file) => void open(file)}
      >
        CSV with the columns <code>t_ms,lit</code>: the time in milliseconds, and 1 or 0.
      </FileDrop>
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
