import { KMH, SPEED_UNITS, type LogRead, type Raw, type SpeedUnit } from "./log";
import { median, slopeSpeed } from "./positions";

/** More of its rows than this going back in time make two recordings of a file. */
const MOST_BACKWARD = 0.02;
/** An hour back with nothing else amiss is the end of summer time, s. */
const HOUR = 3600;
/** Nobody drives faster, km/h. */
const FASTEST = 350;
/** A speed that leaves both its neighbours by so much and comes back within this time was not driven, km/h and s. */
const SPIKE = 25;
const SPIKE_S = 3;
/** From here on the moving speed by position tells in what the recorded one is told, km/h; and so many rows at least. */
const MOVING = 15;
const ENOUGH = 20;
/** The recorded speed must lie within this factor of a unit to be told in it. */
const SAME_UNIT = 1.12;
/** A position further off than this from one row to the next is another vehicle's, km/h. */
const TELEPORT = 500;

/** @param unit in what the speeds are told, by whoever knows; null where the file has to say it */
export function cleaned(raw: Raw, unit: SpeedUnit | null): LogRead {
  const notes: string[] = [];
  const order = inOrder(raw, notes);
  if ("fault" in order) return order;
  const { t, rows } = order;
  const pick = (v: Float64Array | null) => {
    if (!v || rows.length === v.length) return v;
    const out = new Float64Array(rows.length);
    for (let i = 0; i < rows.length; i++) out[i] = v[rows[i]];
    return out;
  };
  const [lat, lon] = [pick(raw.lat), pick(raw.lon)];
  const recorded = pick(raw.speed);
  if (t.length < 3) return { fault: "Too few of its rows could be read to say anything." };
  if (raw.skipped)
    notes.push(
      `${raw.skipped} ${raw.skipped === 1 ? "row" : "rows"} could not be read and ${raw.skipped === 1 ? "is" : "are"} left out.`,
    );
  const celsius = warmth(pick(raw.coolant), raw.degrees, notes);
  const derived = lat && lon ? slopeSpeed(t, lat, lon) : null;
  if (lat && lon && teleports(t, lat, lon))
    return {
      fault:
        "Its positions jump between two places again and again: two vehicles in one file? Save each one's track as a file of its own.",
    };
  if (!recorded || known(recorded) < ENOUGH) {
    if (!derived) return { fault: "It has times, but next to no speeds." };
    notes.push("Speeds are worked out from the positions.");
    return {
      log: {
        t: shifted(t, raw),
        kmh: derived.kmh,
        celsius,
        dated: raw.dated,
        zoned: raw.zoned,
        noise: derived.noise,
        notes,
      },
    };
  }
  const by = unit ?? unitOf(recorded, derived?.kmh ?? null, raw.unit, notes);
  if (!by) return { fault: "It does not say in what its speeds are told.", asks: "unit" };
  const kmh = plausible(
    t,
    recorded.map((v) => v * KMH[by]),
    notes,
  );
  return { log: { t: shifted(t, raw), kmh, celsius, dated: raw.dated, zoned: raw.zoned, noise: 0, notes } };
}

const known = (v: Float64Array): number => v.reduce((n, x) => n + Number(!Number.isNaN(x)), 0);

/** No coolant is colder or hotter, °C. */
const COOLANT = [-40, 150] as const;
/** From here on a warm engine that does not say so is told in °F. */
const NO_CELSIUS = 130;

/** The coolant in °C; what cannot be is not known. */
function warmth(told: Float64Array | null, degrees: "°C" | "°F" | null, notes: string[]): Float64Array | null {
  if (!told || !known(told)) return null;
  const hottest = told.reduce((max, v) => (v > max ? v : max), -Infinity);
  const fahrenheit = degrees === "°F" || (degrees === null && hottest > NO_CELSIUS);
  if (fahrenheit && degrees === null)
    notes.push("Its temperatures are taken to be told in °F: no coolant is that hot in °C.");
  const celsius = told.map((v) => (fahrenheit ? ((v - 32) * 5) / 9 : v));
  return celsius.map((v) => (v < COOLANT[0] || v > COOLANT[1] ? NaN : v));
}

/** Where there are no dates, time counts from the first row. */
const shifted = (t: Float64Array, { dated }: Raw): Float64Array => (dated ? t : t.map((x) => x - t[0]));

/** Rows in order of time; the last of several of one moment counts. */
function inOrder({ t }: Raw, notes: string[]): { t: Float64Array; rows: Int32Array } | { fault: string } {
  const rows = new Int32Array(t.length);
  const time = new Float64Array(t.length);
  let size = 0;
  let back = 0;
  let shift = 0;
  let summer = false;
  for (let i = 0; i < t.length; i++) {
    let at = t[i] + shift;
    const last = size ? time[size - 1] : -Infinity;
    if (at < last && !summer && Math.abs(last - at - HOUR) < 120) {
      shift = HOUR;
      summer = true;
      at += HOUR;
    }
    if (at < last) {
      back++;
      continue;
    }
    if (at === last) size--;
    time[size] = at;
    rows[size++] = i;
  }
  if (back > MOST_BACKWARD * t.length)
    return { fault: "Its times go back and forth: two recordings in one file? Save each as a file of its own." };
  if (back)
    notes.push(
      `${back} ${back === 1 ? "row goes" : "rows go"} back in time and ${back === 1 ? "is" : "are"} left out.`,
    );
  if (summer)
    notes.push("Its clock goes back an hour in the middle, as at the end of summer time: it is taken to run on.");
  return { t: time.subarray(0, size), rows: rows.subarray(0, size) };
}

function teleports(t: Float64Array, lat: Float64Array, lon: Float64Array): boolean {
  let jumps = 0;
  let before = -1;
  for (let i = 0; i < t.length; i++) {
    if (Number.isNaN(lat[i] + lon[i])) continue;
    if (before >= 0) {
      const metres = Math.hypot(
        (lat[i] - lat[before]) * 111_195,
        (lon[i] - lon[before]) * 111_195 * Math.cos((lat[i] * Math.PI) / 180),
      );
      // A fix that was lost may come back elsewhere: only far jumps within a moment are none of one vehicle.
      if (metres > 300 && (metres / Math.max(0.1, t[i] - t[before])) * 3.6 > TELEPORT) jumps++;
    }
    before = i;
  }
  return jumps > 4;
}

/** In what the speeds are told: what fits the positions goes before what the heading says. */
function unitOf(
  recorded: Float64Array,
  derived: Float64Array | null,
  said: SpeedUnit | null,
  notes: string[],
): SpeedUnit | null {
  if (!derived) return said;
  const ratios: number[] = [];
  // Some thousands of them tell it.
  const stride = Math.ceil(recorded.length / 5000);
  for (let i = 0; i < recorded.length; i += stride)
    if (derived[i] > MOVING && recorded[i] > 0) ratios.push(derived[i] / recorded[i]);
  if (ratios.length < ENOUGH) return said;
  const ratio = median(ratios);
  const off = (u: SpeedUnit) => Math.abs(Math.log(ratio / KMH[u]));
  const best = SPEED_UNITS.reduce((a, b) => (off(b) < off(a) ? b : a));
  if (off(best) > Math.log(SAME_UNIT)) return said;
  if (said && said !== best && off(said) > Math.log(SAME_UNIT))
    notes.push(`Its heading says ${said}, but by its positions the speeds are told in ${best}.`);
  return said && off(said) <= Math.log(SAME_UNIT) ? said : best;
}

/** Speeds that nobody can have driven are not known. */
function plausible(t: Float64Array, kmh: Float64Array, notes: string[]): Float64Array {
  const out = kmh.slice();
  let odd = 0;
  for (let i = 0; i < out.length; i++) {
    if (Number.isNaN(out[i])) continue;
    // A little below nothing is noise.
    if (out[i] > -3 && out[i] < 0) out[i] = 0;
    const [a, b] = [kmh[i - 1], kmh[i + 1]];
    const spike =
      t[i + 1] - t[i - 1] < SPIKE_S &&
      Math.abs(kmh[i] - a) > SPIKE &&
      Math.abs(kmh[i] - b) > SPIKE &&
      Math.abs(a - b) < SPIKE;
    if (out[i] < 0 || out[i] > FASTEST || spike) {
      out[i] = NaN;
      odd++;
    }
  }
  if (odd)
    notes.push(
      `${odd} ${odd === 1 ? "speed" : "speeds"} nobody can have driven ${odd === 1 ? "counts" : "count"} as not known.`,
    );
  return out;
}
