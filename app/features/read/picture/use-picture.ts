import { useSyncExternalStore } from "react";
import type { PictureState, PictureWatch } from "./picture-watch";

/** A part of what is watched; what uses it is drawn again only when that part changes. */
export function usePicture<T>(picture: PictureWatch, select: (state: PictureState) => T): T {
  const get = () => select(picture.state);
  return useSyncExternalStore(picture.subscribe, get, get);
}
