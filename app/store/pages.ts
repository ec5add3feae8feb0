import { LIMITS } from "@core/record/types";
import { holds, instance, list, nullable, number, object, rulesReady, text, word, type Of } from "@core/schema/rule";
import { box } from "./box";

/** Pages of a manual that were read off a photo and are being gone through, one a make: reading it once more takes its time. */
export const pages = box("klinko-pages", "pages");

/** A page holds far fewer lines, and letters. */
const LINES = 5000;
const LETTERS = 2_000_000;
const px = number(0, 100_000);

const pageRule = object({
  /** Name of its file. */
  name: word(LIMITS.text),
  read: object({
    text: text(LETTERS),
    seen: list(nullable(text(LIMITS.name)), { max: LINES }),
    lines: list(object({ x0: px, x1: px, y0: px, y1: px }), { max: LINES }),
    /** As it was read, level and clean. */
    page: instance(Blob),
  }),
});
export type KeptPage = Of<typeof pageRule>;

/** Keeps a page for its make, in place of the one before. Where there is no room it is not kept, and can be read once more. */
export const keepPage = (make: string, page: KeptPage): Promise<void> => pages.set(make, page).catch(() => undefined);

/** The page of a make, or null. */
export async function readPage(make: string): Promise<KeptPage | null> {
  const raw = await pages.get(make);
  if (raw === null) return null;
  await rulesReady();
  const held = holds(pageRule, raw);
  return "value" in held ? held.value : null;
}

export const dropPage = (make: string): Promise<void> => pages.remove(make).catch(() => undefined);
