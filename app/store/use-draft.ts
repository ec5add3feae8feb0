import { useCallback, useEffect, useRef, useState } from "react";
import { readDraft, writeDraft } from "./drafts";

/**
 * What somebody is in the middle of writing: kept on the device with every change, so that a closed page loses none of it.
 * @param isOne tells whether what was stored has the right shape; anything else is left aside
 */
export function useDraft<T>(key: string, first: T, isOne: (value: unknown) => value is T): [T, (value: T) => void] {
  const [value, set] = useState(first);
  /** Whoever types already is not written over by what comes late from the store. */
  const typed = useRef(false);
  useEffect(() => {
    let gone = false;
    typed.current = false;
    readDraft(key).then(
      (stored) => {
        if (!gone && !typed.current && isOne(stored)) set(stored);
      },
      // A browser that keeps nothing keeps no draft: what is typed stays on the page.
      () => undefined,
    );
    return () => {
      gone = true;
    };
    // The check is the caller's and does not change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const change = useCallback(
    (next: T) => {
      typed.current = true;
      set(next);
      writeDraft(key, next).catch(() => undefined);
    },
    [key],
  );
  return [value, change];
}
