import type { InputKind } from "./input";

export const serial: InputKind = { known: "sent", said: "over the serial lead", short: "over the serial lead" };
