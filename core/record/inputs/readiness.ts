import type { InputKind } from "./input";

export const readiness: InputKind = { known: "seen", said: "by the lamp", short: "by the lamp" };
