import { fixedCodes, type Dialect } from "./dialect";
import { onceFor } from "./once";

/** One digit or run of a code as the lamp shows it: `long` and `short` flashes, long ones first. */
export interface Run {
  long: number;
  short: number;
}

/**
 * The runs in which a dialect shows a code.
 * @returns null where the style cannot show this code (a zero without a sign for it, too many digits, above `max`).
 */
export function runsOf(dialect: Dialect, code: string): Run[] | null {
  const { style, count, zero } = dialect.digits;
  if (!/^[1-9]\d*$/.test(code) || Number(code) > dialect.max) return null;
  if (style === "total") return [{ long: 0, short: Number(code) }];
  if (!count.includes(code.length)) return null;
  const digits = [...code].map(Number);
  if (style === "long-short") {
    if (code.length > 2) return null;
    const [tens, units] = code.length === 2 ? digits : [0, digits[0]];
    return [{ long: tens, short: units }];
  }
  const runs = digits.map((d) => ({ long: 0, short: d === 0 ? (zero ?? 0) : d }));
  return runs.every((r) => r.short > 0) ? runs : null;
}

/** The code that a row of runs shows, or null where it shows none. The inverse of {@link runsOf}. */
export function codeOf(dialect: Dialect, runs: readonly Run[]): string | null {
  const { style, zero } = dialect.digits;
  let code: string;
  if (style === "total") code = runs.length === 1 ? String(runs[0].short) : "";
  else if (style === "long-short") {
    if (runs.length !== 1 || runs[0].long > 9 || runs[0].short > 9) return null;
    code = runs[0].long ? `${runs[0].long}${runs[0].short}` : String(runs[0].short);
  } else {
    if (runs.some((r) => r.long > 0 || r.short < 1 || (r.short > 9 && r.short !== zero))) return null;
    code = runs.map((r) => (r.short === zero ? "0" : String(r.short))).join("");
  }
  return runsOf(dialect, code) ? code : null;
}

/** Can this be a fault of the dialect: shown by its style, and none of its fixed codes? */
export function isFault(dialect: Dialect, code: string): boolean {
  return runsOf(dialect, code) !== null && !fixedCodes(dialect).includes(code);
}

/** Every code that can be a fault of the dialect, by number. */
export const possibleFaults = onceFor((dialect: Dialect): readonly string[] => {
  const all: string[] = [];
  for (let n = 1; n <= dialect.max; n++) if (isFault(dialect, String(n))) all.push(String(n));
  return all;
});

/** Codes that begin just as this one is shown, and go on with more flashes in its last run, or with another. */
export function longerThan(dialect: Dialect, code: string): string[] {
  const runs = runsOf(dialect, code);
  if (!runs) return [];
  const last = runs.length - 1;
  const begins = (other: readonly Run[]) =>
    runs.every(({ long, short }, i) => {
      const o = other[i];
      if (!o) return false;
      // Long flashes come first: once there is a short one, no further long one follows.
      return i < last || short ? o.long === long && (i < last ? o.short === short : o.short >= short) : o.long >= long;
    });
  return possibleFaults(dialect).filter((c) => c !== code && begins(runsOf(dialect, c)!));
}
