import { wrap, type Remote } from "comlink";
import type { FlashApi } from "./flash.worker";

let remote: Remote<FlashApi> | null = null;

/** The worker that decodes, reads files and builds the demo fleet; one for the page, started when first asked for. */
export function flashWorker(): Remote<FlashApi> {
  remote ??= wrap<FlashApi>(new Worker(new URL("./flash.worker.ts", import.meta.url), { type: "module" }));
  return remote;
}
