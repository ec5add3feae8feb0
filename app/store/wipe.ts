import { SHARED } from "~/offline/names";
import { boxes, cards, values } from "./boxes";
import { drafts } from "./drafts";
import { films } from "./films";
import { pages } from "./pages";
import { photos } from "./photos";
import { ownBox } from "./own-packs";
import { parts as rides } from "./ride-record";
import { changeSettings, DEFAULTS } from "./settings";
import { announcePacks } from "./tabs";

/** Removes all that Klinko keeps in this browser. What of it is gone when a page dies stays gone: asked once more, the rest goes. */
export async function wipeEverything(): Promise<void> {
  // The look of the page goes back with the settings.
  await changeSettings(DEFAULTS);
  // What is read last goes first, so that nothing is left that belongs to nothing.
  for (const box of [
    films,
    photos,
    pages,
    rides,
    boxes.reading,
    boxes.job,
    cards,
    boxes.vehicle,
    ownBox,
    drafts,
    values,
  ])
    await box.clear();
  // A file that another program handed over and nobody has looked at.
  if ("caches" in globalThis) await caches.delete(SHARED);
  announcePacks();
}
