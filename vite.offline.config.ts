import { defineConfig } from "vite";

/** The service worker, in one file beside the pages. What it keeps is written into it by `scripts/offline.mjs`. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  publicDir: false,
  define: { SHELL_POLICY: JSON.stringify(process.env.SHELL_POLICY ?? ""), "process.env.NODE_ENV": '"production"' },
  build: {
    outDir: "build/offline",
    emptyOutDir: true,
    lib: { entry: "app/offline/service-worker.ts", formats: ["iife"], name: "klinkoOffline", fileName: () => "sw.js" },
  },
});
