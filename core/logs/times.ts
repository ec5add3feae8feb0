/** A reader of times: seconds, or NaN. It keeps what it knows from row to row. */
export type ReadTime = (cell: string) => number;

const DAY = 86_400;

/**
 * Dates and times as loggers write them, to seconds since 1970. Times without a zone are taken as they stand: only differences
 * count. `2026-03-29T01:59:58.5Z`, `29.03.2026 01:59:58`, `2026/03/29 01:59:58,5`.
 */
export function dateReader(): ReadTime {
  let day = "";
  let dayAt = NaN;
  // Most rows are of the same minute as the one before.
  let minute = "";
  let minuteAt = NaN;
  let after = "";
  return (cell) => {
    if (minute && cell.startsWith(minute) && cell.endsWith(after)) {
      const seconds = cell.slice(minute.length, cell.length - after.length);
      const s = seconds.length >= 2 ? Number(seconds) : NaN;
      if (s >= 0 && s < 61) return minuteAt + s;
    }
    const m =
      /^(\d{1,4})([-./])(\d{1,2})\2(\d{1,4})[T ,]+(\d{1,2}):(\d{2}):(\d{2}(?:[.,]\d+)?) ?(Z|[-+]\d{2}:?\d{2})?$/i.exec(
        cell,
      );
    if (!m) return NaN;
    const key = cell.slice(0, m[1].length + m[3].length + m[4].length + 2);
    if (key !== day) {
      day = key;
      const [a, b, c] = [Number(m[1]), Number(m[3]), Number(m[4])];
      dayAt =
        m[1].length === 4
          ? utc(a, b, c)
          : m[4].length === 4
            ? m[2] === "/" && b > 12
              ? utc(c, a, b)
              : utc(c, b, a)
            : NaN;
    }
    const [h, min, s] = [Number(m[5]), Number(m[6]), Number(m[7].replace(",", "."))];
    if (h > 24 || min > 59 || s >= 61) return NaN;
    after = m[8] ?? "";
    minute = cell.slice(0, cell.length - after.length - m[7].length);
    minuteAt = dayAt + h * 3600 + min * 60 - zone(m[8]);
    return minuteAt + s;
  };
}

function utc(year: number, month: number, day: number): number {
  if (month < 1 || month > 12 || day < 1 || day > 31) return NaN;
  return Date.UTC(year, month - 1, day) / 1000;
}

function zone(text: string | undefined): number {
  if (!text || text === "Z" || text === "z") return 0;
  const sign = text.startsWith("-") ? -1 : 1;
  const digits = text.replace(/\D/g, "");
  return sign * (Number(digits.slice(0, 2)) * 3600 + Number(digits.slice(2)) * 60);
}

/** A clock without a date, `23:59:58.5`: past midnight it goes on. */
export function clockReader(): ReadTime {
  let days = 0;
  let last = -Infinity;
  return (cell) => {
    const m = /^(\d{1,3}):(\d{2}):(\d{2}(?:[.,]\d+)?)$/.exec(cell);
    if (!m) return NaN;
    const at = Number(m[1]) * 3600 + Number(m[2]) * 60 + Number(m[3].replace(",", "."));
    if (at < last - DAY / 2) days++;
    last = at;
    return at + days * DAY;
  };
}

/** Plain numbers: seconds or milliseconds, since 1970 or since the start. */
export function numberReader(first: number, millis: boolean): { read: ReadTime; dated: boolean } {
  const dated = first > 1e8;
  const scale = first > 1e11 || millis ? 0.001 : 1;
  return { read: (cell) => (cell === "" ? NaN : Number(cell) * scale), dated };
}
