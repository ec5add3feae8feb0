import { useEffect, useState } from "react";
import { readSettings, type Settings } from "./settings";

const START: Settings = { speed: "km/h", temperature: "°C", theme: "system" };

/** The settings of this device; the defaults until they are read. */
export function useSettings(): Settings {
  const [settings, set] = useState(START);
  useEffect(() => {
    let gone = false;
    void readSettings().then((s) => !gone && set(s));
    return () => {
      gone = true;
    };
  }, []);
  return settings;
}
