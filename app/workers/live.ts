import { wrap, type Remote } from "comlink";
import { clock } from "~/store/clock";

/** A worker that died, or that has not answered for so long that it counts as dead. */
export class WorkerDied extends Error {
  override name = "WorkerDied";
}

export interface Live<T> {
  api: Remote<T>;
  end: () => void;
}

/**
 * A worker whose calls always come to an end: where it dies or is ended, those that wait fail; where one takes too long, it is
 * ended too. Whoever asks next starts another.
 * @param answersMs how long a call may take at most; none where it may take as long as it will
 * @param died told once
 */
export function live<T>(worker: Worker, answersMs: number | null, died: () => void = () => undefined): Live<T> {
  let over = false;
  const waiting = new Set<(error: WorkerDied) => void>();
  const end = () => {
    if (over) return;
    over = true;
    worker.terminate();
    for (const fail of waiting) fail(new WorkerDied("The worker is gone."));
    waiting.clear();
    died();
  };
  worker.addEventListener("error", end);
  worker.addEventListener("messageerror", end);
  const remote = wrap<T>(worker);
  const call =
    (ask: (...args: unknown[]) => Promise<unknown>) =>
    (...args: unknown[]) => {
      const answer = new Promise((done, fail) => {
        if (over) return fail(new WorkerDied("The worker is gone."));
        waiting.add(fail);
        const timer = answersMs === null ? undefined : setTimeout(end, answersMs);
        ask(...args)
          .then(done, fail)
          .finally(() => {
            clearTimeout(timer);
            waiting.delete(fail);
          });
      });
      if (answersMs !== null) clock.awaits?.(answer);
      return answer;
    };
  const api = new Proxy({} as Remote<T>, {
    // It is no promise, whoever awaits it.
    get: (_, name) =>
      name === "then"
        ? undefined
        : call((remote as Record<string | symbol, (...args: unknown[]) => Promise<unknown>>)[name]),
  });
  return { api, end };
}
