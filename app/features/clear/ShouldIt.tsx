import { clearAdvice, type Advice, type AdviceFacts } from "@core/clearing/advice";
import { codeKind } from "@core/job/faults";
import { atLeast } from "@core/job/told";
import { clock } from "~/store/clock";
import { ownOf } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { LinkButton } from "~/ui/Button";
import { Row } from "~/ui/bits";

const DAY_MS = 86_400_000;

/** Whether to clear it now, and why; nothing is forbidden by it. */
export function useAdvice(readiness: AdviceFacts["readiness"]): Advice & { whole: boolean } {
  const data = useJob();
  const { job, vehicle, access } = data;
  const { school } = useSettings();
  const { known } = ownOf(data);
  const faults = new Set(known.codes.map((x) => x.code).filter((c) => codeKind(data, access.system, c) === "fault"));
  const read = known.last?.reading.startedAt ?? "";
  const since = (list: readonly { at: string; withdrawnAt?: string }[]) =>
    list.some((x) => !x.withdrawnAt && x.at > read);
  const whole = atLeast(known.answer === "none" ? known.none : known.whole, "likely");
  const days = (iso: string) => Math.round((startOfDay(Date.parse(iso)) - startOfDay(clock.now())) / DAY_MS);
  const advice = clearAdvice({
    faults: faults.size,
    whole,
    checked: since(job.checks),
    mended: since(job.repairs),
    inspectionIn: vehicle.inspection ? days(vehicle.inspection) : null,
    readiness,
    school,
  });
  return { ...advice, whole };
}

/** The reason of an advice, and where to go by it. */
export function ShouldIt({ advice: { is, reason, whole } }: { advice: Advice & { whole: boolean } }) {
  const { job } = useJob();
  return (
    <>
      <p>{reason}</p>
      {is === "look" && (
        <Row>
          <LinkButton to={jobPath(job.id, whole ? "checks" : "read")}>
            {whole ? "To the checks" : "Read it once more"}
          </LinkButton>
        </Row>
      )}
    </>
  );
}

const startOfDay = (at: number): number => new Date(at).setHours(0, 0, 0, 0);
