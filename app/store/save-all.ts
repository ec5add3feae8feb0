import { proxy } from "comlink";
import { recordsWorker } from "~/workers/records";
import { nowIso } from "./clock";
import { saveFile } from "./save-file";
import { noteSaved } from "./saved-at";
import type { SaveWith } from "./save-records";

/**
 * Hands all records to the person as a file, and notes that it did; written beside the page, so that nothing waits for it.
 * @param told how many of how many things are written
 * @param broken off where the signal says so: nothing is handed over then
 */
export async function saveEverything(
  what: SaveWith = { photos: true, films: false },
  told: (done: number, of: number) => void = () => undefined,
  broken?: AbortSignal,
): Promise<void> {
  const { api, end } = recordsWorker();
  broken?.addEventListener("abort", end);
  try {
    const at = nowIso();
    saveFile(`klinko-${at.slice(0, 10)}.json`, await api.save(what, proxy(told)));
    await noteSaved(at);
  } finally {
    end();
  }
}
