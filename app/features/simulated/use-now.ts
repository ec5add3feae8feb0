import { useEffect, useState } from "react";
import { clock } from "~/store/clock";

/** The time, for what changes with it: anew every so many ms, so whoever asks should be small. */
export function useNow(everyMs: number): number {
  const [now, setNow] = useState(() => clock.now());
  useEffect(() => clock.every(everyMs, () => setNow(clock.now())), [everyMs]);
  return now;
}
