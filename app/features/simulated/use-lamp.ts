import { useEffect, useState } from "react";
import { flashesOf, seeded } from "@core/flash/encode";
import type { LampNow } from "@core/simulated/vehicle";

/** Is the lamp lit at this moment? Plays a show in real time, edge by edge, from the time it began. */
export function useLamp(lamp: LampNow): boolean {
  const resting = lamp.kind === "lit" || (lamp.kind === "show" && lamp.dialect.rest === "lit");
  const [away, setAway] = useState<LampNow | null>(null);
  useEffect(() => {
    if (lamp.kind !== "show") return;
    const flashes = flashesOf(
      lamp.dialect,
      { stored: lamp.faults, live: lamp.faults },
      { speed: lamp.speed, jitter: 0.02, random: seeded(Math.round(lamp.since)) },
    );
    let timer: ReturnType<typeof setTimeout>;
    const at = (ms: number, then: () => void) => {
      timer = setTimeout(then, Math.max(0, lamp.since + ms - Date.now()));
    };
    const play = () => {
      const next = flashes.next();
      if (next.done) return;
      const { start, end } = next.value;
      // What lies behind already (the page was opened late) is skipped, not shown in a burst.
      if (lamp.since + end < Date.now()) return play();
      at(start, () => {
        setAway(lamp);
        if (!Number.isFinite(end)) return;
        at(end, () => {
          setAway(null);
          play();
        });
      });
    };
    play();
    return () => {
      clearTimeout(timer);
      setAway(null);
    };
  }, [lamp]);
  return (away === lamp) !== resting;
}
