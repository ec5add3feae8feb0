/** Lit segments of a seven-segment digit, bits a to g from the lowest: top, upper right, lower right, bottom, lower left, upper left, middle. */
const SEGMENTS: Record<string, number> = {
  "0": 0x3f,
  "1": 0x06,
  "2": 0x5b,
  "3": 0x4f,
  "4": 0x66,
  "5": 0x6d,
  "6": 0x7d,
  "7": 0x07,
  "8": 0x7f,
  "9": 0x6f,
};

/** Letters that people write for a digit of a segment display. */
const WRITTEN: Record<string, string> = {
  O: "0",
  o: "0",
  D: "0",
  I: "1",
  l: "1",
  "|": "1",
  Z: "2",
  z: "2",
  S: "5",
  s: "5",
  b: "6",
  G: "6",
  T: "7",
  B: "8",
  g: "9",
  q: "9",
};

const bits = (n: number): number => (n ? (n & 1) + bits(n >> 1) : 0);

/** How many segments apart two digits are. */
export function segmentsApart(a: string, b: string): number {
  return bits(SEGMENTS[a] ^ SEGMENTS[b]);
}

/** A number as it may have stood on a display. */
export interface LookAlike {
  code: string;
  /** Segments that would have to be misread; an unclear digit costs none. */
  apart: number;
}

/** A typed number with letters taken for the digits that they look like; `?` stays for a digit that was not clear. */
export function asDigits(typed: string): string {
  return [...typed].map((c) => WRITTEN[c] ?? c).join("");
}

/**
 * Codes that a typed number may stand for, the nearest first: `?` stands for any digit, and one segment of one digit may be dead
 * or have been misread.
 * @param known codes that exist
 * @param digits length with leading zeros
 */
export function lookAlikes(typed: string, known: readonly string[], digits: number): LookAlike[] {
  const seen = asDigits(typed);
  return known
    .flatMap((code) => {
      const shown = code.padStart(digits, "0");
      if (shown.length !== seen.length) return [];
      let apart = 0;
      for (let i = 0; i < shown.length; i++) {
        if (seen[i] === "?") continue;
        if (!(seen[i] in SEGMENTS)) return [];
        apart += segmentsApart(seen[i], shown[i]);
      }
      return apart <= 2 ? [{ code, apart }] : [];
    })
    .sort((a, b) => a.apart - b.apart || Number(a.code) - Number(b.code));
}
