import { live, type Live } from "./live";
import type { LampApi } from "./lamp.worker";

const start = (): Worker => new Worker(new URL("./lamp.worker.ts", import.meta.url), { type: "module" });

let spare: Worker | null = null;

/**
 * Starts a worker before it is asked for, where a film or camera may be brought next: it takes a while to load.
 * @returns the way to do without it
 */
export function readyLampWorker(): () => void {
  const own = (spare ??= start());
  return () => {
    if (spare !== own) return;
    own.terminate();
    spare = null;
  };
}

/** A worker that looks at pictures; one for each watch, ended with it. */
export function lampWorker(): Live<LampApi> {
  const worker = spare ?? start();
  spare = null;
  // A film takes as long as it takes; whoever waits can break it off.
  return live<LampApi>(worker, null);
}
