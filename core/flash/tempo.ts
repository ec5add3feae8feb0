import { memoriesOf, type Dialect, type Faults } from "./dialect";
import { possibleFaults } from "./digits";
import type { Track } from "./evidence";
import { flatten } from "./flat";
import { INTERVAL_JITTER } from "./observer";
import { showOf } from "./show";

/** The tempo of a control unit lies between these (format: `speed`), with a little room. */
export const TEMPO_MIN = 0.76;
export const TEMPO_MAX = 1.32;
const GRID = 29;

/** Onset-to-onset steps that shows of a dialect are made of, ms nominal, with their share. */
export function stepsOf(dialect: Dialect, mode: Track["mode"]): { step: number; share: number }[] {
  const possible = possibleFaults(dialect);
  const sample = possible.filter((_, i) => i % Math.ceil(possible.length / 12) === 0);
  const faults: Faults = Object.fromEntries(memoriesOf(dialect).map((m) => [m, sample]));
  const counts = new Map<number, number>();
  for (const list of [faults, {}]) {
    const flat = flatten(showOf(dialect, list), mode);
    for (const s of flat.step) if (Number.isFinite(s)) counts.set(s, (counts.get(s) ?? 0) + 1 / flat.n);
  }
  const total = [...counts.values()].reduce((a, b) => a + b, 0);
  return [...counts].map(([step, n]) => ({ step, share: n / total }));
}

/**
 * Tempi at which the intervals of a track are likely, best first: a mixture of the dialect's steps, one step missed,
 * and anything. No list is assumed.
 */
export function likelyTempi(dialect: Dialect, track: Track, onsetSd: number, most = 3): number[] {
  const steps = stepsOf(dialect, track.mode);
  const base = Math.min(...steps.map((s) => s.step));
  const all = [...steps, { step: 2 * base, share: 0.02 }];
  const grid = Array.from({ length: GRID }, (_, i) => TEMPO_MIN * (TEMPO_MAX / TEMPO_MIN) ** (i / (GRID - 1)));
  const intervals = Array.from(
    { length: Math.min(400, Math.max(0, track.onset.length - 1)) },
    (_, i) => track.onset[i + 1] - track.onset[i],
  );
  const lengths = [...track.length].filter((l) => l === l).slice(0, 400);
  const marks = [dialect.marks.short, ...(dialect.marks.long ? [dialect.marks.long] : [])];
  const scored = grid.map((tempo) => {
    let log = -0.5 * (Math.log(tempo) / 0.15) ** 2;
    for (const dt of intervals) {
      let p = 1e-5;
      for (const { step, share } of all) {
        const variance = 2 * onsetSd ** 2 + (INTERVAL_JITTER * 0.75 * step * tempo) ** 2 + (0.01 * step) ** 2;
        const late = dt - step * tempo;
        p += (share * Math.exp((-0.5 * late * late) / variance)) / Math.sqrt(variance);
      }
      log += Math.log(p);
    }
    for (const length of lengths) {
      let p = 1e-4;
      for (const mark of marks) {
        const variance = (onsetSd * 2) ** 2 + (0.03 * mark) ** 2;
        p += Math.exp((-0.5 * (length - mark * tempo) ** 2) / variance) / Math.sqrt(variance);
      }
      log += 0.5 * Math.log(p);
    }
    return { tempo, log };
  });
  const peaks = scored.filter(
    (s, i) => (scored[i - 1]?.log ?? -Infinity) <= s.log && (scored[i + 1]?.log ?? -Infinity) <= s.log,
  );
  return peaks
    .sort((a, b) => b.log - a.log)
    .slice(0, most)
    .map((p) => p.tempo);
}
