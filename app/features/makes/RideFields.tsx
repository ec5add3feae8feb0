import type { RideRule } from "@core/pack/ride";
import { between, figure, wholeBetween } from "./figures";
import { LiveField } from "./LiveField";
import { Columns } from "./layout";

/** A figure that need not be told. */
const ifTold = (fault: (typed: string) => string | null) => (typed: string) =>
  typed.trim() === "" ? null : fault(typed);
const NONE = "Empty where none is asked";
const minutes = (seconds: number | undefined) => (seconds ? String(seconds / 60) : "");
const seconds = (typed: string) => Math.round(figure(typed) * 60);

/** What a ride has to hold to count. @param of "Rides without the fault" */
export function RideFields({
  ride,
  of,
  keep,
  onTold,
}: {
  ride: RideRule;
  of: string;
  keep: string;
  onTold: (r: RideRule) => void;
}) {
  const { above, celsius, idleSeconds, offSeconds, ...must } = ride;
  /** Takes what is told over the rest, and leaves out what is not asked any more. */
  const tell = (part: { [K in keyof RideRule]?: RideRule[K] | undefined }) => {
    const all = { ...ride, ...part };
    onTold({
      rides: all.rides ?? must.rides,
      seconds: all.seconds ?? must.seconds,
      ...(all.idleSeconds && { idleSeconds: all.idleSeconds }),
      ...(all.above && { above: all.above }),
      ...(all.celsius && { celsius: all.celsius }),
      ...(all.offSeconds && { offSeconds: all.offSeconds }),
    });
  };
  return (
    <Columns>
      <LiveField
        label={of}
        inputMode="numeric"
        keep={`${keep}/rides`}
        value={String(must.rides)}
        maxLength={2}
        fault={wholeBetween(1, 60)}
        onStore={(t) => tell({ rides: Number(t) })}
      />
      <LiveField
        label="Each, minutes on the way"
        inputMode="decimal"
        keep={`${keep}/ride`}
        value={minutes(must.seconds)}
        maxLength={6}
        fault={between(1, 600)}
        onStore={(t) => tell({ seconds: seconds(t) })}
      />
      <LiveField
        label="Minutes standing first, engine running"
        description={NONE}
        inputMode="decimal"
        keep={`${keep}/ride-idle`}
        value={minutes(idleSeconds)}
        maxLength={6}
        fault={ifTold(between(0, 60))}
        onStore={(t) => tell({ idleSeconds: seconds(t) || undefined })}
      />
      <LiveField
        label="As fast as, km/h"
        description={NONE}
        inputMode="numeric"
        keep={`${keep}/ride-speed`}
        value={String(above?.kmh ?? "")}
        maxLength={3}
        fault={ifTold(between(5, 250))}
        onStore={(t) => tell({ above: t.trim() ? { kmh: figure(t), seconds: above?.seconds ?? 60 } : undefined })}
      />
      {above && (
        <LiveField
          label="For how many minutes in all"
          inputMode="decimal"
          keep={`${keep}/ride-fast`}
          value={minutes(above.seconds)}
          maxLength={6}
          fault={between(0.1, 120)}
          onStore={(t) => tell({ above: { ...above, seconds: seconds(t) } })}
        />
      )}
      <LiveField
        label="Coolant as warm as, °C"
        description={NONE}
        inputMode="numeric"
        keep={`${keep}/ride-warm`}
        value={String(celsius ?? "")}
        maxLength={3}
        fault={ifTold(between(20, 130))}
        onStore={(t) => tell({ celsius: t.trim() ? figure(t) : undefined })}
      />
      <LiveField
        label="Minutes the engine is off before"
        description={NONE}
        inputMode="decimal"
        keep={`${keep}/ride-off`}
        value={minutes(offSeconds)}
        maxLength={6}
        fault={ifTold(between(0, 14_400))}
        onStore={(t) => tell({ offSeconds: seconds(t) || undefined })}
      />
    </Columns>
  );
}
