import Joi from "joi";
import { SCHOOLS, type School } from "@core/clearing/advice";
import { takeLooks } from "./look";
import { changeValue, readValue } from "./values";

export interface Settings {
  speed: "km/h" | "mph";
  temperature: "°C" | "°F";
  theme: "system" | "light" | "dark";
  /** Size of all type. */
  type: "usual" | "large";
  /** Where the main buttons lie on a phone. */
  hand: "left" | "right";
  dates: "words" | "iso" | "month-first" | "day-first";
  /** Cues of timers and of the beat. */
  sound: boolean;
  vibration: boolean;
  /** Clear first, or look first, where practitioners differ. */
  school: School;
}

export const DEFAULTS: Settings = {
  speed: "km/h",
  temperature: "°C",
  theme: "system",
  type: "usual",
  hand: "left",
  dates: "words",
  sound: true,
  vibration: true,
  school: "usual",
};

const schema = Joi.object<Settings>({
  speed: Joi.string().valid("km/h", "mph").required(),
  temperature: Joi.string().valid("°C", "°F").required(),
  theme: Joi.string().valid("system", "light", "dark").required(),
  type: Joi.string().valid("usual", "large").default("usual"),
  hand: Joi.string().valid("left", "right").default("left"),
  dates: Joi.string().valid("words", "iso", "month-first", "day-first").default("words"),
  sound: Joi.boolean().default(true),
  vibration: Joi.boolean().default(true),
  school: Joi.string()
    .valid(...SCHOOLS)
    .default("usual"),
});

function known(value: unknown): Settings {
  const checked = schema.validate(value);
  return checked.error ? DEFAULTS : (checked.value ?? DEFAULTS);
}

export const readSettings = async (): Promise<Settings> => known(await readValue("settings"));

/** Changes a part of the settings; how pages look is taken over at once. */
export async function changeSettings(part: Partial<Settings>): Promise<void> {
  takeLooks(await changeValue("settings", (value) => ({ ...known(value), ...part })));
}
