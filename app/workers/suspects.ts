import type { Remote } from "comlink";
import { live, type Live } from "./live";
import type { SuspectsApi } from "./suspects.worker";

let running: Live<SuspectsApi> | null = null;

/** Weighing takes some ms; a worker that takes longer than that hangs. */
const ANSWERS_MS = 20_000;

/** The worker that weighs what can be wrong; started when first asked for, and again where it died. */
export function suspectsWorker(): Remote<SuspectsApi> {
  if (!running) {
    const worker = new Worker(new URL("./suspects.worker.ts", import.meta.url), { type: "module" });
    running = live<SuspectsApi>(worker, ANSWERS_MS, () => (running = null));
  }
  return running.api;
}
