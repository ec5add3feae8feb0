import { useEffect, useState } from "react";
import { flashesNow } from "@core/simulated/answers";
import type { LampNow } from "@core/simulated/state";
import { clock } from "~/store/clock";

/** Is the lamp lit at this moment? Plays what it does in real time, flash by flash, from the time it began. */
export function useLamp(lamp: LampNow): boolean {
  const [away, setAway] = useState<LampNow | null>(null);
  useEffect(() => {
    const { since, flashes } = flashesNow(lamp);
    const coming = flashes[Symbol.iterator]();
    let callOff = () => {};
    const at = (ms: number, then: () => void) => {
      callOff = clock.after(Math.max(0, since + ms - clock.now()), then);
    };
    const play = () => {
      const next = coming.next();
      if (next.done) return;
      const { start, end } = next.value;
      // What lies behind already (the page was opened late) is skipped, not shown in a burst.
      if (since + end < clock.now()) return play();
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
      callOff();
      setAway(null);
    };
  }, [lamp]);
  return (away === lamp) !== flashesNow(lamp).lit;
}
