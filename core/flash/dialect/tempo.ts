/** The tempo of a control unit lies between these (format: `speed`), with a little room. */
export const TEMPO_MIN = 0.76;
export const TEMPO_MAX = 1.32;

/** The clocks of units that were met (format: `speed`), and how far one found in a watch may be off. */
const [SLOWEST, QUICKEST] = [1.25, 0.8];
const OFF = 0.015;

/** Log of how much less likely a tempo is than one of those that units have. */
export function tempoLog(tempo: number): number {
  const beyond = Math.max(0, tempo - SLOWEST, QUICKEST - tempo) / OFF;
  return -0.5 * beyond * beyond;
}
