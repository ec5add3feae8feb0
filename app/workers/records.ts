import { live, type Live } from "./live";
import type { RecordsApi } from "./records.worker";

/** A worker that writes or reads one file of records, and is ended after it, or before, by whoever breaks off. */
export function recordsWorker(): Live<RecordsApi> {
  return live<RecordsApi>(new Worker(new URL("./records.worker.ts", import.meta.url), { type: "module" }), null);
}
