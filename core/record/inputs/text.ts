import type { InputKind } from "./input";

export const text: InputKind = { known: "copied", said: "off the display", short: "off the display" };
