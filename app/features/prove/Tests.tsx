import { Check, Circle } from "lucide-react";
import styled from "styled-components";
import type { Proof } from "@core/job/proof";
import { listOf } from "@core/job/say";
import { entriesFor } from "@core/pack/scope";
import { leadOf, partsIn, testsOf } from "@core/proving/tests";
import { useJob } from "~/store/use-job";
import { Caution, Hidden, Sheet } from "~/ui/bits";
import { StepTimer } from "~/ui/StepTimer";
import { Why } from "~/ui/Why";

const List = styled.ol`
  display: grid;
  gap: 10px;
  > li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 10px;
    > svg {
      margin-top: 3px;
    }
    &:has(button) > svg {
      margin-top: 13px;
    }
  }
`;

/** What would bring a fault back, in the order of what it takes; the next one in full. */
export function Tests({ proof }: { proof: Proof }) {
  const { job, vehicle, pack, access } = useJob();
  const circuits = new Map(entriesFor(pack, vehicle, access.system).map((e) => [e.code, e.circuit]));
  const tests = testsOf(
    proof,
    job.story,
    pack,
    partsIn(proof, (code) => circuits.get(code)),
  );
  const lead = leadOf(proof);
  if (!tests.length || proof.state === "fixed") return null;
  // Of a wiggle no reading tells: it is never the one that everything waits for.
  const next = tests.find((t) => !t.done && t.id !== "wiggle");
  return (
    <Sheet aria-label="Tests that bring it back">
      <h2>Hard, or does it come and go?</h2>
      {lead.length > 0 && (
        <p>
          <strong>{listOf(lead)} came back first.</strong> That is the lead: look there before anything else.
        </p>
      )}
      <List>
        {tests.map((t) => (
          <li key={t.id}>
            {t.done ? <Check size={22} color="var(--done)" aria-hidden /> : <Circle size={22} aria-hidden />}
            {t.done ? (
              <p>
                {t.title}
                <Hidden>, done</Hidden>
              </p>
            ) : (
              <div>
                <Why
                  key={String(t === next)}
                  label={t.title}
                  lines={t === next || !t.caution ? t.how : [...t.how, t.caution]}
                  open={t === next}
                />
                {t === next && t.caution && <Caution>{t.caution}</Caution>}
                {t === next && t.seconds !== undefined && (
                  <StepTimer
                    step={{ id: `test ${t.id}` }}
                    timer={{ kind: "warm-up", seconds: t.seconds, then: "Long enough. Read it now." }}
                    startedAt={job.stepTimer?.step === `test ${t.id}` ? job.stepTimer.startedAt : null}
                  />
                )}
              </div>
            )}
          </li>
        ))}
      </List>
    </Sheet>
  );
}
