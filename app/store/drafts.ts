import localforage from "localforage";
import { rulesReady } from "@core/schema/rule";
import { box } from "./box";
import { dropValue, readValue } from "./values";

/**
 * What somebody is in the middle of writing. It is written before the page can be gone: a transaction of IndexedDB that is under way when a
 * page is reloaded is broken off, and with it the last word.
 */
export const drafts = box("klinko-drafts", "drafts", localforage.LOCALSTORAGE);

/** An older Klinko kept drafts among the values. */
export async function readDraft(key: string): Promise<unknown> {
  const draft = (await drafts.get(key)) ?? (await readValue(`draft/${key}`));
  // Who asked for it checks it.
  if (draft !== null) await rulesReady();
  return draft;
}
export const writeDraft = (key: string, value: unknown): Promise<void> => drafts.set(key, value);
export async function dropDraft(key: string): Promise<void> {
  await drafts.remove(key);
  await dropValue(`draft/${key}`);
}
