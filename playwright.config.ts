import { defineConfig } from "@playwright/test";
import { chromium, shell } from "./e2e/chromium";

const demo = Number(process.env.DEMO_PORT ?? 4173);
const plain = Number(process.env.PLAIN_PORT ?? 4174);
const LONG = /(ways-by-lamp|job-bridge)\.spec/;
const server = (port: number, env: Record<string, string>) => ({
  command: "node server.mjs",
  url: `http://127.0.0.1:${port}/settings`,
  env: { ...env, PORT: String(port), HOST: "127.0.0.1" },
  reuseExistingServer: false,
});

export default defineConfig({
  testDir: "e2e",
  // What repeats a journey for each of many ways, beyond one of a family: npm run test:all, and test:changed for the pages that a change touches.
  ...(process.env.TEST_ALL ? {} : { grepInvert: /@all/ }),
  outputDir: "test-results/e2e",
  timeout: 120_000,
  // What is worked out in a worker comes late on a machine that is busy; the tests say what comes, the benches how soon.
  expect: { timeout: 10_000 },
  workers: 2,
  fullyParallel: true,
  // Films take both processors: they wait, so that made-up hands of other tests are not late because of them.
  projects: [
    // What takes longest begins first: at the end it would keep one processor at work and the other idle.
    { name: "long", testMatch: LONG, use: { launchOptions: shell } },
    { name: "hands", testIgnore: [/reader-/, LONG], use: { launchOptions: shell } },
    { name: "pictures", testMatch: /reader-film/, dependencies: ["long", "hands"] },
    // A camera that watches in true time has the machine to itself: with too few pictures it says, rightly, that it cannot tell.
    { name: "alone", testMatch: /reader-(readiness|camera)/, dependencies: ["pictures"], workers: 1 },
  ],
  retries: 0,
  use: {
    baseURL: `http://127.0.0.1:${demo}`,
    actionTimeout: 15_000,
    viewport: { width: 1280, height: 800 },
    // The usual headless name counts as a robot to the server's renderer.
    userAgent: "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36",
    launchOptions: chromium,
    // What is kept for when there is no signal has a test of its own; elsewhere the server answers.
    serviceWorkers: "block",
    // Recording all that was done costs a third of the time: asked for where a failure is looked into.
    trace: process.env.TRACE ? "retain-on-failure" : "off",
  },
  metadata: { plain: `http://127.0.0.1:${plain}` },
  webServer: [server(demo, { KLINKO_DEMO: "1" }), server(plain, {})],
});
