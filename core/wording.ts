/** Words in a row, as in a sentence: "14, 24 and 53". */
export const listOf = (words: readonly string[]): string =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;

/** A name in the middle of a sentence: what is written in capitals stays. */
export const lower = (name: string): string =>
  /^[A-Z]{2,}/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

const NUMBERS = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
/** A small number as a word. */
export const inWords = (n: number): string => NUMBERS[n] ?? String(n);

/** Numbers of codes, rising. */
export const byNumber = (a: string, b: string): number => Number(a) - Number(b);
