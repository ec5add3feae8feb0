import { number, object, optional, whole, type Of } from "../schema/rule";

/** What a ride must hold to count, where something is proven, or a unit wipes itself, by riding. */
export const rideRule = object({
  /** Engine running at a standstill, at its start, seconds at least. */
  idleSeconds: optional(number(0, 3600)),
  /** From setting off to the end, seconds at least. */
  seconds: number(10, 36_000),
  /** Above a speed for so long in all. */
  above: optional(object({ kmh: number(5, 250), seconds: number(1, 7200) })),
  /** The coolant has to get so warm on the way, °C. */
  celsius: optional(number(20, 130)),
  /** Engine off before it, since the ride before, seconds at least. */
  offSeconds: optional(number(0, 864_000)),
  /** So many such rides. */
  rides: whole(1, 60),
});
export type RideRule = Of<typeof rideRule>;
