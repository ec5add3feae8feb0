import type { InputKind } from "./input";

export const modules: InputKind = { known: "copied", said: "off the dash", short: "off the dash" };
