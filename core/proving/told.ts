import { KMH } from "../logs/log";
import type { Pack } from "../pack/pack";
import type { RideRule } from "../pack/ride";
import type { RideDone } from "../record/types";
import { countsOf, isWarm, type Counts, type Part, type RideJudged } from "./rides";

/** What a ride must hold to prove something: as the pack says, else its time alone. */
export const rideRuleOf = ({ proving }: Pick<Pack, "proving">): RideRule =>
  proving.ride ?? { seconds: (proving.driveMinutes ?? USUAL_MINUTES) * 60, rides: 1 };
const USUAL_MINUTES = 15;

/** A ride, before it is noted. */
export type RideNoted = Omit<RideDone, "notedAt">;

/** In what speeds and temperatures are told to this person. */
export interface Told {
  speed: "km/h" | "mph";
  temperature: "°C" | "°F";
}

export const speedText = (kmh: number, { speed }: Pick<Told, "speed">): string =>
  `${Math.round(kmh / KMH[speed])} ${speed}`;
export const warmthText = (celsius: number, { temperature }: Pick<Told, "temperature">): string =>
  `${Math.round(temperature === "°F" ? (celsius * 9) / 5 + 32 : celsius)} ${temperature}`;

/** "4:10", and hours before that where there are some. */
function clockText(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds));
  const two = (n: number) => String(n).padStart(2, "0");
  const [h, m] = [Math.floor(s / 3600), Math.floor(s / 60) % 60];
  return h ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
}

/** "15 min", and "2:30 min" where it is no whole minute. */
const minutesText = (seconds: number): string => `${seconds % 60 ? clockText(seconds) : Math.round(seconds / 60)} min`;

/** What counts, in one sentence. */
export function ruleSays({ idleSeconds, seconds, above, celsius, offSeconds, rides }: RideRule, unit: Told): string {
  const parts = [
    `${minutesText(seconds)} on the way`,
    above && `${minutesText(above.seconds)} of it at ${speedText(above.kmh, unit)} or more`,
    idleSeconds !== undefined && `${minutesText(idleSeconds)} standing with the engine running before`,
    celsius !== undefined && `the coolant at ${warmthText(celsius, unit)} or more once`,
    offSeconds !== undefined && `the engine off for ${minutesText(offSeconds)} since the ride before`,
  ].filter(Boolean);
  return `${rides === 1 ? "One ride" : `${rides} rides, each`}: ${parts.join(", ")}.`;
}

const WORDS: Record<Counts, string> = {
  yes: "counts",
  no: "does not count",
  unknown: "not known whether it counts",
};

/** Whether a ride counts, and by how much it missed: "does not count: at 80 km/h or more for 1:40 of 2:00." */
export function rideSays(
  ride: Pick<RideJudged, "idle" | "length" | "above" | "warm" | "off" | "counts">,
  rule: RideRule,
  unit: Told,
): string {
  const says = (part: Part | null, of: (time: string) => string, first = false): string[] => {
    if (!part || (countsOf(part) === "yes" && !first)) return [];
    const open = countsOf(part) === "unknown" ? `, ${unknownText(part)}` : "";
    const { have, need } = part;
    return [
      of(have >= need ? `${clockText(have)} (${clockText(need)} needed)` : `${clockText(have)} of ${clockText(need)}`) +
        open,
    ];
  };
  const { warm } = ride;
  const cold = warm && isWarm(warm) !== "yes";
  const all = [
    ...says(ride.above, (time) => `at ${speedText(rule.above!.kmh, unit)} or more for ${time}`, ride.counts === "yes"),
    ...says(ride.length, (time) => `on the way for ${time}`, ride.counts === "yes" && !ride.above),
    ...says(ride.idle, (time) => `standing at the start for ${time}`),
    ...(cold
      ? [
          warm.have === null
            ? `the coolant has to get to ${warmthText(warm.need, unit)}, and this log does not tell that`
            : `the coolant at ${warmthText(warm.have, unit)} of ${warmthText(warm.need, unit)}`,
        ]
      : []),
    ...says(ride.off, (time) =>
      ride.off?.unknown === Infinity
        ? `the engine has to be off for ${clockText(ride.off.need)} before`
        : `engine off before for ${time}`,
    ),
  ];
  return `${WORDS[ride.counts]}${all.length ? `: ${all.join("; ")}` : ""}.`;
}

const unknownText = ({ unknown, margin }: Part): string =>
  unknown === Infinity
    ? "and this log does not tell that"
    : unknown > 0
      ? `and ${clockText(unknown)} of which the log tells nothing`
      : margin
        ? "which is nearer than positions can tell"
        : "";

/** A ride of a log as it is noted. @param at when it set off */
export const noted = (ride: RideJudged, rule: RideRule, unit: Told, at: string): RideNoted => ({
  at,
  seconds: Math.round(ride.length.have),
  above: ride.above && Math.round(ride.above.have),
  idle: ride.idle && Math.round(ride.idle.have),
  counts: ride.counts,
  says: rideSays(ride, rule, unit),
  by: "log",
});

/** A ride as somebody tells it, seconds. Whoever drove it knows what the rule asks. */
export function byHand(
  told: { seconds: number; above: number; idle: number; off: number; warm?: boolean },
  rule: RideRule,
  unit: Told,
  at: string,
): RideNoted {
  const part = (have: number, need: number): Part => ({ have, unknown: 0, need });
  const parts = {
    length: part(told.seconds, rule.seconds),
    above: rule.above ? part(told.above, rule.above.seconds) : null,
    idle: rule.idleSeconds === undefined ? null : part(told.idle, rule.idleSeconds),
    off: rule.offSeconds === undefined ? null : part(told.off, rule.offSeconds),
  };
  const all = Object.values(parts).flatMap((p) => p ?? []);
  // Whoever saw the gauge knows whether it got there, and not by how much it missed.
  const warm = rule.celsius === undefined || told.warm;
  const counts = all.every((p) => countsOf(p) === "yes") && warm ? "yes" : "no";
  return {
    at,
    seconds: told.seconds,
    above: rule.above ? told.above : null,
    idle: rule.idleSeconds === undefined ? null : told.idle,
    counts,
    says: `${rideSays({ ...parts, warm: null, counts }, rule, unit).replace(/\.$/, "")}${warm ? "" : `; the coolant did not get to ${warmthText(rule.celsius!, unit)}`}.`,
    by: "hand",
  };
}
