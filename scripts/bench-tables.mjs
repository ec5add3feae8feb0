import { execFileSync, spawn } from "node:child_process";
import { chromium } from "playwright-core";
import { ensureBuild, ensureChromium, ensureCli, ensurePackages, freePort } from "./ensure.mjs";
import { drawPage, lookOf, seeded } from "./table-pictures.mjs";

// How well the table of a manual's page is read: as text by the core alone, as pictures through the page of the app, in Chromium.
const args = process.argv.slice(2);
const value = (name, other) => (args.includes(name) ? Number(args[args.indexOf(name) + 1]) : other);
const check = args.includes("--check");
const n = value("--pictures", 30);
const seed = value("--seed", 1);

ensurePackages();
const executablePath = ensureChromium();
await ensureBuild();
await ensureCli();
const cli = (...rest) =>
  execFileSync(process.execPath, ["scripts/klinko.mjs", "bench-tables", ...rest], { encoding: "utf8", maxBuffer: 1e8 });
const short = [];
try {
  console.log(cli("--n", "40", "--seed", String(seed), ...(check ? ["--check"] : [])));
} catch (error) {
  console.log(error.stdout);
  short.push("text");
}
if (n > 0) await pictures();
if (check && short.length) {
  console.log(`Not at the goal: ${short.join("; ")}`);
  process.exitCode = 1;
}

async function pictures() {
  const made = JSON.parse(cli("--rows", String(n), "--seed", String(seed)));
  const port = await freePort(4290);
  const env = { ...process.env, PORT: String(port), HOST: "127.0.0.1", NODE_ENV: "production" };
  const server = spawn(process.execPath, ["node_modules/.bin/react-router-serve", "build/server/index.js"], {
    env,
    stdio: "ignore",
  });
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox", "--disable-gpu"] });
  try {
    const base = `http://127.0.0.1:${port}`;
    const drawing = await browser.newPage();
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    for (let i = 0; i < 100; i++) {
      if (
        await page.goto(`${base}/makes/new`).then(
          () => true,
          () => false,
        )
      )
        break;
      await new Promise((done) => setTimeout(done, 200));
    }
    await page.getByLabel("Make", { exact: true }).fill("Bench");
    await page.getByLabel("Model", { exact: true }).fill("Page");
    await page.getByLabel("First model year").fill("1990");
    await page.getByRole("button", { name: "Go on" }).click();
    await page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name: /Codes/ }).click();
    const sums = {};
    for (const [i, { rows }] of made.entries()) {
      const hard = i % 2 === 1;
      const look = lookOf(seeded(1000 * seed + i), hard);
      const more = rows.some((r) => r.rest);
      const cells = rows.map((r) => [r.code, r.title, ...(more ? [r.rest] : [])]);
      const buffer = await drawPage(drawing, cells, ["Code", "Circuit", ...(more ? ["Cause"] : [])], look, i + 1);
      const begin = performance.now();
      const read = await readOne(page, { name: `page-${i}.jpg`, mimeType: "image/jpeg", buffer });
      const score = scoreOf(rows, read);
      const kind = hard ? "hard" : "upright, well lit";
      const sum = (sums[kind] ??= {
        pages: 0,
        codes: 0,
        right: 0,
        texts: 0,
        doubtful: 0,
        wrong: 0,
        unmarked: 0,
        ms: 0,
        slowest: 0,
      });
      const ms = performance.now() - begin;
      for (const k of Object.keys(score)) sum[k] += score[k];
      sum.pages++;
      sum.ms += ms;
      sum.slowest = Math.max(sum.slowest, ms);
      if (args.includes("--show"))
        console.log(
          i,
          kind,
          look.font,
          look.ruled,
          look.degrees.toFixed(1),
          JSON.stringify(score),
          Math.round(ms),
          score.lost,
        );
    }
    for (const [kind, s] of Object.entries(sums)) {
      const of = (x) => ((100 * x) / s.codes).toFixed(1);
      console.log(
        `pictures, ${kind}: ${s.pages} pages, ${s.codes} codes, right ${of(s.right)} %, texts ${of(s.texts)} %, doubtful ${of(s.doubtful)} %, wrong ${s.wrong}, unmarked ${s.unmarked}, ${(s.ms / s.pages / 1000).toFixed(1)} s a page, slowest ${(s.slowest / 1000).toFixed(1)} s`,
      );
      const goal = kind === "hard" ? 90 : 97;
      if ((100 * s.right) / s.codes < goal) short.push(`pictures, ${kind}: right below ${goal} %`);
      if (s.unmarked) short.push(`pictures, ${kind}: ${s.unmarked} wrong codes that nothing marks`);
      if (s.slowest > 15_000) short.push(`pictures, ${kind}: a page took longer than 15 s`);
    }
  } finally {
    await browser.close();
    server.kill();
  }
}

/** Gives a picture to the page, and waits for what it makes of it. */
async function readOne(page, file) {
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Open a picture or file" }).click(),
  ]);
  await chooser.setFiles(file);
  const found = page.getByText(/codes? found|No code was found|could not be opened/).first();
  await page.getByText(`Read from ${file.name}`).waitFor({ timeout: 120_000 });
  await found.waitFor({ timeout: 30_000 });
  return page
    .getByRole("list", { name: "Codes found" })
    .locator("> li")
    .evaluateAll((items) =>
      items.map((li) => ({
        code: li.dataset.code,
        title: li.dataset.title,
        doubtful: li.dataset.doubt === "yes",
      })),
    );
}

function plain(text) {
  return text.replace(/[^\p{L}\d]+/gu, "").toLowerCase();
}

function scoreOf(rows, read) {
  const left = new Set(read);
  const score = { codes: rows.length, right: 0, texts: 0, doubtful: 0, wrong: 0, unmarked: 0 };
  for (const want of rows) {
    const row = [...left].find((r) => r.code === want.code);
    if (!row) continue;
    left.delete(row);
    score.right++;
    if (row.doubtful) score.doubtful++;
    // Half of what is said may be misspelt by a letter: the beginning tells whether it is the right text.
    if (plain(row.title).startsWith(plain(want.title).slice(0, 12))) score.texts++;
  }
  for (const row of left) {
    score.wrong++;
    if (!row.doubtful) score.unmarked++;
  }
  return score;
}
