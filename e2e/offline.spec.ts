import { spawn, type ChildProcess } from "node:child_process";
import { appendFileSync, cpSync, readFileSync, rmSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import type { Page } from "@playwright/test";
import { expect, expectAccessible, sentence, test } from "./fixtures";
import { readByCounts } from "./ways";

/** A port that nobody has. */
const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });

/** A server of its own, which can be gone. */
function serve(port: number, build = "build"): ChildProcess {
  return spawn("node", ["server.mjs", build], {
    stdio: "ignore",
    env: { ...process.env, NODE_ENV: "production", KLINKO_DEMO: "1", PORT: String(port), HOST: "127.0.0.1" },
  });
}

/** Waits until a server answers, or does no longer. */
const answers = (base: string, yes = true) =>
  expect
    .poll(
      () =>
        fetch(base).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 20_000 },
    )
    .toBe(yes);

/** Waits until the worker has fetched all of the app and stands between the page and the server. */
const atWork = (page: Page) =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    if (!navigator.serviceWorker.controller)
      await new Promise((r) => navigator.serviceWorker.addEventListener("controllerchange", r, { once: true }));
  });

test.use({
  serviceWorkers: "allow",
  provoked: /Failed to fetch|ERR_(INTERNET|CONNECTION|FAILED)|Failed to load resource/,
});

test("after one visit all of it works with the server gone: a cold start anywhere, a reading, the checks, and the server back", async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  let server = serve(port);
  try {
    await answers(base);
    await page.goto(base);
    await expect(page.getByRole("list", { name: "Vehicles" }).getByRole("listitem")).toHaveCount(13, {
      timeout: 20_000,
    });
    await atWork(page);
    server.kill("SIGKILL");
    await answers(base, false);
    await context.setOffline(true);

    // A cold start at any address, with the policy of the pages and a nonce of its own.
    const nonces = new Set<string>();
    for (const path of [
      "/",
      "/watch",
      "/find",
      "/codes?q=coolant",
      "/makes",
      "/settings",
      "/vehicles/demo-sm418t",
      "/makes/norrvik/codes",
    ]) {
      const response = await page.goto(base + path);
      expect(response!.headers()["content-security-policy"]).toContain("script-src 'self' 'nonce-");
      nonces.add(/'nonce-([^']+)'/.exec(response!.headers()["content-security-policy"])![1]);
      await expect(sentence(page)).toBeVisible();
      await expect(sentence(page)).not.toHaveText(/could not be shown/);
    }
    expect(nonces.size).toBe(8);

    // The job goes on to the checks: workers, packs and all steps are there.
    await page.goto(base);
    await readByCounts(page, ["14"], async () => {
      await expect(sentence(page)).toHaveText("14, seen twice: done.");
      await page.reload();
      await expect(page.getByRole("textbox", { name: "Counts" })).toHaveValue(/^13 13 13 14/);
    });
    await page.getByRole("button", { name: "On to the checks" }).click();
    await expect(page.getByRole("heading", { name: "What can be wrong" })).toBeVisible();
    await expectAccessible(page, "checks without a signal");

    // The server is back: the page comes from there, and nothing is lost.
    server = serve(port);
    await answers(base);
    await context.setOffline(false);
    await page.reload();
    await expect(page.getByRole("heading", { name: "What can be wrong" })).toBeVisible();
  } finally {
    server.kill("SIGKILL");
  }
});

test("a newer Klinko is fetched beside the one at work, offered, and not while a lamp is watched", async ({ page }) => {
  const build = test.info().outputPath("build");
  cpSync("build", build, { recursive: true });
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  const server = serve(port, build);
  try {
    await answers(base);
    await page.goto(base);
    await atWork(page);
    appendFileSync(`${build}/client/sw.js`, "\n// newer");
    await page.goto(`${base}/watch`);
    await page.evaluate(async () => (await navigator.serviceWorker.ready).update());
    await expect
      .poll(() => page.evaluate(async () => (await navigator.serviceWorker.ready).waiting !== null), {
        timeout: 20_000,
      })
      .toBe(true);
    await expect(page.getByText("A newer Klinko is ready.")).toBeHidden();
    await page.getByRole("link", { name: "Find a code" }).click();
    await expect(page.getByText("A newer Klinko is ready.")).toBeVisible();
    await page.getByRole("button", { name: "Use it now" }).click();
    // The one at work ends what it is about first.
    await expect(page.getByText(/newer Klinko/)).toBeHidden({ timeout: 30_000 });
    expect(await page.evaluate(async () => (await navigator.serviceWorker.ready).waiting)).toBeNull();
    await expect(sentence(page)).toHaveText("Find a code");
  } finally {
    server.kill("SIGKILL");
    rmSync(build, { recursive: true, force: true });
  }
});

test("the server says what its files are, lets nobody else have them, and answers nothing that it was not asked for", async ({
  request,
}) => {
  const worker = await request.get("/sw.js");
  expect(worker.headers()).toMatchObject({
    "x-content-type-options": "nosniff",
    "cross-origin-resource-policy": "same-origin",
    "cache-control": "public, max-age=0",
  });
  expect(worker.headers()["content-security-policy"]).toContain("default-src 'none'");
  const [asset] = /\/assets\/[\w.-]+\.js/.exec(await (await request.get("/")).text())!;
  const script = (await request.get(asset)).headers();
  expect(script).toMatchObject({
    "x-content-type-options": "nosniff",
    "cache-control": "public, max-age=31536000, immutable",
  });
  expect(script["content-encoding"]).toMatch(/^(br|gzip)$/);
  expect((await request.fetch("/", { method: "DELETE" })).status()).toBe(405);
  expect((await request.get("/assets/none.js")).status()).toBe(404);
  // Whoever's work it stands on is named, with the licence.
  const notices = await (await request.get("/notices.txt")).text();
  const { dependencies } = JSON.parse(readFileSync("package.json", "utf8")) as { dependencies: Record<string, string> };
  for (const [name, version] of Object.entries(dependencies)) expect(notices).toContain(`\n${name} ${version}: `);
});
