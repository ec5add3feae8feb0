import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";
import { NONCE_PLACE, SHARED, SHARED_TO, SHELL, SKIP_WAITING } from "./names";

/**
 * Keeps Klinko at work without a signal: all of the app is fetched with the first visit. A newer one is fetched beside the one that is at work and takes
 * over when somebody says so, never in the middle of a reading.
 */
declare const self: ServiceWorkerGlobalScope;
/** All files of the app; put in when this is built. */
declare const KEPT: PrecacheEntry[];
/** The policy of the pages, with a place for the nonce; put in when this is built. */
declare const SHELL_POLICY: string;

/** Two releases of what reads a photo; older ones go. */
const HEAVY_FILES = 12;

/** The server has so long to answer before the page comes from what is kept, ms. */
const SERVER_MS = 5000;

precacheAndRoute(KEPT);
cleanupOutdatedCaches();
clientsClaim();

// What reads a page off a photo is heavy and seldom needed: kept once it was fetched.
registerRoute(
  ({ url }) => url.pathname.startsWith("/assets/"),
  new CacheFirst({ cacheName: "klinko-heavy", plugins: [new ExpirationPlugin({ maxEntries: HEAVY_FILES })] }),
);

registerRoute(new NavigationRoute(({ request }) => fromServer(request).catch(shell)));

async function fromServer(request: Request): Promise<Response> {
  const response = await fetch(request, { signal: AbortSignal.timeout(SERVER_MS) });
  // A server that is starting or ailing is as good as none.
  if (response.status >= 500) throw new Error(`The server answered ${response.status}.`);
  return response;
}

/** The page without any content of its own: it draws itself from what is on the device. */
async function shell(): Promise<Response> {
  const kept = await matchPrecache(SHELL);
  if (!kept) return Response.error();
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const filled = (text: string) => text.replaceAll(NONCE_PLACE, nonce);
  return new Response(filled(await kept.text()), {
    headers: { "Content-Type": "text/html; charset=utf-8", "Content-Security-Policy": filled(SHELL_POLICY) },
  });
}

// A file that another program hands over waits until the page that brings records in takes it.
registerRoute(
  ({ url }) => url.pathname === SHARED_TO,
  async ({ request }) => {
    const file = (await request.formData()).get("file");
    const waiting = await caches.open(SHARED);
    if (file instanceof File) await waiting.put(SHARED_TO, new Response(file));
    return Response.redirect("/settings", 303);
  },
  "POST",
);

self.addEventListener("message", (event) => {
  if (event.data === SKIP_WAITING) void self.skipWaiting();
});
