import type { Remote } from "comlink";
import type { FlashApi } from "./flash.worker";
import { live, type Live } from "./live";

const running = new Map<string, Live<FlashApi>>();

/** The longest of films is read in seconds: a worker that takes longer hangs, ms. */
const ANSWERS_MS = 60_000;

/** Starts both workers before a lamp is watched: they take a while to load. */
export function readyFlashWorkers(): void {
  flashWorker("read");
  flashWorker("judge");
}

/**
 * The worker that decodes and reads files; one for the page, started when first asked for, and again where it
 * died. What takes long and may come late (which dialect it is, which patch is the lamp) has one of its own, so that no reading
 * waits for it.
 */
export function flashWorker(task: "read" | "judge" = "read"): Remote<FlashApi> {
  const known = running.get(task);
  if (known) return known.api;
  const worker = new Worker(new URL("./flash.worker.ts", import.meta.url), { type: "module" });
  const own = live<FlashApi>(worker, ANSWERS_MS, () => running.delete(task));
  running.set(task, own);
  return own.api;
}
