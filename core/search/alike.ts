const MARKS = /\p{M}/gu;

/** Letters made alike for comparing: no capitals, no accents. */
export const alike = (text: string): string => text.normalize("NFKD").replace(MARKS, "").toLowerCase();

/** The words of a question, made alike. */
export const wordsOf = (asked: string): string[] => alike(asked).split(/\s+/).filter(Boolean);
