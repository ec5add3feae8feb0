import { defineConfig } from "vite";

/** What `npm run bench:video` runs in a page: it draws and encodes films. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  publicDir: false,
  logLevel: "warn",
  build: {
    outDir: "test-results/bench",
    minify: false,
    lib: { entry: "bench/film-maker.ts", formats: ["es"], fileName: "film-maker" },
  },
});
