import type { Remote } from "comlink";
import { live, type Live } from "./live";
import type { SearchApi } from "./search.worker";

let running: Live<SearchApi> | null = null;

/** All jobs of years are read in seconds: a worker that takes longer hangs, ms. */
const ANSWERS_MS = 60_000;

/** The worker that searches the records; started when first asked for, and again where it died. */
export function searchWorker(): Remote<SearchApi> {
  if (!running) {
    const worker = new Worker(new URL("./search.worker.ts", import.meta.url), { type: "module" });
    running = live<SearchApi>(worker, ANSWERS_MS, () => (running = null));
  }
  return running.api;
}
