import { createHash } from "node:crypto";
import { copyFileSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants } from "node:zlib";
import { createRequestHandler } from "react-router";
import { build as buildFile } from "vite";
import { root } from "./ensure.mjs";
import { notices } from "./notices.mjs";

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

writeFileSync(`${root}/build/client/notices.txt`, notices(root));

/** What is kept with the first visit; what reads a page off a photo is fetched when it is first used. */
const client = join(root, "build", "client");
const KEPT = /\.(js|css|woff2|svg|png|webmanifest|html|txt)$/;
const LATER = /^(sw\.js|assets\/(tesseract-|worker\.min-).*)$/;
const files = readdirSync(client, { recursive: true })
  .filter((name) => KEPT.test(name) && !LATER.test(name) && statSync(join(client, name)).isFile())
  .sort();
const kept = files.map((name) => ({
  url: `/${name}`,
  // Names with a hash are never changed.
  revision: name.startsWith("assets/")
    ? null
    : createHash("sha256")
        .update(readFileSync(join(client, name)))
        .digest("hex")
        .slice(0, 16),
}));
process.env.KEPT = JSON.stringify(kept);
await buildFile({ configFile: `${root}/vite.offline.config.ts`, logLevel: "warn" });
copyFileSync(join(root, "build", "offline", "sw.js"), join(client, "sw.js"));
const size = files.reduce((sum, name) => sum + statSync(join(client, name)).size, 0);
// What never changes under its name is compressed here, once and as well as it can be; above a megabyte that would take too long.
const squeeze = promisify(brotliCompress);
const THOROUGH_BYTES = 1e6;
const squeezed = readdirSync(join(client, "assets"))
  .map((name) => join(client, "assets", name))
  .filter((path) => /\.(js|css|wasm)$/.test(path) && statSync(path).size > 1000);
await Promise.all(
  squeezed.map(async (path) => {
    const bytes = readFileSync(path);
    const quality = bytes.length > THOROUGH_BYTES ? 9 : constants.BROTLI_MAX_QUALITY;
    writeFileSync(`${path}.br`, await squeeze(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }));
  }),
);
console.log(`Kept without a signal: ${files.length} files, ${(size / 1e6).toFixed(1)} MB.`);
