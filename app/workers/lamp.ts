import { wrap, type Remote } from "comlink";
import type { LampApi } from "./lamp.worker";

/** A worker that looks at pictures; one for each watch, ended with it. */
export function lampWorker(): { api: Remote<LampApi>; end: () => void } {
  const worker = new Worker(new URL("./lamp.worker.ts", import.meta.url), { type: "module" });
  return { api: wrap<LampApi>(worker), end: () => worker.terminate() };
}
