/** A lamp by the words on it: "ABS lamp"; "Engine lamp" where somebody wrote it so. @param several "ABS and TC lamps" */
export const lampNamed = (words: string, several = false): string =>
  /lamps?$/i.test(words) ? words : `${words} ${several ? "lamps" : "lamp"}`;
