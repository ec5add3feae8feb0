import { pattern, rule, type Rule } from "../schema/rule";

/** Text in a pack is text: what looks like markup or holds control characters is refused, wherever it would be shown. */
const plain = (max: number): Rule<string> =>
  rule((joi) =>
    joi
      .string()
      .pattern(/^(?!.*<[a-z!/?])[^\p{Cc}\p{Co}\p{Cn}]*$/iu, "plain text without markup")
      .min(1)
      .max(max),
  );

export const id = pattern(/^[a-z0-9][a-z0-9-]{0,39}$/, "small letters, digits and dashes");
export const line = plain(200);
export const text = plain(1000);
export const codeRule = pattern(/^[1-9]\d{0,3}$/, "a number without leading zero");
export const cavityRule = pattern(/^[A-Z0-9]{1,3}$/, "a cavity's name");
