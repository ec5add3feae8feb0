import { contrasted, flattened, sharpened } from "./flatten";
import { cutOut, shrunk, type Gray } from "./gray";
import { straightened } from "./straighten";
import { unruled } from "./rules";

/** A picture of a page made ready to be read: evenly lit, level, without ruled lines. */
export function prepared(picture: Gray): Gray {
  // Twice as wide as a page is read best there is nothing more to see.
  const by = Math.floor(picture.width / 2600);
  const near = by > 1 ? shrunk(picture, by) : picture;
  return unruled(straightened(flattened(near)));
}

/** How the page is offered to the reader: blurred print is read better sharpened, small print larger. */
export interface Offer {
  /** Width of the page, pixels. */
  width: number;
  sharp: boolean;
}

/** The first fits most pages; the others are for those that the reader is not sure of. */
export const OFFERS: readonly Offer[] = [
  { width: 2600, sharp: true },
  { width: 2000, sharp: false },
  { width: 3200, sharp: true },
  { width: 2600, sharp: false },
];

/** The prepared page as it is offered. */
export function offered(page: Gray, { width, sharp }: Offer): Gray {
  const times = Math.min(3, width / page.width);
  const sized = Math.abs(times - 1) > 0.1 ? cutOut(page, 0, 0, page.width, page.height, times) : page;
  return contrasted(sharp ? sharpened(sized, 4, 1.5) : sized);
}
