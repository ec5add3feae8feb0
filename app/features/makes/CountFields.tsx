import type { ClearWay } from "@core/pack/pack";
import { LiveField } from "./LiveField";
import { wholeBetween } from "./figures";
import { RideFields } from "./RideFields";

/** Where a unit wipes itself: after how many starts or rides, and what a ride has to hold. */
export function CountFields({
  clear: c,
  keep,
  onTold,
}: {
  clear: ClearWay;
  keep: string;
  onTold: (c: ClearWay) => void;
}) {
  if (c.starts !== undefined)
    return (
      <LiveField
        label="Starts without the fault"
        description="With no figure the most there is: too few wipe nothing"
        inputMode="numeric"
        keep={`${keep}/starts`}
        value={String(c.starts)}
        maxLength={3}
        fault={wholeBetween(1, 200)}
        onStore={(t) => onTold({ ...c, starts: Number(t) })}
      />
    );
  if (!c.ride) return null;
  return (
    <RideFields
      ride={c.ride}
      of="Rides without the fault"
      keep={keep}
      // Of what is counted by rides the engine runs as long as one takes.
      onTold={(ride) => onTold({ ...c, ride, seconds: Math.min(7200, ride.seconds) })}
    />
  );
}
