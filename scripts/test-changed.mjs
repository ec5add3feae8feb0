import { execFileSync } from "node:child_process";
import { readdirSync } from "node:fs";
import {
  ensureBuild,
  ensureChromium,
  ensureCli,
  ensureFilmMaker,
  ensurePackages,
  ensureShell,
  tool,
} from "./ensure.mjs";

// What a change touches: types, lint of the files, the unit tests that import them, and the browser tests of those pages.
// Against HEAD, or what is named: npm run test:changed -- main
ensurePackages();
const since = process.argv[2] ?? "HEAD";
const git = (...args) => execFileSync("git", args, { encoding: "utf8" }).split("\n").filter(Boolean);
const changed = [
  ...new Set([
    ...git("diff", "--name-only", "--diff-filter=d", since),
    ...git("ls-files", "--others", "--exclude-standard"),
  ]),
];
if (!changed.length) {
  console.log(`Nothing has changed since ${since}.`);
  process.exit(0);
}

/** Which browser tests walk the pages of a folder; what is not named here is walked by all of them. */
const WALKED = [
  [/^app\/features\/read\/picture\/|^app\/workers\/|^core\/lamp\//, ["reader-film", "reader-camera"]],
  [/^app\/features\/(read|path|prove|clear|meaning)\//, ["reading", "phone", "job-bridge", "ways-by-lamp"]],
  [/^app\/features\/(find|sheet|way-in|hook-up)\//, ["finder", "job-bridge", "ways-by-lamp"]],
  [/^app\/features\/(garage|records|story|notebook)\/|^app\/store\//, ["records", "tabs", "pages"]],
  [/^app\/features\/(lamp-check|simulated)\//, ["job-bridge", "job-two-lamps"]],
  [/^(packs|core\/(pack|procedure|simulated|display|serial))\//, ["ways-by-lamp", "ways-by-display"]],
  [/^(core|cli|bench|scripts|docs)\/|\.md$|\.test\.ts$/, []],
];
const specs = new Set(changed.flatMap((f) => /^e2e\/(.+)\.spec\.ts$/.exec(f)?.[1] ?? []));
for (const file of changed.filter((f) => !f.startsWith("e2e/"))) {
  const walks = WALKED.find(([where]) => where.test(file))?.[1];
  for (const spec of walks ?? readdirSync("e2e").flatMap((f) => /^(.+)\.spec\.ts$/.exec(f)?.[1] ?? [])) specs.add(spec);
}

const code = changed.filter((f) => /\.(ts|tsx|mjs)$/.test(f));
const run = (name, ...args) => {
  if (tool(name, ...args)) process.exit(1);
};
run("react-router", ["typegen"], { stdio: "ignore" });
run("tsc", ["--noEmit"]);
if (code.length) run("eslint", ["--max-warnings", "0", ...code]);
await ensureCli();
run("vitest", ["run", "--changed", since, "--passWithNoTests", "--reporter=default"]);
if (specs.size) {
  await ensureBuild();
  await ensureFilmMaker();
  const chromium = ensureChromium();
  run("playwright", ["test", "--no-deps", ...[...specs].map((s) => `e2e/${s}.spec.ts`)], {
    env: { ...process.env, TEST_ALL: "1", CHROME_PATH: chromium, SHELL_PATH: ensureShell(chromium) },
    stdio: "inherit",
  });
}
