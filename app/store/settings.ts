import Joi from "joi";
import { readValue, writeValue } from "./db";

export interface Settings {
  speed: "km/h" | "mph";
  temperature: "°C" | "°F";
  theme: "system" | "light" | "dark";
  /** Cues of timers and of the beat. */
  sound: boolean;
  vibration: boolean;
}

export const DEFAULTS: Settings = { speed: "km/h", temperature: "°C", theme: "system", sound: true, vibration: true };

const schema = Joi.object<Settings>({
  speed: Joi.string().valid("km/h", "mph").required(),
  temperature: Joi.string().valid("°C", "°F").required(),
  theme: Joi.string().valid("system", "light", "dark").required(),
  sound: Joi.boolean().default(true),
  vibration: Joi.boolean().default(true),
});

export async function readSettings(): Promise<Settings> {
  const checked = schema.validate(await readValue("settings"));
  return checked.error ? DEFAULTS : (checked.value ?? DEFAULTS);
}

/** Stores settings; the theme also goes into a cookie, so that the server's first picture has it. */
export async function writeSettings(settings: Settings): Promise<void> {
  await writeValue("settings", settings);
  const { theme } = settings;
  document.cookie = `klinko-theme=${theme === "system" ? "" : theme}; path=/; max-age=${theme === "system" ? 0 : 31_536_000}; samesite=lax`;
  if (theme === "system") delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}
