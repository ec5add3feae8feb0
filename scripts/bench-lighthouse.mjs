import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ensureChromium, freePort, run, withDemo } from "./ensure.mjs";

// Lighthouse on the build as it is served, as a phone: garage, a job, a reading. --check compares with the goals and exits 1 where one
// falls short. Lighthouse is large and used here alone: it is installed when it is asked for.
const VERSION = "12.8.2";
const GOALS = { performance: 95, accessibility: 100, "best-practices": 100 };
const PAGES = { garage: "/", job: "/jobs/demo-job-six/meaning", read: "/jobs/demo-job-six/read" };
const check = process.argv.includes("--check");
const folder = "test-results/lighthouse";
const cli = join(folder, "node_modules", "lighthouse", "cli", "index.js");
if (!existsSync(cli)) {
  mkdirSync(folder, { recursive: true });
  if (run("npm", ["install", "--no-save", "--no-fund", "--no-audit", "--loglevel=error", "--prefix", folder, `lighthouse@${VERSION}`])) process.exit(1); // prettier-ignore
}
const AGENT = "Mozilla/5.0 (Linux; Android 14; Phone) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537.36"; // prettier-ignore
const { chromium } = await import("@playwright/test");
const fails = [];
await withDemo(4201, async (_, base) => {
  const profile = mkdtempSync(join(tmpdir(), "klinko-lighthouse-"));
  const executablePath = ensureChromium();
  // The demo fleet comes in once, by a browser that is closed again: Lighthouse has its own to itself.
  const context = await chromium.launchPersistentContext(profile, {
    executablePath,
    userAgent: AGENT,
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const page = context.pages()[0];
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  await context.close();
  const port = await freePort(9333);
  const own = spawn(
    executablePath,
    ["--headless=new", "--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking", `--user-data-dir=${profile}`, `--remote-debugging-port=${port}`, "about:blank"], // prettier-ignore
    { stdio: "ignore" },
  );
  await new Promise((done) => setTimeout(done, 3000));
  for (const [name, path] of Object.entries(PAGES)) {
    const out = join(folder, `${name}.json`);
    const { status, stderr } = spawnSync(
      process.execPath,
      [cli, base + path, `--port=${port}`, "--disable-storage-reset", "--output=json", `--output-path=${out}`, `--emulated-user-agent=${AGENT}`, `--only-categories=${Object.keys(GOALS).join(",")}`, "--quiet"], // prettier-ignore
      { encoding: "utf8", timeout: 120_000 },
    );
    if (status !== 0) {
      fails.push(`${name}: Lighthouse ended with ${status}: ${String(stderr).slice(0, 400)}`);
      continue;
    }
    const { categories, audits } = JSON.parse(readFileSync(out, "utf8"));
    const scores = Object.keys(GOALS).map((c) => [c, Math.round(100 * categories[c].score)]);
    console.log(`${name}: ${scores.map(([c, s]) => `${c} ${s}`).join(", ")}`);
    for (const [c, score] of scores)
      if (score < GOALS[c]) {
        const lost = categories[c].auditRefs
          .map((r) => audits[r.id])
          .filter((a) => a.score !== null && a.score < 0.9 && a.scoreDisplayMode !== "informative")
          .map((a) => `${a.title} (${a.displayValue ?? a.score})`);
        fails.push(`${name}: ${c} ${score}, not ${GOALS[c]}: ${lost.join("; ")}`);
      }
  }
  own.kill();
  await new Promise((done) => own.once("exit", done));
  rmSync(profile, { recursive: true, force: true });
});
for (const f of fails) console.log(f);
if (check && fails.length) process.exitCode = 1;
