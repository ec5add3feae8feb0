import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    // Property tests go over many cases; how long that takes is for the benches to say.
    testTimeout: 60_000,
    // Nothing else runs beside it: one worker for each processor.
    maxWorkers: "100%",
    setupFiles: ["core/testing/setup.ts"],
    include: ["core/**/*.test.ts", "packs/**/*.test.ts", "cli/**/*.test.ts", "app/**/*.test.ts"],
    reporters: ["default", "json"],
    outputFile: { json: "test-results/unit.json" },
  },
});
