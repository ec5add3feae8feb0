/** Speed over time, as somebody recorded it. All rows are of one length. */
export interface Log {
  /** Seconds, ascending: since 1970 where `dated`, else since the log's first row. */
  t: Float64Array;
  /** km/h; NaN where it is not known. */
  kmh: Float64Array;
  /** Coolant, °C; NaN where it is not known, null where nothing tells it. */
  celsius: Float64Array | null;
  dated: boolean;
  /** Its times name their zone; else they are those of the place where it was recorded. */
  zoned: boolean;
  /** How far a speed may be off by noise, km/h: nothing where it was recorded, more where it follows from positions. */
  noise: number;
  /** What was found out or mended on the way, in words. */
  notes: string[];
}

/** `asks`: the file does not say in what its speeds are told; whoever knows says it. */
export type LogRead = { log: Log } | { fault: string; asks?: "unit" };

export const SPEED_UNITS = ["km/h", "mph", "m/s", "kn"] as const;
export type SpeedUnit = (typeof SPEED_UNITS)[number];
export const KMH: Readonly<Record<SpeedUnit, number>> = { "km/h": 1, mph: 1.609344, "m/s": 3.6, kn: 1.852 };

/** A file as it came, before anything of it is believed: one entry a row, NaN where a cell is empty. */
export interface Raw {
  t: Float64Array;
  speed: Float64Array | null;
  unit: SpeedUnit | null;
  lat: Float64Array | null;
  lon: Float64Array | null;
  /** Coolant, in the unit of its heading; null where that names none. */
  coolant: Float64Array | null;
  degrees: "°C" | "°F" | null;
  dated: boolean;
  zoned: boolean;
  /** Rows that could not be read at all. */
  skipped: number;
}
export type RawRead = { raw: Raw } | { fault: string };

export const LOG_MAX_BYTES = 60_000_000;
/** Ten hours at ten rows a second, and some. */
export const LOG_MAX_ROWS = 500_000;

/** Numbers that come one by one, without a list of objects in between. */
export class Column {
  private values = new Float64Array(4096);
  size = 0;
  push(value: number): void {
    if (this.size === this.values.length) {
      const more = new Float64Array(2 * this.size);
      more.set(this.values);
      this.values = more;
    }
    this.values[this.size++] = value;
  }
  take = (): Float64Array => this.values.subarray(0, this.size);
}
