import type { DashLine } from "@core/display/dash-line";
import type { Entry } from "@core/pack/pack";
import { Button } from "~/ui/Button";
import { Mono, Row } from "~/ui/bits";
import { LookAlikes } from "./LookAlikes";

/** One line of a display as it was typed: what it says, the way to take it out, and look-alikes of what was not clear. */
export function ShownLine({
  text,
  line,
  entries,
  before = "",
  onTakeOut,
  onPick,
}: {
  text: string;
  line: DashLine;
  /** Codes of the system that the line tells of. */
  entries: readonly Entry[];
  /** Stands before the meaning of a code. */
  before?: string;
  onTakeOut: () => void;
  onPick: (code: string) => void;
}) {
  const title = line.kind === "code" ? entries.find((e) => e.code === line.code)?.title : undefined;
  return (
    <>
      <Row style={{ justifyContent: "space-between" }}>
        <span>
          <Mono style={{ fontSize: "1.3rem", fontWeight: 700 }}>{text}</Mono>{" "}
          {line.kind === "none"
            ? "nothing more"
            : line.kind === "code"
              ? `${before}${title ?? "in no table of this vehicle"}`
              : "not clear"}
        </span>
        <Button $look="quiet" aria-label={`Take ${text} out`} onPress={onTakeOut}>
          Take out
        </Button>
      </Row>
      {line.kind === "unclear" && (
        <LookAlikes typed={line.text} digits={line.digits} entries={entries} onPick={onPick} />
      )}
    </>
  );
}
