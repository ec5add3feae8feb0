import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

/** Files that take longest begin first: one that begins last keeps one processor at work and the other idle. */
const LONGEST = ["packs/jobs.test.ts", "core/flash/foreign.test.ts", "core/flash/identify.test.ts", "core/flash/explain/even.test.ts", "core/lamp/lookout.test.ts", "core/flash/explain/views.test.ts", "core/flash/learn/learn.test.ts", "core/flash/decode.test.ts", "core/flash/judge/settle.test.ts"]; // prettier-ignore

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification) => {
      const at = LONGEST.findIndex((name) => moduleId.endsWith(name));
      return at < 0 ? LONGEST.length : at;
    };
    return [...(await super.sort(files))].sort((a, b) => place(a) - place(b));
  }
}

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    // Property tests go over many cases; how long that takes is for the benches to say.
    testTimeout: 60_000,
    // Nothing else runs beside it: one worker for each processor.
    maxWorkers: "100%",
    sequence: { sequencer: LongestFirst },
    setupFiles: ["core/testing/setup.ts"],
    projects: [
      // Pure functions have nothing to keep apart: what one file has loaded serves the next.
      { extends: true, test: { name: "core", isolate: false, include: ["{core,packs,cli}/**/*.test.ts"] } },
      { extends: true, test: { name: "app", include: ["app/**/*.test.ts"] } },
    ],
    reporters: ["default", "json"],
    outputFile: { json: "test-results/unit.json" },
  },
});
