import { number, object, oneOf, optional, whole, type Of } from "../schema/rule";

const ms = number(0);

export const markRule = object({
  id: whole(),
  t: ms,
  up: optional(ms),
  kind: optional(oneOf("s", "l", "p")),
  /** Probability that it was a flash, where a film or camera tells. */
  p: optional(number(0, 1)),
});
/** One flash as it was put in. `up` and lengths are for held keys and traces, `kind` for two keys; `p` is no flash but a press of the reader's button. */
export type Mark = Of<typeof markRule>;
