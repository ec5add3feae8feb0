import type { RideRule } from "@core/pack/ride";
import type { SpeedUnit } from "@core/logs/log";
import { live } from "./live";
import type { LogApi, RidesRead } from "./log.worker";

/** The longest of logs is read in a second: a worker that takes longer hangs, ms. */
const ANSWERS_MS = 30_000;

/** Reads the rides of a log in a worker of its own, which ends with it. @param signal ends it at once */
export async function readRides(
  file: Blob,
  rule: RideRule,
  unit: SpeedUnit | null,
  signal: AbortSignal,
): Promise<RidesRead> {
  const worker = new Worker(new URL("./log.worker.ts", import.meta.url), { type: "module" });
  const { api, end } = live<LogApi>(worker, ANSWERS_MS);
  signal.addEventListener("abort", end);
  try {
    return await api.rides(file, rule, unit);
  } finally {
    signal.removeEventListener("abort", end);
    end();
  }
}
