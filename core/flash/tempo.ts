/** The tempo of a control unit lies between these (format: `speed`), with a little room. */
export const TEMPO_MIN = 0.76;
export const TEMPO_MAX = 1.32;
