import { edgesOf, type LampWatch } from "./input";

/** Brightness picture by picture; once somebody has corrected a mark, the marks are what was seen. */
export const pictureWatch: Pick<LampWatch, "by" | "reads" | "anyLamp" | "lengths" | "pad" | "evidence"> = {
  by: "picture",
  reads: ({ advance }) => advance === "self",
  anyLamp: true,
  lengths: true,
  pad: () => [],
  evidence: (seen, until, dialect) =>
    seen.levels && !seen.corrected ? { mode: "levels", levels: seen.levels, until } : edgesOf(seen, until, dialect),
};
