import { useEffect, useState } from "react";
import { SKIP_WAITING } from "./names";

/** A worker that has something under way may keep the newer one waiting for minutes, ms. */
const LET_GO_MS = 4000;

/**
 * Lets go of a worker that does not end by itself (Chromium waits for all that it has under way): the page then comes from the
 * server and fetches all anew. Only with a server within reach, since without one nothing would be left.
 * @returns whether it is gone
 */
async function letGo(registration: ServiceWorkerRegistration): Promise<boolean> {
  try {
    // What is kept answers no such request.
    const { ok } = await fetch("/settings", { method: "HEAD", cache: "no-store" });
    return ok && (await registration.unregister());
  } catch {
    return false;
  }
}

/** A newer Klinko that is fetched and waits; `take` lets it take over and loads the page anew. */
export function useUpdate(): { take: () => void; taking: boolean } | null {
  const [waiting, set] = useState<ServiceWorker | null>(null);
  const [taking, setTaking] = useState(false);
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    let gone = false;
    const watch = (registration: ServiceWorkerRegistration) => {
      const look = () => {
        // The first one of all replaces nothing.
        if (!gone && registration.waiting && navigator.serviceWorker.controller) set(registration.waiting);
      };
      // One may be on its way already.
      const follow = () => registration.installing?.addEventListener("statechange", look);
      look();
      follow();
      registration.addEventListener("updatefound", follow);
    };
    void navigator.serviceWorker.ready.then(watch, () => undefined);
    return () => {
      gone = true;
    };
  }, []);
  if (!waiting) return null;
  return {
    taking,
    take: () => {
      setTaking(true);
      const anew = () => location.reload();
      // Whichever is told first: that it stands between page and server now, or that it is at work.
      navigator.serviceWorker.addEventListener("controllerchange", anew, { once: true });
      waiting.addEventListener("statechange", () => waiting.state === "activated" && anew());
      void navigator.serviceWorker.ready.then((registration) => {
        (registration.waiting ?? waiting).postMessage(SKIP_WAITING);
        setTimeout(() => void letGo(registration).then((gone) => gone && anew()), LET_GO_MS);
      });
    },
  };
}
