import { Check, TriangleAlert, Wrench } from "lucide-react";
import styled from "styled-components";
import type { Job } from "@core/record/types";
import { shortTime } from "~/store/format";
import { Button } from "~/ui/Button";
import { Sheet, Soft } from "~/ui/bits";

const List = styled.ul`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr) max-content;
    gap: 4px 10px;
    align-items: center;
  }
  svg {
    flex: none;
  }
`;

const GOOD = { good: "good", bad: "bad" } as const;

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
      <List>
        {checks.map((c) => (
          <li key={c.at + c.check}>
            {c.outcome === "good" ? (
              <Check size={22} color="var(--done)" aria-hidden />
            ) : (
              <TriangleAlert size={22} color="var(--danger)" aria-hidden />
            )}
            <div>
              <p>
                {c.title}: <strong>{GOOD[c.outcome]}</strong>
              </p>
              <Soft>
                {c.measured ? `${c.measured} ` : ""}
                {shortTime(c.at)}
              </Soft>
            </div>
            <Button $look="quiet" aria-label={`Take back: ${c.title}`} onPress={() => onTakeBack("checks", c.at)}>
              Take back
            </Button>
          </li>
        ))}
        {repairs.map((r) => (
          <li key={r.at}>
            <Wrench size={22} aria-hidden />
            <div>
              <p>
                <strong>{r.what}</strong>
              </p>
              <Soft>
                {[
                  r.part && `part ${r.part}`,
                  r.cost,
                  r.cures.length > 0 && `for ${r.cures.join(", ")}`,
                  shortTime(r.at),
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </Soft>
            </div>
            <Button $look="quiet" aria-label={`Take back: ${r.what}`} onPress={() => onTakeBack("repairs", r.at)}>
              Take back
            </Button>
          </li>
        ))}
      </List>
    </Sheet>
  );
}
