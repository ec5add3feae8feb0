import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import {
  beside,
  ensureBuild,
  ensureChromium,
  ensureCli,
  ensureFilmMaker,
  ensurePackages,
  ensureShell,
  freePort,
  tool,
} from "./ensure.mjs";

// Everything that must hold: lint, formatting, import directions, types, unit tests, the real interface in Chromium.
ensurePackages();
const chromium = ensureChromium();
const shell = ensureShell(chromium);
mkdirSync("test-results", { recursive: true });
let passed = 0;
let failed = 0;
const check = (name, ok) => {
  console.log(`${ok ? "ok  " : "FAIL"} ${name}`);
  if (ok) passed++;
  else failed++;
};
const quiet = { stdio: ["ignore", "inherit", "inherit"] };

// One processor each: what only looks at the code, in two rows, and what the tests need built, behind the shorter one.
const look = async (name, ...args) => {
  const { failed, said } = await beside(name, args);
  if (failed) console.log(said);
  return !failed;
};
const routes = await look("react-router", "typegen");
await Promise.all([
  (async () => {
    check("lint", await look("eslint", "--max-warnings", "0", "."));
    await ensureFilmMaker();
  })(),
  (async () => {
    check("types", (await look("tsc", "--noEmit")) && routes);
    check("format", await look("prettier", "--check", "--log-level", "warn", "."));
    check(
      "import directions",
      await look(
        "depcruise",
        "--config",
        ".dependency-cruiser.cjs",
        "--output-type",
        "err",
        "app",
        "core",
        "cli",
        "packs",
      ),
    );
    check("no export that nothing uses", await look("knip", "--no-progress"));
    await ensureBuild();
    await ensureCli();
  })(),
]);

const results = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);
const count = (name, file, read) => {
  const report = results(file);
  const [good, bad] = report ? read(report) : [0, 1];
  passed += good;
  failed += bad;
  console.log(`${bad ? "FAIL" : "ok  "} ${name}: ${good} passed, ${bad} failed`);
};

rmSync("test-results/unit.json", { force: true });
const unitStatus = tool("vitest", ["run"], quiet);
count("unit tests", "test-results/unit.json", (r) => [
  r.numPassedTests,
  r.numFailedTests + (unitStatus && !r.numFailedTests ? 1 : 0),
]);

rmSync("test-results/e2e.json", { force: true });
const env = {
  ...process.env,
  ...(process.argv.includes("--all") && { TEST_ALL: "1" }),
  CHROME_PATH: chromium,
  SHELL_PATH: shell,
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
