import Joi from "joi";
import { SCHOOLS, type School } from "@core/clearing/advice";
import { changeValue, readValue } from "./values";

export interface Settings {
  speed: "km/h" | "mph";
  temperature: "°C" | "°F";
  theme: "system" | "light" | "dark";
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
  sound: true,
  vibration: true,
  school: "usual",
};

const schema = Joi.object<Settings>({
  speed: Joi.string().valid("km/h", "mph").required(),
  temperature: Joi.string().valid("°C", "°F").required(),
  theme: Joi.string().valid("system", "light", "dark").required(),
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

/** Changes a part of the settings; the theme also goes into a cookie, so that the server's first picture has it. */
export async function changeSettings(part: Partial<Settings>): Promise<void> {
  const { theme } = await changeValue("settings", (value) => ({ ...known(value), ...part }));
  document.cookie = `klinko-theme=${theme === "system" ? "" : theme}; path=/; max-age=${theme === "system" ? 0 : 31_536_000}; samesite=lax`;
  if (theme === "system") delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}
