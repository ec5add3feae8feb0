import { Check, TriangleAlert, Wrench } from "lucide-react";
import type { Job } from "@core/record/types";
import { shortTime } from "~/store/format";
import { DoneLine, DoneLines } from "~/ui/DoneLine";
import { Sheet } from "~/ui/bits";

/** Checks and repairs of this job; each can be taken back. */
export function DoneList({
  job,
  onTakeBack,
}: {
  job: Job;
  onTakeBack: (what: "checks" | "repairs", at: string) => void;
}) {
  const checks = job.checks.filter((c) => !c.withdrawnAt);
  const repairs = job.repairs.filter((r) => !r.withdrawnAt);
  if (!checks.length && !repairs.length) return null;
  return (
    <Sheet aria-label="Done so far">
      <h2>Done so far</h2>
      <DoneLines>
        {checks.map((c) => (
          <DoneLine
            key={c.at + c.check}
            icon={
              c.outcome === "good" ? (
                <Check size={22} color="var(--done)" aria-hidden />
              ) : (
                <TriangleAlert size={22} color="var(--danger)" aria-hidden />
              )
            }
            of={c.title}
            more={`${c.measured ? `${c.measured} ` : ""}${shortTime(c.at)}`}
            onTakeBack={() => onTakeBack("checks", c.at)}
          >
            {c.title}: <strong>{c.outcome}</strong>
          </DoneLine>
        ))}
        {repairs.map((r) => (
          <DoneLine
            key={r.at}
            icon={<Wrench size={22} aria-hidden />}
            of={r.what}
            more={[
              r.part && `part ${r.part}`,
              r.cost,
              r.cures.length > 0 && `for ${r.cures.join(", ")}`,
              shortTime(r.at),
            ]
              .filter(Boolean)
              .join(" · ")}
            onTakeBack={() => onTakeBack("repairs", r.at)}
          >
            <strong>{r.what}</strong>
          </DoneLine>
        ))}
      </DoneLines>
    </Sheet>
  );
}
