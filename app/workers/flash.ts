import { wrap, type Remote } from "comlink";
import type { FlashApi } from "./flash.worker";

const remotes = new Map<string, Remote<FlashApi>>();

/** Starts both workers before a lamp is watched: they take a while to load. */
export function readyFlashWorkers(): void {
  flashWorker("read");
  flashWorker("judge");
}

/**
 * The worker that decodes, reads files and builds the demo fleet; one for the page, started when first asked for. What takes long
 * and may come late (which dialect it is, which patch is the lamp) has one of its own, so that no reading waits for it.
 */
export function flashWorker(task: "read" | "judge" = "read"): Remote<FlashApi> {
  const known = remotes.get(task);
  if (known) return known;
  const remote = wrap<FlashApi>(new Worker(new URL("./flash.worker.ts", import.meta.url), { type: "module" }));
  remotes.set(task, remote);
  return remote;
}
