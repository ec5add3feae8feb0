import Papa from "papaparse";
import { Column, LOG_MAX_ROWS, type Raw, type RawRead, type SpeedUnit } from "./log";
import { clockReader, dateReader, numberReader, type ReadTime } from "./times";

/** What a column can be. */
type Role = "time" | "date" | "speed" | "lat" | "lon" | "coolant";

/** Words of a heading, the narrower before the wider. */
const HEADINGS: readonly (readonly [Role, RegExp])[] = [
  ["lat", /^(lat|latitude|gps.?lat.*)\b/i],
  ["lon", /^(lon|lng|long|longitude|gps.?lon.*)\b/i],
  ["speed", /speed|velocity|\bkm\/?h\b|\bkph\b|\bmph\b|\bm\/s\b|\bvss\b|\bkn(ots)?\b/i],
  // Of temperatures only that of the engine: the air outside and at the intake is no matter here.
  ["coolant", /coolant|\bect\b|engine temp|water temp|^temp(erature)?\b(?!.*(air|intake|ambient|oil|outside))/i],
  ["date", /^date$/i],
  ["time", /time|^t$|^t[ _(]|seconds|^s$|elapsed|clock|^utc/i],
];

const UNITS: readonly (readonly [SpeedUnit, RegExp])[] = [
  ["km/h", /km\s?\/?\s?h|kph/i],
  ["mph", /mph|mi\/h/i],
  ["m/s", /m\s?\/\s?s|mps|m s-1/i],
  ["kn", /\bkn(ots?)?\b|\bkts?\b/i],
];

const DEGREES = [
  ["°F", /°\s?f|\bf\b|fahrenheit|deg ?f/i],
  ["°C", /°\s?c|\bc\b|celsius|deg ?c/i],
] as const;

const DELIMITERS = ["\t", ";", ",", "|"] as const;
/** So many lines tell how a file is built. */
const FIRST_LINES = 30;

/** Rows of times with speeds or positions, from text with any of the usual signs between; columns by heading, else by content. */
export function readCsv(text: string): RawRead {
  if (text.includes("\0")) return { fault: "This is not a text file. Export the log as CSV or GPX." };
  const body = text.replace(/^\uFEFF/, "");
  const head = body
    .slice(0, 20_000)
    .split(/\r?\n/)
    .filter((l) => l.trim() !== "")
    .slice(0, FIRST_LINES);
  if (head.length < 3) return { fault: "This file has next to no lines. A log has a line for each moment." };
  const delimiter = delimiterOf(head);
  if (!delimiter)
    return {
      fault:
        "Its lines have but one column, or not the same number of them. A log needs a time and a speed, or a time and a position, in columns.",
    };
  const sample = Papa.parse<string[]>(head.join("\n"), { delimiter }).data.map((r) => r.map((c) => c.trim()));
  const width = Math.max(...sample.map((r) => r.length));
  // Lines of words come before the numbers; the last of them that fills the columns is the heading.
  const begins = sample.findIndex((r) => r.length === width && r.filter(isValue).length >= 2);
  if (begins < 0)
    return {
      fault:
        "No line of it holds a time and a number. A log needs a time and a speed, or a time and a position, in columns.",
    };
  const heading = sample.slice(0, begins).findLast((r) => r.length === width && !r.some(isValue)) ?? null;
  const roles = rolesOf(heading, sample.slice(begins));
  if (roles.time === undefined)
    return { fault: 'No column of it is a time. Name the column "time", as a date with time, a clock or seconds.' };
  if (roles.speed === undefined && (roles.lat === undefined || roles.lon === undefined))
    return {
      fault:
        'No column of it is a speed, nor are there two for latitude and longitude. Name the column, like "speed (km/h)".',
    };
  return rowsOf(body, delimiter, roles, heading, sample.slice(begins));
}

type Roles = Partial<Record<Role, number>>;

function delimiterOf(lines: readonly string[]): string | null {
  const count = (line: string, d: string) => line.split(d).length - 1;
  const scored = DELIMITERS.map((d) => {
    const counts = lines.slice(-Math.ceil(lines.length / 2)).map((l) => count(l, d));
    return { d, even: counts.filter((n) => n === counts[0]).length / counts.length, n: counts[0] ?? 0 };
  });
  // A comma may be the decimal sign: any other sign that parts the lines goes before it.
  return scored.find((s) => s.n > 0 && s.even > 0.9)?.d ?? null;
}

/** Decimal comma or point. */
const numeric = (cell: string): number =>
  cell === "" ? NaN : Number(cell.includes(",") && /^[-+]?\d+,\d+$/.test(cell) ? cell.replace(",", ".") : cell);
const isValue = (cell: string): boolean => !Number.isNaN(numeric(cell)) || timed(cell);
const timed = (cell: string): boolean => /\d{1,2}:\d{2}:\d{2}/.test(cell);

function rolesOf(heading: readonly string[] | null, rows: readonly (readonly string[])[]): Roles {
  const roles: Roles = {};
  if (heading)
    for (const [i, title] of heading.entries()) {
      const role = HEADINGS.find(([, words]) => words.test(title.trim()))?.[0];
      if (role && roles[role] === undefined) roles[role] = i;
    }
  const width = rows[0].length;
  const column = (i: number) => rows.map((r) => r[i] ?? "");
  const taken = (i: number) => Object.values(roles).includes(i);
  const rises = (v: readonly number[]) =>
    v.every((x, k) => !Number.isNaN(x) && (k === 0 || x >= v[k - 1])) && v.at(-1)! > v[0];
  // What a heading calls otherwise is no time, though it may rise.
  for (let i = 0; i < width && roles.time === undefined; i++)
    if (!taken(i) && (column(i).every(timed) || (!/[a-z]/i.test(heading?.[i] ?? "") && rises(column(i).map(numeric)))))
      roles.time = i;
  if (heading) return roles;
  // Without a heading: degrees have many decimals and stay close together, a speed moves.
  const close = (i: number) => {
    const v = column(i).map(numeric);
    return (
      v.every((x) => Math.abs(x) <= 180) &&
      column(i).every((c) => /[.,]\d{4,}$/.test(c)) &&
      Math.max(...v) - Math.min(...v) < 1
    );
  };
  for (let i = 0; i + 1 < width && roles.lat === undefined; i++)
    if (!taken(i) && !taken(i + 1) && close(i) && close(i + 1)) [roles.lat, roles.lon] = [i, i + 1];
  const free = Array.from({ length: width }, (_, i) => i).filter(
    (i) => !taken(i) && column(i).some((c) => !Number.isNaN(numeric(c))),
  );
  if (free.length === 1) [roles.speed] = free;
  return roles;
}

function rowsOf(
  body: string,
  delimiter: string,
  roles: Roles,
  heading: readonly string[] | null,
  sample: readonly (readonly string[])[],
): RawRead {
  const title = (role: Role) => (roles[role] === undefined ? "" : (heading?.[roles[role]] ?? ""));
  const first = sample[0];
  const apart = roles.date !== undefined && timed(first[roles.time!]) && !/\d[-./]\d/.test(first[roles.time!]);
  const whole = (r: readonly string[]) => (apart ? `${r[roles.date!]} ${r[roles.time!]}` : r[roles.time!]);
  const { read, dated, zoned } = timeReader(whole(first), /\bms\b|milli/i.test(title("time")), sample.map(whole));
  const [t, speed, lat, lon, coolant] = [new Column(), new Column(), new Column(), new Column(), new Column()];
  let skipped = 0;
  let began = false;
  let fault: string | null = null;
  const cell = (r: readonly string[], role: Role) =>
    roles[role] === undefined ? NaN : numeric((r[roles[role]] ?? "").trim());
  Papa.parse<string[]>(body, {
    delimiter,
    skipEmptyLines: true,
    fastMode: !body.includes('"'),
    step: ({ data }, parser) => {
      const at = read(whole(data)?.trim() ?? "");
      if (Number.isNaN(at)) {
        // What stands before the first row is its heading.
        if (began) skipped++;
        return;
      }
      began = true;
      t.push(at);
      speed.push(cell(data, "speed"));
      lat.push(cell(data, "lat"));
      lon.push(cell(data, "lon"));
      coolant.push(cell(data, "coolant"));
      if (t.size > LOG_MAX_ROWS) {
        fault = `This log has more than ${LOG_MAX_ROWS} rows. Cut it to the days that are meant.`;
        parser.abort();
      }
    },
  });
  if (fault) return { fault };
  if (!t.size) return { fault: "No row of it could be read as a time with a number." };
  const raw: Raw = {
    t: t.take(),
    speed: roles.speed === undefined ? null : speed.take(),
    unit: UNITS.find(([, words]) => words.test(title("speed")))?.[0] ?? null,
    lat: roles.lat === undefined || roles.lon === undefined ? null : lat.take(),
    lon: roles.lat === undefined || roles.lon === undefined ? null : lon.take(),
    coolant: roles.coolant === undefined ? null : coolant.take(),
    degrees: DEGREES.find(([, words]) => words.test(title("coolant")))?.[0] ?? null,
    dated,
    zoned,
    skipped,
  };
  return { raw };
}

function timeReader(
  first: string,
  millis: boolean,
  sample: readonly string[],
): { read: ReadTime; dated: boolean; zoned: boolean } {
  if (!Number.isNaN(dateReader()(first.trim())))
    return { read: dateReader(), dated: true, zoned: /(z|[-+]\d{2}:?\d{2})$/i.test(first.trim()) };
  if (timed(first)) return { read: clockReader(), dated: false, zoned: false };
  const values = sample.map((c) => numeric(c.trim()));
  const steps = values
    .slice(1)
    .map((v, i) => v - values[i])
    .sort((a, b) => a - b);
  // Rows that lie twenty or more apart are not seconds: nobody logs a ride three times a minute.
  const { read, dated } = numberReader(values[0], millis || (steps[steps.length >> 1] ?? 0) >= 20);
  return { read: (cell) => read(cell.includes(",") ? cell.replace(",", ".") : cell), dated, zoned: dated };
}
