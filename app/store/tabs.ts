import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { isActing } from "./acting";
import { loadOwnPacks } from "./own-packs";

/** What was written by one tab is told to the others. */
const CHANNEL = "klinko-records";
const inBrowser = typeof document !== "undefined" || typeof WorkerGlobalScope !== "undefined";
const channel = inBrowser && typeof BroadcastChannel !== "undefined" ? new BroadcastChannel(CHANNEL) : null;

/** Tells a worker which vehicle's records were changed, by whatever tab; null where it may be any, as where makes were. */
export function hearChanges(heard: (vehicle: string | null) => void): void {
  new BroadcastChannel(CHANNEL).addEventListener("message", ({ data }: MessageEvent) => {
    if (typeof data === "string") heard(data === PACKS ? null : data);
  });
}

/** Told where makes have changed, and not a vehicle. */
const PACKS = "packs";
export const announcePacks = (): void => channel?.postMessage(PACKS);

/** @param vehicle whose records have changed */
export const announce = (vehicle: string): void => channel?.postMessage(vehicle);

/** Several writes in a row are looked at once, ms. */
const SETTLE_MS = 200;

/** Shows what another tab has written; what is being typed here stays. */
export function useOtherTabs(): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    if (!channel) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let packs = false;
    const heard = ({ data }: MessageEvent) => {
      clearTimeout(timer);
      packs ||= data === PACKS;
      const look = () => {
        // What is read anew in the middle of an action takes the place of the page that the action leads to: it waits.
        if (isActing()) {
          timer = setTimeout(look, SETTLE_MS);
          return;
        }
        const read = packs ? loadOwnPacks() : Promise.resolve();
        packs = false;
        void read.catch(() => undefined).then(revalidate);
      };
      timer = setTimeout(look, SETTLE_MS);
    };
    channel.addEventListener("message", heard);
    return () => {
      clearTimeout(timer);
      channel.removeEventListener("message", heard);
    };
  }, [revalidate]);
}
