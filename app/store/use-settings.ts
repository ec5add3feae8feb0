import { useEffect, useState } from "react";
import { DEFAULTS, readSettings, type Settings } from "./settings";

/** The settings of this device; the defaults until they are read. */
export function useSettings(): Settings {
  const [settings, set] = useState(DEFAULTS);
  useEffect(() => {
    let gone = false;
    void readSettings().then((s) => !gone && set(s));
    return () => {
      gone = true;
    };
  }, []);
  return settings;
}
