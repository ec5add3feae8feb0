import { existsSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import compression from "compression";
import express from "express";
import staticCompressed from "express-static-gzip";

/**
 * Serves a build of Klinko. PORT (4100) and HOST say where; without HOST only this machine reaches it.
 * Usage: node server.mjs [build folder]
 */
process.env.NODE_ENV = "production";
// Loaded once that stands: React is another one in development, and the build holds the one for production.
const { createRequestHandler } = await import("@react-router/express");
const port = Number(process.env.PORT) || 4100;
const host = process.env.HOST || "127.0.0.1";
const folder = resolve(process.argv[2] ?? join(dirname(fileURLToPath(import.meta.url)), "build"));
const entry = join(folder, "server", "index.js");
if (!existsSync(entry)) {
  console.error(`There is no build in ${folder}. Build it first: npm run build`);
  process.exit(1);
}

/** A file that is a document or a script of its own (a worker) gets no more than it needs. */
const FILE_POLICY = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; worker-src 'self'";

const app = express();
app.disable("x-powered-by");
app.use((request, response, next) => {
  response.setHeader("X-Content-Type-Options", "nosniff");
  response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
  if (["GET", "HEAD", "POST"].includes(request.method)) return next();
  response.setHeader("Allow", "GET, HEAD, POST");
  response.status(405).type("text/plain").send("This server answers GET, HEAD and POST.\n");
});
app.use(compression());
const files = {
  index: false,
  setHeaders: (response) => response.setHeader("Content-Security-Policy", FILE_POLICY),
};
const assets = { ...files, immutable: true, maxAge: "1y", fallthrough: false };
app.use("/assets", staticCompressed(join(folder, "client", "assets"), { enableBrotli: true, serveStatic: assets }));
// What keeps its name is asked for anew each time: a worker that is kept for long would hold an old app.
app.use(express.static(join(folder, "client"), { ...files, maxAge: 0 }));
app.all("*", createRequestHandler({ build: await import(pathToFileURL(entry).href), mode: process.env.NODE_ENV }));
app.use((error, _request, response, next) => {
  if (response.headersSent) return next(error);
  const status = error.status ?? 500;
  response
    .status(status)
    .type("text/plain")
    .send(status === 404 ? "Not found.\n" : "Something went wrong here.\n");
});

const server = app.listen(port, host, () => console.log(`Klinko: http://${host}:${port}`));
server.on("error", (error) => {
  console.error(
    error.code === "EADDRINUSE"
      ? `Port ${port} is taken: set PORT to another one.`
      : `It cannot be served: ${error.message}`,
  );
  process.exit(1);
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => process.exit(0));
