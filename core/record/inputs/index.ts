import type { Dialect } from "../../flash/dialect/dialect";
import { camera } from "./camera";
import { counts } from "./counts";
import { film } from "./film";
import { hold } from "./hold";
import type { InputKind, LampWatch } from "./input";
import { keys } from "./keys";
import { modules } from "./modules";
import { press } from "./press";
import { readiness } from "./readiness";
import { serial } from "./serial";
import { tap } from "./tap";
import { text } from "./text";
import { trace } from "./trace";

export type { InputKind, LampWatch, PadKey } from "./input";
export { seenWhole } from "./input";

/** All inputs of a reading, in the order in which they are offered. A new one is its file and a line here. */
const INPUTS = { camera, film, tap, hold, keys, counts, trace, press, text, modules, readiness, serial };

/** How a lamp was watched, or what else told. */
export type Input = keyof typeof INPUTS;
export const INPUT_IDS = Object.keys(INPUTS) as Input[];

/** By name; stored readings hold only names that stand in the table. */
export const inputOf = (input: Input): InputKind => INPUTS[input];
const lampOf = (input: Input): LampWatch | undefined => inputOf(input).lamp;

/** What is known of watching a lamp so; `tap` stands in for inputs in which none is watched. */
export const watchOf = (input: Input): LampWatch => lampOf(input) ?? tap.lamp!;
export const isPicture = (input: Input): boolean => lampOf(input)?.by === "picture";
/** Is each flash marked by hand, as it comes? */
export const byHand = (input: Input): boolean => lampOf(input)?.by === "hand";

/** Inputs by which a lamp of this dialect can be read; without one, those that need none. */
export function inputsFor(dialect: Pick<Dialect, "advance" | "digits"> | null): Input[] {
  return INPUT_IDS.filter((i) => {
    const lamp = lampOf(i);
    return lamp !== undefined && (dialect ? lamp.reads(dialect) : lamp.anyLamp);
  });
}
