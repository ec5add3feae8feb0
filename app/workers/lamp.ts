import { wrap, type Remote } from "comlink";
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
export function lampWorker(): { api: Remote<LampApi>; end: () => void } {
  const worker = spare ?? start();
  spare = null;
  return { api: wrap<LampApi>(worker), end: () => worker.terminate() };
}
