import { defineConfig } from "vite";

/** The service worker, in one file beside the pages. What it keeps is told by `scripts/offline.mjs`. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  publicDir: false,
  define: {
    SHELL_POLICY: JSON.stringify(process.env.SHELL_POLICY ?? ""),
    KEPT: process.env.KEPT ?? "[]",
    "process.env.NODE_ENV": '"production"',
  },
  build: {
    outDir: "build/offline",
    emptyOutDir: true,
    lib: { entry: "app/offline/service-worker.ts", formats: ["iife"], name: "klinkoOffline", fileName: () => "sw.js" },
  },
});
