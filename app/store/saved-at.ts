import { readValue, writeValue } from "./values";

const SAVED = "saved-at";

/** When all was saved as a file last, ISO; null where it never was. */
export async function savedAt(): Promise<string | null> {
  const at = await readValue(SAVED);
  return typeof at === "string" && !Number.isNaN(Date.parse(at)) ? at : null;
}

export const noteSaved = (at: string): Promise<void> => writeValue(SAVED, at);
