import { useCallback, useEffect, useState } from "react";
import { readValue, writeValue } from "./db";

/**
 * What somebody is in the middle of writing: kept on the device with every change, so that a closed page loses none of it.
 * @param isOne tells whether what was stored has the right shape; anything else is left aside
 */
export function useDraft<T>(key: string, first: T, isOne: (value: unknown) => value is T): [T, (value: T) => void] {
  const [value, set] = useState(first);
  useEffect(() => {
    let gone = false;
    void readValue(`draft/${key}`).then((stored) => {
      if (!gone && isOne(stored)) set(stored);
    });
    return () => {
      gone = true;
    };
    // The check is the caller's and does not change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const change = useCallback(
    (next: T) => {
      set(next);
      void writeValue(`draft/${key}`, next);
    },
    [key],
  );
  return [value, change];
}
