import { useEffect, useState } from "react";
import { SKIP_WAITING } from "./names";

/** A newer Klinko that is fetched and waits; `take` lets it take over and loads the page anew. */
export function useUpdate(): { take: () => void } | null {
  const [waiting, set] = useState<ServiceWorker | null>(null);
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    let gone = false;
    const watch = (registration: ServiceWorkerRegistration) => {
      const look = () => {
        // The first one of all replaces nothing.
        if (!gone && registration.waiting && navigator.serviceWorker.controller) set(registration.waiting);
      };
      look();
      registration.addEventListener("updatefound", () => {
        registration.installing?.addEventListener("statechange", look);
      });
    };
    void navigator.serviceWorker.ready.then(watch, () => undefined);
    return () => {
      gone = true;
    };
  }, []);
  if (!waiting) return null;
  return {
    take: () => {
      navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
      waiting.postMessage(SKIP_WAITING);
    },
  };
}
