import { SCHOOLS } from "@core/clearing/advice";
import { flag, holds, object, oneOf, optional, type Of, type Rule } from "@core/schema/rule";
import { takeLooks } from "./look";
import { changeValue, readValue } from "./values";

const FIELDS = {
  speed: oneOf("km/h", "mph"),
  temperature: oneOf("°C", "°F"),
  theme: oneOf("system", "light", "dark"),
  /** Size of all type. */
  type: oneOf("usual", "large"),
  /** Where the main buttons lie on a phone. */
  hand: oneOf("left", "right"),
  dates: oneOf("words", "iso", "month-first", "day-first"),
  /** Cues of timers and of the beat. */
  sound: flag,
  vibration: flag,
  /** Clear first, or look first, where practitioners differ. */
  school: oneOf(...SCHOOLS),
};

export type Settings = { [K in keyof typeof FIELDS]: Of<(typeof FIELDS)[K]> };

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

/** Any of the settings: what may be changed at once. */
export const someSettings: Rule<Partial<Settings>> = object({
  speed: optional(FIELDS.speed),
  temperature: optional(FIELDS.temperature),
  theme: optional(FIELDS.theme),
  type: optional(FIELDS.type),
  hand: optional(FIELDS.hand),
  dates: optional(FIELDS.dates),
  sound: optional(FIELDS.sound),
  vibration: optional(FIELDS.vibration),
  school: optional(FIELDS.school),
});

/** What is stored, each setting by itself: one that this Klinko does not know is as usual, and takes no other with it. */
function known(value: unknown): Settings {
  const stored = (value ?? {}) as Record<string, unknown>;
  const good = Object.entries(FIELDS).filter(
    ([name, rule]) => name in stored && "value" in holds<unknown>(rule, stored[name]),
  );
  return { ...DEFAULTS, ...Object.fromEntries(good.map(([name]) => [name, stored[name]])) };
}

export const readSettings = async (): Promise<Settings> => known(await readValue("settings"));

/** Changes a part of the settings; how pages look is taken over at once. */
export async function changeSettings(part: Partial<Settings>): Promise<void> {
  takeLooks(await changeValue("settings", (value) => ({ ...known(value), ...part })));
}
