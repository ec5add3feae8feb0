import type { Limit, Measured } from "../pack/circuit";

/** Units that a meter shows, each as so many of the unit that a limit is told in. */
export const UNITS: Readonly<Record<Measured, Readonly<Record<string, number>>>> = {
  V: { V: 1, mV: 0.001 },
  ohm: { Ω: 1, kΩ: 1000, MΩ: 1_000_000 },
  "%": { "%": 1 },
  bar: { bar: 1, kPa: 0.01, psi: 0.0689476 },
};

/** What can be measured on a vehicle at all. */
const PHYSICS: Readonly<Record<Measured, readonly [number, number]>> = {
  V: [-50, 400],
  ohm: [0, 1e9],
  "%": [0, 100],
  bar: [-1, 3000],
};
const CELSIUS = [-50, 1200] as const;

/** An open line: the meter shows no figure. */
const OPEN = /^(ol|o\.l\.?|open|inf|∞)$/i;

export type Read<T> = { value: T } | { fault: string };

/**
 * Reads a figure off a meter: point or comma, with or without its unit.
 * @param unit the unit that stands beside the field; one that is typed with the figure goes before it
 * @returns the value in the unit of the limit; Infinity for an open line
 */
export function readMeasured(typed: string, of: Measured, unit: string): Read<number> {
  const text = typed.trim().replace(/−/g, "-");
  if (!text) return { fault: "Type what the meter shows" };
  if (of === "ohm" && OPEN.test(text)) return { value: Infinity };
  const found = /^([-+]?\d{1,9}(?:[.,]\d{1,6})?|[-+]?[.,]\d{1,6})\s*([^\d\s].*)?$/.exec(text);
  if (!found)
    return { fault: `"${typed.trim().slice(0, 20)}" is not a figure. Type it as the meter shows it, like 2.35` };
  const named = found[2]?.trim();
  const factor = named === undefined ? UNITS[of][unit] : factorOf(of, named);
  if (factor === undefined)
    return {
      fault: `"${named ?? unit}" does not fit here: this is measured in ${Object.keys(UNITS[of]).join(" or ")}`,
    };
  const value = Number(found[1].replace(",", ".")) * factor;
  const [low, high] = PHYSICS[of];
  if (value < low || value > high)
    return {
      fault: `${show(value, of)} cannot be: between ${show(low, of)} and ${show(high, of)} on a vehicle. Look at the meter's range`,
    };
  return { value };
}

const NAMES: Readonly<Record<string, string>> = {
  ohm: "Ω",
  ohms: "Ω",
  k: "kΩ",
  kohm: "kΩ",
  kohms: "kΩ",
  v: "V",
  mv: "mV",
};

function factorOf(of: Measured, named: string): number | undefined {
  const plain = named.replace(/Ω/g, "Ω");
  return UNITS[of][plain] ?? UNITS[of][NAMES[plain.toLowerCase()] ?? ""];
}

/** Reads a temperature; always °C inside. */
export function readTemperature(typed: string, unit: "°C" | "°F"): Read<number> {
  const found = /^\s*([-+−]?\d{1,4}(?:[.,]\d{1,2})?)\s*(°?\s*[CF])?\s*$/i.exec(typed);
  if (!found) return { fault: `Type how warm it is, in ${unit}` };
  const is = found[2] ? (/f/i.test(found[2]) ? "°F" : "°C") : unit;
  const n = Number(found[1].replace(",", ".").replace("−", "-"));
  const celsius = is === "°F" ? (n - 32) / 1.8 : n;
  return celsius < CELSIUS[0] || celsius > CELSIUS[1]
    ? { fault: `${n} ${is} cannot be. Type how warm the part is` }
    : { value: celsius };
}

/**
 * Lowest and highest good value; where the limit goes with temperature, at that of the part. Between two points of a curve the
 * logarithm is interpolated, since a thermistor falls by the same share with each degree.
 * @returns null where the temperature is outside the curve, or is needed and not known
 */
export function goodAt(limit: Limit, celsius: number | null): readonly [number, number] | null {
  if (!limit.curve) return limit.good ?? null;
  if (celsius === null) return null;
  const curve = limit.curve;
  const k = curve.findIndex((x, i) => i + 1 < curve.length && celsius >= x.celsius && celsius <= curve[i + 1].celsius);
  if (k < 0) return null;
  const [a, b] = [curve[k], curve[k + 1]];
  const f = (celsius - a.celsius) / (b.celsius - a.celsius);
  const mix = (x: number, y: number) => (x > 0 && y > 0 ? x ** (1 - f) * y ** f : x + f * (y - x));
  return [mix(a.good[0], b.good[0]), mix(a.good[1], b.good[1])];
}

export interface Verdict {
  bad: boolean;
  /** In a sentence, with the margin. */
  says: string;
  /** So near a limit that it is worth a second look. */
  close: boolean;
}

/** Share of the band that counts as near its edge. */
const NEAR = 0.08;

/** Is it good, and by how much? */
export function verdictOn(value: number, [low, high]: readonly [number, number], of: Measured): Verdict {
  const band = `good is ${bandText([low, high], of)}`;
  if (value === Infinity) return { bad: true, says: `An open line: ${band}.`, close: false };
  const room = Math.max(high - low, 1e-9);
  const shown = show(value, of);
  if (value < low)
    return {
      bad: true,
      says: `${shown} is too low by ${show(low - value, of)}: ${band}.`,
      close: low - value < NEAR * room,
    };
  if (value > high)
    return {
      bad: true,
      says: `${shown} is too high by ${show(value - high, of)}: ${band}.`,
      close: value - high < NEAR * room,
    };
  const margin = Math.min(value - low, high - value);
  const zero = low === 0 && value - low === margin;
  const close = !zero && margin < NEAR * room;
  return { bad: false, says: `${shown} is good${close ? ", and only just" : ""}: ${band}.`, close };
}

export const bandText = ([low, high]: readonly [number, number], of: Measured): string =>
  low === 0 ? `up to ${show(high, of)}` : `${show(low, of, high)} to ${show(high, of)}`;

/** A value with its unit: "2.31 kΩ". @param like writes it in the unit of this value and leaves the unit out */
function show(value: number, of: Measured, like?: number): string {
  if (value === Infinity) return "open";
  const by = Math.abs(like ?? value);
  const [factor, unit] =
    of === "ohm" ? (by >= 1e6 ? [1e6, "MΩ"] : by >= 1000 ? [1000, "kΩ"] : [1, "Ω"]) : [1, of as string];
  const n = Number((value / factor).toPrecision(3));
  return like === undefined ? `${n} ${unit}` : `${n}`;
}
