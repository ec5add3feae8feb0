import { useMemo, useState } from "react";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { TRACE_MAX_BYTES } from "@core/lamp/trace";
import { inputOf } from "@core/record/inputs";
import { marksOfTrace } from "@core/record/evidence";
import { overlay } from "@core/record/overlay";
import type { Mark, Reading } from "@core/record/types";
import { shortTime } from "~/store/format";
import { flashWorker } from "~/workers/flash";
import { Button } from "~/ui/Button";
import { Caution, Row, Soft } from "~/ui/bits";
import type { Second } from "./strip/layout";

interface Other {
  name: string;
  marks: readonly Mark[];
}

/** What a second reading of the same lamp saw otherwise; its marks are laid under those of this one. */
export function useSecond(marks: readonly Mark[]) {
  const [other, setOther] = useState<Other | null>(null);
  const second = useMemo((): Second | null => {
    const laid = other && overlay(marks, other.marks);
    return laid && { marks: other.marks, overlay: laid };
  }, [marks, other]);
  return { other, setOther, second };
}

export function Compare({
  readings,
  rest,
  other,
  second,
  onOther,
}: {
  /** Readings that can be laid over this one. */
  readings: readonly Reading[];
  rest: "dark" | "lit";
  other: Other | null;
  second: Second | null;
  onOther: (other: Other | null) => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const open = async (file: File) => {
    const result = await flashWorker().readTrace(file, TRACE_MAX_BYTES);
    if ("fault" in result) return setProblem(`${file.name}, line ${result.fault.line}: ${result.fault.message}`);
    setProblem(null);
    onOther({ name: file.name, marks: marksOfTrace(result.trace, rest) });
  };
  if (other)
    return (
      <Row $gap={8}>
        <p role="status" style={{ flex: "1 1 260px" }}>
          {second ? (
            <Differences second={second} name={other.name} />
          ) : (
            `${other.name} does not show the same flashes: another lamp, or another show.`
          )}{" "}
        </p>
        <Button onPress={() => onOther(null)}>Remove the overlay</Button>
      </Row>
    );
  return (
    <details>
      <summary style={{ minHeight: 48, display: "flex", alignItems: "center", cursor: "pointer" }}>
        Lay a second person’s reading over this one
      </summary>
      <div style={{ display: "grid", gap: 8 }}>
        <Row $gap={8}>
          {readings.map((r) => (
            <Button
              key={r.id}
              onPress={() => onOther({ name: `The reading of ${shortTime(r.startedAt)}`, marks: r.marks })}
            >
              {shortTime(r.startedAt)}, {inputOf(r.input).short}
            </Button>
          ))}
          <FileTrigger
            acceptedFileTypes={[".csv", ".txt", "text/csv"]}
            onSelect={(files) => files?.[0] && void open(files[0])}
          >
            <Button>From a trace file</Button>
          </FileTrigger>
        </Row>
        <Soft>It may have been begun earlier or later: Klinko slides it until the flashes meet.</Soft>
        {problem && (
          <div role="alert">
            <Caution>{problem}</Caution>
          </div>
        )}
      </div>
    </details>
  );
}

function Differences({ second: { overlay: o }, name }: { second: Second; name: string }) {
  const [here, there] = [o.onlyFirst.length, o.onlySecond.length];
  const flashes = (n: number) => `${n} ${n === 1 ? "flash" : "flashes"}`;
  if (!here && !there) return `${name} agrees: all ${o.same.length} flashes are in both.`;
  return `${name}: ${o.same.length} flashes in both, ${flashes(here)} only here, ${flashes(there)} only there (outlined under the marks).`;
}
