import { defineConfig } from "vite";

/** The command line tool: the same core, bundled for Node. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  publicDir: false,
  logLevel: "warn",
  build: {
    ssr: process.env.ENTRY ?? "cli/klinko.ts",
    outDir: "dist/cli",
    minify: false,
    rollupOptions: { output: { entryFileNames: "[name].js" } },
  },
});
