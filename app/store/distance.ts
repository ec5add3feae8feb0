import type { Settings } from "./settings";

/** Kilometres in a mile, by definition. */
const MILE_KM = 1.609344;

/** What an odometer shows goes by the unit of speed. */
export const unitOf = (speed: Settings["speed"]): "km" | "miles" => (speed === "mph" ? "miles" : "km");
export const kmOf = (shown: number, speed: Settings["speed"]): number => (speed === "mph" ? shown * MILE_KM : shown);

/** "84,210 km" */
export const distanceText = (km: number, speed: Settings["speed"]): string =>
  `${Math.round(speed === "mph" ? km / MILE_KM : km).toLocaleString("en")} ${unitOf(speed)}`;
