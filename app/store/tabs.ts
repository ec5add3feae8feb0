import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** What was written by one tab is told to the others. */
const CHANNEL = "klinko-records";
const channel =
  typeof document === "undefined" || typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(CHANNEL);

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
    const heard = () => {
      clearTimeout(timer);
      timer = setTimeout(() => void revalidate(), SETTLE_MS);
    };
    channel.addEventListener("message", heard);
    return () => {
      clearTimeout(timer);
      channel.removeEventListener("message", heard);
    };
  }, [revalidate]);
}
