import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { ensureBuild, ensureChromium, ensureCli, ensureFilmMaker, ensurePackages, freePort, tool } from "./ensure.mjs";

// Everything that must hold: lint, formatting, import directions, types, unit tests, the real interface in Chromium.
ensurePackages();
const chromium = ensureChromium();
mkdirSync("test-results", { recursive: true });
let passed = 0;
let failed = 0;
const check = (name, ok) => {
  console.log(`${ok ? "ok  " : "FAIL"} ${name}`);
  if (ok) passed++;
  else failed++;
};
const quiet = { stdio: ["ignore", "inherit", "inherit"] };

check("types", !tool("react-router", ["typegen"], { stdio: "ignore" }) && !tool("tsc", ["--noEmit"], quiet));
check("lint", !tool("eslint", ["--max-warnings", "0", "."], quiet));
check("format", !tool("prettier", ["--check", "--log-level", "warn", "."], quiet));
check(
  "import directions",
  !tool(
    "depcruise",
    ["--config", ".dependency-cruiser.cjs", "--output-type", "err", "app", "core", "cli", "packs"],
    quiet,
  ),
);

check("no export that nothing uses", !tool("knip", ["--no-progress"], quiet));

const results = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);
const count = (name, file, read) => {
  const report = results(file);
  const [good, bad] = report ? read(report) : [0, 1];
  passed += good;
  failed += bad;
  console.log(`${bad ? "FAIL" : "ok  "} ${name}: ${good} passed, ${bad} failed`);
};

ensureCli();
rmSync("test-results/unit.json", { force: true });
const unitStatus = tool("vitest", ["run"], quiet);
count("unit tests", "test-results/unit.json", (r) => [
  r.numPassedTests,
  r.numFailedTests + (unitStatus && !r.numFailedTests ? 1 : 0),
]);

ensureBuild();
ensureFilmMaker();
rmSync("test-results/e2e.json", { force: true });
const env = {
  ...process.env,
  CHROME_PATH: chromium,
  DEMO_PORT: String(await freePort(4173)),
  PLAIN_PORT: String(await freePort(4174)),
  PLAYWRIGHT_JSON_OUTPUT_NAME: "test-results/e2e.json",
};
const e2eStatus = tool("playwright", ["test", "--reporter=list,json"], { ...quiet, env });
count("browser tests", "test-results/e2e.json", ({ stats }) => [
  stats.expected,
  stats.unexpected + stats.flaky + (e2eStatus && !stats.unexpected ? 1 : 0),
]);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
