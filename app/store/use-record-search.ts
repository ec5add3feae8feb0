import { useEffect, useState } from "react";
import type { Found } from "@core/search/search";
import { searchWorker } from "~/workers/search";

/** So many are shown at once. */
const MOST = 40;
/** Whoever types on is not held up by what was typed before, ms. */
const PAUSE_MS = 15;

/** What of the records holds these words; the last answer until the next one is there. */
export function useRecordSearch(asked: string): { found: Found | null; busy: boolean; failed: boolean } {
  const words = asked.trim();
  const [answer, set] = useState<{ words: string; found: Found | null } | null>(null);
  useEffect(() => {
    if (!words) return;
    let gone = false;
    const timer = setTimeout(() => {
      searchWorker()
        .search(words, MOST)
        .then(
          (found) => !gone && set({ words, found }),
          () => !gone && set({ words, found: null }),
        );
    }, PAUSE_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [words]);
  const now = answer?.words === words;
  return {
    found: words ? (answer?.found ?? null) : null,
    busy: words !== "" && !now,
    failed: now && answer.found === null,
  };
}
