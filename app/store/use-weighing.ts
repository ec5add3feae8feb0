import { useEffect, useState } from "react";
import type { SuspectsAsked } from "@core/job/suspects";
import type { AtHand, Weighing } from "@core/diagnosis/weigh";
import { suspectsWorker } from "~/workers/suspects";

/** Suspects and checks as they stand; the last ones until the worker has answered. */
export function useWeighing(asked: SuspectsAsked, atHand: AtHand) {
  const [answer, set] = useState<{ key: string; weighed: Weighing } | null>(null);
  const [failedAt, fail] = useState<string | null>(null);
  const [turn, setTurn] = useState(0);
  // What is weighed is made anew with each picture of the page: it is told apart by what it holds.
  const key = JSON.stringify([asked.found, asked.graph.suspects.map((s) => [s.id, s.prior]), atHand]);
  useEffect(() => {
    let gone = false;
    suspectsWorker()
      .weigh(asked.graph, asked.found, atHand)
      .then(
        (weighed) => !gone && set({ key, weighed }),
        () => !gone && fail(`${key}${turn}`),
      );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, turn]);
  return {
    weighed: answer?.weighed ?? null,
    /** What is shown is of what was found before; the worker is at it. */
    stale: answer?.key !== key,
    failed: failedAt === `${key}${turn}`,
    again: () => setTurn((n) => n + 1),
  };
}
