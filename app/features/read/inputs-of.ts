import { isPicture, type Input } from "@core/record/types";

/** Is each flash marked by hand, as it comes? */
export const byHand = (input: Input): boolean => !isPicture(input) && input !== "trace" && input !== "counts";
