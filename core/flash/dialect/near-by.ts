import type { Dialect } from "./dialect";
import { isFault } from "./digits";

/** Codes one flash away, as far as the dialect can show them. */
export function nearBy(dialect: Dialect, code: string): string[] {
  const out: string[] = [];
  if (dialect.digits.style === "total") {
    for (const d of [-2, -1, 1, 2]) out.push(String(Number(code) + d));
  } else {
    const zero = dialect.digits.zero;
    const value = (c: string) => (c === "0" ? (zero ?? 0) : Number(c));
    for (let i = 0; i < code.length; i++)
      for (const d of [-1, 1]) {
        const v = value(code[i]) + d;
        const digit = v === zero ? "0" : v >= 0 && v <= 9 ? String(v) : null;
        if (digit !== null && digit !== code[i]) out.push(code.slice(0, i) + digit + code.slice(i + 1));
      }
    if (dialect.digits.style === "long-short") {
      // A long flash missed, or taken for a short one.
      const padded = code.padStart(2, "0");
      const [t, u] = [Number(padded[0]), Number(padded[1])];
      for (const [a, b] of [
        [t - 1, u + 1],
        [t + 1, u - 1],
        [t + 1, u],
        [t - 1, u],
      ])
        if (a >= 0 && b >= 0 && a <= 9 && b <= 9) out.push(String(a * 10 + b));
    }
  }
  return [...new Set(out)].filter((c) => c !== code && isFault(dialect, c));
}
