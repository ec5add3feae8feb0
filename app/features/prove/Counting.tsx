import { countedOf, countedText } from "@core/clearing/counting";
import { shortTime } from "~/store/format";
import { useIntents, useJob } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Bar, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import type { ProveIntents } from "./intents";

/** A unit that is used until it wipes itself: how far it has come, and what ends it. */
export function Counting() {
  const { job, pack } = useJob();
  const { send, busy, problem } = useIntents<ProveIntents>("prove");
  const way = pack.clears.find((w) => w.id === job.counting?.way);
  const counted = countedOf(job);
  if (!job.counting || !way || !counted) return null;
  const { of, have, need } = counted;
  const last = job.counting.starts.at(-1);
  const done = have >= need;
  return (
    <Sheet aria-label="Wiping itself">
      <h2>{done ? "Often enough: read it again." : `Wiping itself: ${countedText(counted)}`}</h2>
      <Bar aria-hidden>
        <i style={{ width: `${Math.min(100, (100 * have) / need)}%` }} />
      </Bar>
      <p>{way.what}</p>
      {!done && way.trap && <Soft>{way.trap}</Soft>}
      {of === "starts" && (
        <>
          <Row>
            <Button
              $look={done ? "secondary" : "primary"}
              onPress={() => send({ intent: "start", seen: job.counting!.starts.length })}
            >
              One more start, lamp out
            </Button>
            {last !== undefined && (
              <Button $look="quiet" isDisabled={busy} onPress={() => send({ intent: "no-start" })}>
                Take the last one back
              </Button>
            )}
          </Row>
          {last !== undefined && (
            <Soft>
              Last one noted {shortTime(last)}. A start counts after {way.seconds} s of running.
            </Soft>
          )}
        </>
      )}
      {of === "rides" && !done && <Soft>Note each ride below: one that holds less does not count.</Soft>}
      <Row>
        {done ? (
          <Button $look="primary" isDisabled={busy} onPress={() => send({ intent: "counted", early: false })}>
            Done: it should be wiped
          </Button>
        ) : (
          <ConfirmButton
            label="It is wiped already"
            question={`Only ${countedText(counted)}. Note it as wiped all the same?`}
            sure="Yes, note it"
            keep="Count on"
            onConfirm={() => send({ intent: "counted", early: true })}
          />
        )}
        <ConfirmButton
          label="The lamp came on"
          question="Then the unit counts from the beginning. Begin the count anew?"
          sure="Yes, from 0"
          keep="Count on"
          onConfirm={() => send({ intent: "count-anew" })}
        />
        <ConfirmButton
          label="Stop counting"
          question="Stop, and lose the count?"
          sure="Stop it"
          keep="Count on"
          onConfirm={() => send({ intent: "count-no-more" })}
        />
      </Row>
      <Trouble problem={problem} />
    </Sheet>
  );
}
