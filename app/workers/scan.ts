import { live, type Live } from "./live";
import type { ScanApi } from "./scan.worker";

/** A picture is looked at in a moment: a worker that takes longer hangs, ms. */
const ANSWERS_MS = 20_000;

/** A worker that reads one transfer off another screen. */
export const scanWorker = (died: () => void): Live<ScanApi> =>
  live<ScanApi>(new Worker(new URL("./scan.worker.ts", import.meta.url), { type: "module" }), ANSWERS_MS, died);
