import { useState } from "react";
import { readMinutes } from "@core/minutes";
import type { RideRule } from "@core/pack/ride";
import { byHand, speedText, warmthText, type RideNoted, type Told } from "@core/proving/told";
import { clock } from "~/store/clock";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Row } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

const UNTOLD = { minutes: "", above: "", idle: "", off: "" };

/** A ride without a log, as somebody tells it. */
export function RideByHand({
  rule,
  unit,
  busy,
  onNote,
}: {
  rule: RideRule;
  unit: Told;
  busy: boolean;
  onNote: (ride: RideNoted) => void;
}) {
  const [open, setOpen] = useState(false);
  const [typed, type] = useState(UNTOLD);
  const [warm, tellWarm] = useState<"yes" | "no" | null>(null);
  const [fault, tell] = useState("");
  if (!open)
    return (
      <div>
        <Button onPress={() => setOpen(true)}>Note a ride without a log</Button>
      </div>
    );
  const asked = {
    minutes: true,
    above: rule.above !== undefined,
    idle: rule.idleSeconds !== undefined,
    off: rule.offSeconds !== undefined,
  };
  return (
    <form
      style={{ display: "grid", gap: 10 }}
      onSubmit={(e) => {
        e.preventDefault();
        const value = {
          minutes: readMinutes(typed.minutes),
          above: readMinutes(typed.above),
          idle: readMinutes(typed.idle),
          off: readMinutes(typed.off),
        };
        const missing = (Object.keys(asked) as (keyof typeof asked)[]).some((k) => asked[k] && value[k] === null);
        if (rule.celsius !== undefined && warm === null) return tell("Say whether the engine got that warm.");
        if (missing) return tell("Type minutes as numbers, up to 1440. 0 where there was none.");
        if ((value.above ?? 0) > value.minutes!)
          return tell("It cannot have been fast for longer than it was on the way.");
        const seconds = value.minutes! * 60;
        // It is told when it is over.
        const at = new Date(clock.now() - seconds * 1000).toISOString();
        onNote(
          byHand(
            {
              seconds,
              above: (value.above ?? 0) * 60,
              idle: (value.idle ?? 0) * 60,
              off: (value.off ?? 0) * 60,
              warm: warm === "yes",
            },
            rule,
            unit,
            at,
          ),
        );
        type(UNTOLD);
        tellWarm(null);
        tell("");
        setOpen(false);
      }}
    >
      {asked.off && (
        <Field
          label="Minutes the engine was off before"
          value={typed.off}
          onChange={(off) => type({ ...typed, off })}
          maxLength={6}
        />
      )}
      {asked.idle && (
        <Field
          label="Minutes standing first, engine running"
          value={typed.idle}
          onChange={(idle) => type({ ...typed, idle })}
          maxLength={6}
        />
      )}
      <Field
        label="Minutes on the way"
        value={typed.minutes}
        onChange={(minutes) => type({ ...typed, minutes })}
        maxLength={6}
      />
      {asked.above && (
        <Field
          label={`Minutes of it at ${speedText(rule.above!.kmh, unit)} or more`}
          value={typed.above}
          onChange={(above) => type({ ...typed, above })}
          maxLength={6}
        />
      )}
      {rule.celsius !== undefined && (
        <Choice
          label={`Did the coolant get to ${warmthText(rule.celsius, unit)}?`}
          value={warm}
          onChange={tellWarm}
          options={[
            { value: "yes", label: "Yes, by the gauge" },
            { value: "no", label: "No, or nobody looked" },
          ]}
        />
      )}
      <Trouble problem={fault || null} />
      <Row>
        <Button $look="primary" type="submit" isDisabled={busy}>
          Note the ride
        </Button>
        <Button $look="quiet" onPress={() => setOpen(false)}>
          Cancel
        </Button>
      </Row>
    </form>
  );
}
