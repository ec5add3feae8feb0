import { addDays, differenceInMinutes, parseISO } from "date-fns";
import { useFetcher } from "react-router";
import { clock } from "~/store/clock";
import { shortDate } from "~/store/format";
import { KEPT_DAYS, type Removed } from "~/store/removed";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Row, Sheet } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** Somebody who has just removed a vehicle is told at the top of the garage, minutes; later the line stands at its end. */
const JUST_MINUTES = 10;
export const justRemoved = ({ at }: Removed): boolean => differenceInMinutes(clock.now(), parseISO(at)) < JUST_MINUTES;

/** The vehicle that was removed last, and the way back. */
export function RemovedLine({ removed: { at, plate, jobs } }: { removed: Removed }) {
  const fetcher = useFetcher<{ problem: string } | null>();
  const send = (intent: "put-back" | "let-go") =>
    void fetcher.submit({ intent }, { method: "post", action: "/?index" });
  const with_ = jobs ? ` with ${jobs === 1 ? "its job" : `its ${jobs} jobs`}` : "";
  return (
    <Sheet aria-label="Removed">
      <Row>
        <p role="status" style={{ flex: "1 1 260px" }}>
          <strong>{plate}</strong> was removed{with_}. It can be put back until{" "}
          {shortDate(addDays(parseISO(at), KEPT_DAYS).toISOString())}.
        </p>
        <Button isDisabled={fetcher.state !== "idle"} onPress={() => send("put-back")}>
          Put {plate} back
        </Button>
        <ConfirmButton
          label="Let it go now"
          question={`Throw ${plate} away for good?`}
          sure="Throw it away"
          onConfirm={() => send("let-go")}
        />
      </Row>
      <Trouble problem={fetcher.data?.problem} />
    </Sheet>
  );
}
