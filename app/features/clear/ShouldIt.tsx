import { Eraser, Eye, Hand } from "lucide-react";
import styled from "styled-components";
import { clearAdvice, type Advice, type AdviceFacts } from "@core/clearing/advice";
import { codeKind } from "@core/job/faults";
import { atLeast } from "@core/job/told";
import { clock } from "~/store/clock";
import { ownOf } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { LinkButton } from "~/ui/Button";
import { Sheet } from "~/ui/bits";

const Box = styled(Sheet)`
  grid-template-columns: 28px minmax(0, 1fr);
  svg {
    margin-top: 2px;
  }
`;

const ICONS = { clear: Eraser, look: Eye, wait: Hand, nothing: Eye };
const DAY_MS = 86_400_000;

/** Whether to clear it now, and why; nothing is forbidden by it. */
export function ShouldIt({ readiness }: { readiness: AdviceFacts["readiness"] }) {
  const data = useJob();
  const { job, vehicle, access } = data;
  const { school } = useSettings();
  const { known } = ownOf(data);
  const faults = new Set(known.codes.map((x) => x.code).filter((c) => codeKind(data, access.system, c) === "fault"));
  const read = known.last?.reading.startedAt ?? "";
  const since = (list: readonly { at: string; withdrawnAt?: string }[]) =>
    list.some((x) => !x.withdrawnAt && x.at > read);
  const advice: Advice = clearAdvice({
    faults: faults.size,
    whole: atLeast(known.whole, "likely") || known.answer === "none",
    checked: since(job.checks),
    mended: since(job.repairs),
    inspectionIn: vehicle.inspection
      ? Math.round((startOfDay(Date.parse(vehicle.inspection)) - startOfDay(clock.now())) / DAY_MS)
      : null,
    readiness,
    school,
  });
  const Icon = ICONS[advice.is];
  return (
    <Box aria-label="Should it be cleared now">
      <Icon size={28} aria-hidden />
      <div style={{ display: "grid", gap: 8 }}>
        <h2>{advice.headline}</h2>
        <p>{advice.reason}</p>
        {advice.is === "look" && (
          <div>
            <LinkButton to={jobPath(job.id, atLeast(known.whole, "likely") ? "checks" : "read")}>
              {atLeast(known.whole, "likely") ? "To the checks" : "Read it once more"}
            </LinkButton>
          </div>
        )}
      </div>
    </Box>
  );
}

const startOfDay = (at: number): number => new Date(at).setHours(0, 0, 0, 0);
