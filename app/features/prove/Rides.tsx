import { Check, Minus, X } from "lucide-react";
import { ridesAsked } from "@core/proving/asked";
import { ruleSays } from "@core/proving/told";
import { countingSince } from "@core/proving/count";
import type { RideDone } from "@core/record/types";
import { shortTime } from "~/store/format";
import { useIntents, useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { DoneLine, DoneLines } from "~/ui/DoneLine";
import { Sheet } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import type { ProveIntents } from "./intents";
import { RideByHand } from "./RideByHand";
import { RideLog } from "./RideLog";

/** Rides since the clear, held against what the make asks: noted by hand, or read from a log. */
export function Rides() {
  const { job, pack } = useJob();
  const told = useSettings();
  const { send, busy, problem } = useIntents<ProveIntents>("prove");
  const asked = ridesAsked(job, pack);
  if (!asked) return null;
  const { rule, since, wipes } = asked;
  const counting = countingSince(job.rides, since).length;
  const rides = job.rides.filter((r) => !r.withdrawnAt);
  return (
    <Sheet aria-label={wipes ? "Rides until it wipes itself" : "Rides since the clear"}>
      <h2>
        Rides that count: {counting} of {rule.rides}
      </h2>
      <p>{ruleSays(rule, told)}</p>
      {rides.length > 0 && (
        <DoneLines>
          {rides.map((r) => (
            <RideLine
              key={r.at}
              ride={r}
              late={r.at <= since}
              before={wipes ? "before the count began" : "before the clear, so it proves nothing"}
              onTakeBack={() => send({ intent: "take-back", at: r.at })}
            />
          ))}
        </DoneLines>
      )}
      <RideLog
        job={job.id}
        rule={rule}
        unit={told}
        known={rides}
        busy={busy}
        onNote={(rides, recorded) => send({ intent: "rides", rides, recorded })}
      />
      <RideByHand rule={rule} unit={told} busy={busy} onNote={(ride) => send({ intent: "rides", rides: [ride] })} />
      <Trouble problem={problem} />
    </Sheet>
  );
}

function RideLine({
  ride,
  late,
  before,
  onTakeBack,
}: {
  ride: RideDone;
  late: boolean;
  /** What is said where it is too early to count. */
  before: string;
  onTakeBack: () => void;
}) {
  const Icon = late || ride.counts === "no" ? X : ride.counts === "yes" ? Check : Minus;
  return (
    <DoneLine
      icon={<Icon size={22} aria-hidden color={!late && ride.counts === "yes" ? "var(--done)" : "var(--ink-soft)"} />}
      of={`the ride of ${shortTime(ride.at)}`}
      more={ride.by === "log" ? "from a log" : "as you told it"}
      onTakeBack={onTakeBack}
    >
      {shortTime(ride.at)}, {Math.round(ride.seconds / 60)} min: <strong>{late ? before : ride.says}</strong>
    </DoneLine>
  );
}
