import { writeFileSync } from "node:fs";
import { createRequestHandler } from "react-router";
import { build as buildFile } from "vite";
import { injectManifest } from "workbox-build";
import { root } from "./ensure.mjs";

// After the build: the page that is kept for when there is no server, and the worker that keeps all of the app.
// React Router draws a page without content in the mode in which its own build does; a test holds that it still does.
process.env.IS_RR_BUILD_REQUEST = "yes";
const server = await import(`${root}/build/server/index.js`);
const handle = createRequestHandler(server, "production");
const shell = await handle(new Request("http://localhost/", { headers: { "X-React-Router-SPA-Mode": "yes" } }));
const html = await shell.text();
if (!shell.ok || !html.includes("KLINKO-NONCE")) {
  console.error(`The page for no signal could not be drawn: ${shell.status}.`);
  process.exit(1);
}
writeFileSync(`${root}/build/client/offline.html`, html);
process.env.SHELL_POLICY = shell.headers.get("Content-Security-Policy") ?? "";
await buildFile({ configFile: `${root}/vite.offline.config.ts`, logLevel: "warn" });
const { count, size, warnings } = await injectManifest({
  swSrc: `${root}/build/offline/sw.js`,
  swDest: `${root}/build/client/sw.js`,
  globDirectory: `${root}/build/client`,
  globPatterns: ["**/*.{js,css,woff2,svg,png,webmanifest,html}"],
  // What reads a page off a photo is fetched when it is first used.
  globIgnores: ["sw.js", "assets/tesseract-*", "assets/worker.min-*"],
  maximumFileSizeToCacheInBytes: 2_000_000,
  // Names with a hash are never changed.
  dontCacheBustURLsMatching: /^assets\//,
});
for (const warning of warnings) console.warn(warning);
console.log(`Kept without a signal: ${count} files, ${(size / 1e6).toFixed(1)} MB.`);
