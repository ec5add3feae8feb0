import { normal } from "../flash/dialect/encode";
import { KMH, type SpeedUnit } from "../logs/log";
import { isWarm, type Counts, type Part, type Warm } from "../proving/rides";
import type { RideRule } from "../pack/ride";

/** A ride that never was: its file as some logger would have written it, and what is true of it. */
export interface MadeRide {
  text: string;
  rule: RideRule;
  /** Seconds that are true, and those that no row of the file tells of. */
  truth: { idle: Part | null; length: Part; above: Part | null; warm: Warm | null };
  /** What can be said at best. */
  counts: Counts;
}

/** Steps of the true speed, s. */
const STEP = 0.1;
const DELIMITERS = [",", ";", "\t"] as const;
const UNITS: readonly SpeedUnit[] = ["km/h", "mph", "m/s", "kn"];

/** A true speed, km/h every tenth of a second: it stands, then goes through town and country, and stands at the end. */
function trueSpeed(random: () => number): { v: number[]; idle: number } {
  const v: number[] = [];
  const idle = Math.round(20 + random() * 600);
  const stay = (kmh: number, seconds: number) => {
    let wander = 0;
    for (let i = 0; i < seconds / STEP; i++) {
      wander = 0.998 * wander + 0.12 * normal(random);
      v.push(Math.max(0, kmh + (kmh ? wander : 0)));
    }
  };
  const reach = (kmh: number) => {
    const from = v.at(-1) ?? 0;
    const rate = (kmh > from ? 4 + 5 * random() : 6 + 8 * random()) * STEP;
    for (let x = from; Math.abs(kmh - x) > rate; x += kmh > x ? rate : -rate) v.push(Math.max(0, x));
  };
  stay(0, idle);
  const legs = 3 + Math.floor(random() * 8);
  for (let k = 0; k < legs; k++) {
    const kmh = random() < 0.4 ? 30 + 25 * random() : 60 + 70 * random();
    reach(kmh);
    stay(kmh, 20 + random() * 280);
    if (random() < 0.4) {
      reach(0);
      stay(0, 5 + random() * 60);
    }
  }
  reach(0);
  stay(0, 10 + random() * 60);
  return { v, idle };
}

/** The engine warms up on the way, and its thermostat holds it; some are broken and open too early. @returns °C after so many seconds */
function warmUp(random: () => number): (seconds: number) => number {
  const thermostat = random() < 0.7 ? 84 + 6 * random() : 55 + 25 * random();
  const minutes = 2 + 3 * random();
  return (seconds) => thermostat - (thermostat - 12) * Math.exp(-seconds / 60 / minutes);
}

/** A ride as a file: recorded speed or positions or both, at even or mixed times, with noise, dropouts and slips. */
export function makeRide(random: () => number): MadeRide {
  const { v } = trueSpeed(random);
  const rule: RideRule = {
    seconds: Math.round(200 + 1200 * random()),
    above: { kmh: 40 + 10 * Math.floor(6 * random()), seconds: Math.round(30 + 570 * random()) },
    rides: 1,
    ...(random() < 0.5 && { idleSeconds: Math.round(30 + 400 * random()) }),
    ...(random() < 0.3 && { celsius: 60 + 5 * Math.floor(6 * random()) }),
  };
  const coolant = warmUp(random);
  const fahrenheit = random() < 0.3;
  const kind = random();
  const withSpeed = kind < 0.7;
  const withPlace = kind > 0.4;
  const gpx = withPlace && random() < 0.4;
  const every = [0.5, 1, 1, 2][Math.floor(4 * random())];
  const mixed = random() < 0.3;
  const gaps = droppedOut(v.length * STEP, random);
  const rows: string[] = [];
  const told = gpx ? "m/s" : UNITS[Math.floor(4 * random())];
  // Some loggers name the unit wrongly; only positions can show it.
  const wrong = withSpeed && withPlace && !gpx && random() < 0.15;
  const named = wrong ? UNITS[(UNITS.indexOf(told) + 1) % 4] : told;
  const comma = random() < 0.3;
  const delimiter = comma ? ";" : DELIMITERS[Math.floor(3 * random())];
  const form = Math.floor(4 * random());
  const withCoolant = !gpx && random() < 0.6;
  const start = Date.UTC(2026, 5, 3, 8, 0, 0) + Math.floor(random() * 3e9);
  const heading = 2 * Math.PI * random();
  const noise = 2 + 3 * random();
  const number = (x: number, digits: number) => (comma ? x.toFixed(digits).replace(".", ",") : x.toFixed(digits));
  let metres = 0;
  let wander = [0, 0];
  let next = 0;
  for (let i = 0; i < v.length; i++) {
    metres += (v[i] / 3.6) * STEP;
    const at = i * STEP;
    if (at < next - 1e-9) continue;
    const step = every * (mixed ? 0.5 + random() : 1);
    next = at + step;
    // Errors of positions hang together from one to the next.
    const keep = Math.exp(-step / 20);
    wander = wander.map((w) => keep * w + noise * 0.5 * Math.sqrt(1 - keep * keep) * normal(random));
    if (gaps.some(([from, to]) => at > from && at < to)) continue;
    const place = [0, 1].map(
      (k) => (k ? Math.sin(heading) : Math.cos(heading)) * metres + wander[k] + noise * 0.25 * normal(random),
    );
    const [lat, lon] = [48 + place[0] / 111_195, 9 + place[1] / (111_195 * Math.cos((48 * Math.PI) / 180))];
    const speed = Math.max(0, v[i] + 0.3 * normal(random)) / KMH[told];
    const when = new Date(start + at * 1000).toISOString();
    if (gpx) {
      rows.push(
        `<trkpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"><time>${when}</time>${withSpeed ? `<speed>${speed.toFixed(2)}</speed>` : ""}</trkpt>`,
      );
      continue;
    }
    const time = [when, number(at, 2), (start + at * 1000).toFixed(0), when.slice(11, 22)][form];
    rows.push(
      [
        time,
        ...(withSpeed ? [random() < 0.002 ? "-" : number(speed, 2)] : []),
        ...(withPlace ? [number(lat, 7), number(lon, 7)] : []),
        ...(withCoolant ? [number(fahrenheit ? 32 + 1.8 * coolant(at) : coolant(at), 1)] : []),
      ].join(delimiter),
    );
  }
  const title = [
    "time",
    ...(withSpeed ? [`speed (${named})`] : []),
    ...(withPlace ? ["latitude", "longitude"] : []),
    ...(withCoolant ? [`coolant (${fahrenheit ? "°F" : "°C"})`] : []),
  ].join(delimiter);
  const text = gpx
    ? `<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>${rows.join("\n")}</trkseg></trk></gpx>`
    : [title, ...rows].join("\n");
  const home = v.findLastIndex((x) => x >= 4) * STEP;
  const warm = rule.celsius === undefined ? null : { have: withCoolant ? coolant(home) : null, need: rule.celsius };
  const truth = { ...trueParts(v, rule, gaps), warm };
  return { text, rule, truth, counts: atBest(truth) };
}

/** Stretches in which nothing was recorded, s. */
function droppedOut(length: number, random: () => number): [number, number][] {
  if (random() < 0.6) return [];
  return Array.from({ length: 1 + Math.floor(3 * random()) }, () => {
    const from = random() * length;
    return [from, from + 3 + random() * 60];
  });
}

function trueParts(
  v: readonly number[],
  rule: RideRule,
  gaps: readonly (readonly [number, number])[],
): Omit<MadeRide["truth"], "warm"> {
  const away = v.findIndex((x) => x >= 4);
  const home = v.findLastIndex((x) => x >= 4);
  const part = (from: number, to: number, need: number, holds: (x: number) => boolean): Part => {
    let [have, unknown] = [0, 0];
    for (let i = from; i < to; i++)
      if (gaps.some(([a, b]) => i * STEP > a && i * STEP < b && b - a > 4)) unknown += STEP;
      else if (holds(v[i])) have += STEP;
    return { have, unknown, need };
  };
  return {
    idle: rule.idleSeconds === undefined ? null : part(0, away, rule.idleSeconds, () => true),
    length: part(away, home, rule.seconds, () => true),
    above: rule.above ? part(away, home, rule.above.seconds, (x) => x >= rule.above!.kmh) : null,
  };
}

const atBest = ({ idle, length, above, warm }: MadeRide["truth"]): Counts => {
  const isNot = warm ? isWarm(warm) : "yes";
  if (isNot === "no") return "no";
  const all = [idle, length, above].flatMap((p) => p ?? []);
  if (all.some((p) => p.have + p.unknown < p.need)) return "no";
  return all.every((p) => p.have >= p.need) && isNot === "yes" ? "yes" : "unknown";
};
