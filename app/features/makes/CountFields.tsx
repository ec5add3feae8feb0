import type { ClearWay } from "@core/pack/pack";
import type { RideRule } from "@core/pack/ride";
import { LiveField } from "./LiveField";
import { between, figure, wholeBetween } from "./figures";
import { Columns } from "./layout";

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
  const { starts, ride } = c;
  if (starts !== undefined)
    return (
      <LiveField
        label="Starts without the fault"
        description="With no figure the most there is: too few wipe nothing"
        inputMode="numeric"
        keep={`${keep}/starts`}
        value={String(starts)}
        maxLength={3}
        fault={wholeBetween(1, 200)}
        onStore={(t) => onTold({ ...c, starts: Number(t) })}
      />
    );
  if (!ride) return null;
  const tell = (part: Partial<RideRule>) => onTold({ ...c, ride: { ...ride, ...part } });
  /** A figure that need not be told: empty takes it back. */
  const minutes = (t: string) => (t.trim() === "" ? 0 : Math.round(figure(t) * 60));
  const tellAbove = (kmh: number, seconds: number) => {
    const { above: _, ...rest } = ride;
    onTold({ ...c, ride: kmh >= 5 ? { ...rest, above: { kmh, seconds } } : rest });
  };
  const tellIdle = (idleSeconds: number) => {
    const { idleSeconds: _, ...rest } = ride;
    onTold({ ...c, ride: idleSeconds > 0 ? { ...rest, idleSeconds } : rest });
  };
  return (
    <Columns>
      <LiveField
        label="Rides without the fault"
        inputMode="numeric"
        keep={`${keep}/rides`}
        value={String(ride.rides)}
        maxLength={2}
        fault={wholeBetween(1, 60)}
        onStore={(t) => tell({ rides: Number(t) })}
      />
      <LiveField
        label="Each, minutes on the way"
        inputMode="decimal"
        keep={`${keep}/ride`}
        value={String(ride.seconds / 60)}
        maxLength={4}
        fault={between(1, 600)}
        onStore={(t) => tell({ seconds: Math.round(figure(t) * 60) })}
      />
      <LiveField
        label="Minutes standing first, engine running"
        description="Empty where none is asked"
        inputMode="decimal"
        keep={`${keep}/ride-idle`}
        value={ride.idleSeconds ? String(ride.idleSeconds / 60) : ""}
        maxLength={4}
        fault={(t) => (t.trim() === "" ? null : between(0, 60)(t))}
        onStore={(t) => tellIdle(minutes(t))}
      />
      <LiveField
        label="Faster than, km/h"
        description="Empty where none is asked"
        inputMode="numeric"
        keep={`${keep}/ride-speed`}
        value={ride.above ? String(ride.above.kmh) : ""}
        maxLength={3}
        fault={(t) => (t.trim() === "" ? null : between(5, 250)(t))}
        onStore={(t) => tellAbove(figure(t), ride.above?.seconds ?? 60)}
      />
      {ride.above && (
        <LiveField
          label="For how many minutes in all"
          inputMode="decimal"
          keep={`${keep}/ride-fast`}
          value={String(ride.above.seconds / 60)}
          maxLength={4}
          fault={between(0.1, 120)}
          onStore={(t) => tellAbove(ride.above!.kmh, Math.round(figure(t) * 60))}
        />
      )}
    </Columns>
  );
}
