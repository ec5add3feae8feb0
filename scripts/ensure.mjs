import { spawn, spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { delimiter, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** What the commands of this project need, made ready when it is missing or stale. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);

export function run(command, args, options = {}) {
  return spawnSync(command, args, { stdio: "inherit", cwd: root, ...options }).status ?? 1;
}

const bin = (name) => join(root, "node_modules", ".bin", name);
export const tool = (name, args, options) => run(bin(name), args, options);

/** Runs a tool beside others; what it says comes at its end, whole. */
export function beside(name, args) {
  return new Promise((resolve) => {
    const child = spawn(bin(name), args, { cwd: root, stdio: ["ignore", "pipe", "pipe"] });
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding("utf8").on("data", (text) => (said += text));
    child.once("error", (cause) => resolve({ failed: true, said: String(cause) }));
    child.once("close", (status) => resolve({ failed: status !== 0, said }));
  });
}

/** Runs a tool of which nothing is shown unless it fails. */
async function quietly(name, args, why) {
  const { failed, said } = await beside(name, args);
  if (!failed) return;
  console.error(said);
  stop(why);
}

function stop(message) {
  console.error(`\n${message}`);
  process.exit(1);
}

export function ensurePackages() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    stop(`Klinko needs Node 20.19 or newer; this is ${process.versions.node}.`);
  const stamp = "node_modules/.klinko-installed";
  const lock = readFileSync("package-lock.json", "utf8");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.log("Installing packages …");
  if (run("npm", ["ci", "--no-fund", "--no-audit", "--loglevel=error"]))
    stop("npm ci failed; see above. Is the registry within reach?");
  writeFileSync(stamp, lock);
}

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return readdirSync(path).reduce((t, name) => Math.max(t, newest(join(path, name))), stat.mtimeMs);
}

/** Is what was built older than what it is built from? */
export function stale(built, sources) {
  return !existsSync(built) || statSync(built).mtimeMs < Math.max(...sources.filter(existsSync).map(newest));
}

export async function ensureBuild() {
  const sources = ["app", "core", "packs", "public", "vite.config.ts", "vite.offline.config.ts", "react-router.config.ts", "package-lock.json", "scripts/offline.mjs", "scripts/notices.mjs"]; // prettier-ignore
  // The worker is written last: it is there when all of a build is.
  if (!stale("build/client/sw.js", sources)) return;
  console.log("Building …");
  await quietly("react-router", ["build"], "The build failed; see above.");
  const { status, stdout, stderr } = spawnSync(process.execPath, ["scripts/offline.mjs"], {
    cwd: root,
    encoding: "utf8",
  });
  if (status) stop(`${stdout}${stderr}\nWhat is kept without a signal could not be built; see above.`);
}

export async function ensureCli() {
  if (!stale("dist/cli/klinko.js", ["cli", "core", "packs", "vite.cli.config.ts", "package-lock.json"])) return;
  await quietly(
    "vite",
    ["build", "--config", "vite.cli.config.ts"],
    "The command line tool could not be built; see above.",
  );
}

/** What draws and encodes films of a lamp in a page, for tests and benches. */
export async function ensureFilmMaker() {
  if (!stale("test-results/bench/film-maker.js", ["bench", "core", "vite.bench.config.ts", "package-lock.json"]))
    return;
  await quietly(
    "vite",
    ["build", "--config", "vite.bench.config.ts"],
    "The maker of films could not be built; see above.",
  );
}

/** Where a program is: named by a variable, or the first of these names on the path; null where it is not. */
function find(variable, names) {
  const named = process.env[variable];
  if (named && existsSync(named)) return named;
  for (const dir of (process.env.PATH ?? "").split(delimiter))
    for (const name of names) if (existsSync(join(dir, name))) return join(dir, name);
  return null;
}

/** Installs a package of Debian's. @returns whether it is there now */
function installed(name, { quiet = false } = {}) {
  const sudo = process.getuid?.() === 0 ? [] : ["sudo", "-n"];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, "apt-get", ...args];
    return run(command, rest, {
      stdio: ["ignore", "ignore", quiet ? "ignore" : "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  };
  return !apt("update", "-qq") && !apt("install", "-y", "-qq", "--no-install-recommends", name);
}

/** The path of a Chromium: $CHROME_PATH, one on the path, or Debian's, installed when there is none. */
export function ensureChromium() {
  const there = () => find("CHROME_PATH", ["chromium", "chromium-browser", "google-chrome"]);
  if (there()) return there();
  console.log("No Chromium found: installing Debian's …");
  if (!installed("chromium") || !there())
    stop(
      "Chromium could not be installed. Install it (Debian: apt-get install chromium) or set CHROME_PATH to one, and start again.",
    );
  return there();
}

/** The path of a Chromium without windows, which takes less of a processor; where none can be had, the other one's. */
export function ensureShell(chromium) {
  const there = () => find("SHELL_PATH", ["chromium-headless-shell"]);
  if (!there()) installed("chromium-headless-shell", { quiet: true });
  return there() ?? chromium;
}

/** The wanted port, or a free one when it is taken. */
export function freePort(wanted) {
  const tryPort = (port) =>
    new Promise((resolve) => {
      const server = createServer();
      server.once("error", () => resolve(null));
      server.listen(port, "127.0.0.1", () => {
        const { port: got } = server.address();
        server.close(() => resolve(got));
      });
    });
  return tryPort(wanted).then((port) => port ?? tryPort(0));
}

export const serverArgs = ["server.mjs"];

/** Serves the demo on a free port, opens a browser, and closes both when `work` is done. */
export async function withDemo(port, work, { demo = true } = {}) {
  ensurePackages();
  const executablePath = ensureChromium();
  await ensureBuild();
  const { chromium } = await import("@playwright/test");
  const free = await freePort(port);
  const base = `http://127.0.0.1:${free}`;
  const server = spawn(process.execPath, serverArgs, {
    cwd: root,
    stdio: "ignore",
    env: {
      ...process.env,
      NODE_ENV: "production",
      KLINKO_DEMO: demo ? "1" : "",
      PORT: String(free),
      HOST: "127.0.0.1",
    },
  });
  const browser = await chromium.launch({
    executablePath,
    args: ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"],
  });
  try {
    const up = () =>
      fetch(base).then(
        (r) => r.ok,
        () => false,
      );
    for (let i = 0; i < 50 && !(await up()); i++) await new Promise((r) => setTimeout(r, 200));
    await work(browser, base);
  } finally {
    await browser.close();
    server.kill();
  }
}
