import { fixedCodes, type Dialect } from "./dialect";
import { codeOf, isFault, type Run } from "./digits";
import type { Track } from "./evidence";

/** A code as read at first sight: one showing, or what looked like one. */
export interface Showing {
  runs: Run[];
  /** null where the runs make no code. */
  code: string | null;
  fixed: boolean;
}

/**
 * A first reading by thresholds half way (in ratio) between the rests of the dialect. It is only a source of
 * proposals: misses and glitches make it wrong, and the search corrects that.
 */
export function firstReading(dialect: Dialect, track: Track, tempo: number): Showing[] {
  const { marks, gaps, digits } = dialect;
  const groups = dialect.phases.flatMap((p) =>
    p.kind === "group" ? [p.beforeMs, p.afterMs].filter((ms) => ms > 0) : [],
  );
  const codeRest = Math.min(...[gaps.repeat, gaps.code, gaps.pass, ...groups].filter((g) => g > gaps.digit));
  const digitAt = Math.sqrt(gaps.flash * gaps.digit) * tempo;
  const codeAt = Math.sqrt(Math.max(gaps.digit, gaps.flash) * codeRest) * tempo;
  const longAt = marks.long ? Math.sqrt(marks.short * marks.long) * tempo : Infinity;
  const fixed = fixedCodes(dialect);
  const out: Showing[] = [];
  let runs: Run[] = [];
  const close = () => {
    if (!runs.length) return;
    const code = codeOf(dialect, runs);
    out.push({ runs, code, fixed: code !== null && fixed.includes(code) });
    runs = [];
  };
  for (let m = 0; m < track.onset.length; m++) {
    const before = m > 0 ? track.onset[m - 1] : -Infinity;
    const length = (i: number) =>
      track.length[i] === track.length[i]
        ? track.length[i]
        : (track.said[i] === 2 ? (marks.long ?? marks.short) : marks.short) * tempo;
    const rest = m > 0 ? track.onset[m] - before - length(m - 1) : Infinity;
    const long = track.said[m] ? track.said[m] === 2 : track.length[m] > longAt;
    if (rest > codeAt) close();
    const last = runs.at(-1);
    const newRun = !last || (digits.style === "counted" && rest > digitAt);
    if (newRun) runs.push({ long: long ? 1 : 0, short: long ? 0 : 1 });
    else if (long) last.long++;
    else last.short++;
  }
  close();
  return out;
}

/** Codes that a showing may have been: itself, or a stretch of its runs when it has too many or too few digits. */
export function readings(dialect: Dialect, showing: Showing): string[] {
  if (showing.code !== null) return showing.fixed ? [] : [showing.code];
  const found: string[] = [];
  for (const count of dialect.digits.count) {
    for (let i = 0; i + count <= showing.runs.length; i++) {
      const code = codeOf(dialect, showing.runs.slice(i, i + count));
      if (code && isFault(dialect, code)) found.push(code);
    }
    // Two runs that were one, torn apart by a missed flash.
    if (showing.runs.length === count + 1)
      for (let i = 0; i < count; i++) {
        const joined = showing.runs.toSpliced(i, 2, {
          long: showing.runs[i].long + showing.runs[i + 1].long,
          short: showing.runs[i].short + showing.runs[i + 1].short + 1,
        });
        const code = codeOf(dialect, joined);
        if (code && isFault(dialect, code)) found.push(code);
      }
  }
  return [...new Set(found)];
}
