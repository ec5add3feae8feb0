import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { ensureFilmMaker, root, withDemo } from "./ensure.mjs";
import { dialectOf, drawn, FILMS as films, openMaker, tabOf } from "./film-maker.mjs";

// Films of a lamp through the real page: codes right, marks missed and invented, speed against bare decoding, memory.
const { values: given } = parseArgs({
  options: {
    dir: { type: "string", default: "../shared/bench/video" },
    seed: { type: "string", default: "1" },
    per: { type: "string", default: "1" },
    only: { type: "string" },
    size: { type: "string", default: "640x360" },
    long: { type: "boolean", default: false },
  },
});
await ensureFilmMaker();

/** So long somebody takes to pick a film. */
const PICKING_MS = 1500;

/** Own films: dialect, codes, container, turn. Long enough for the list to come round. */
const PLANS = [
  ["lead-in", ["26", "43"], 85, "mp4", 0],
  ["long-short", ["14", "52"], 60, "webm", 0],
  ["even-when-clear", ["31"], 55, "mp4", 90],
  ["end-mark", ["34", "18"], 60, "webm", 0],
  ["cycle-lamp", ["12", "25"], 60, "mp4", 0],
];

await withDemo(4182, async (browser, base) => {
  const maker = await openMaker(browser);
  const list = [];
  if (existsSync(given.dir))
    for (const name of readdirSync(given.dir).filter((f) => /\.(mp4|webm)$/.test(f))) {
      const truth = JSON.parse(readFileSync(`${given.dir}/${name}.truth.json`, "utf8"));
      const second = truth.second?.split(":")[1].split(",") ?? null;
      const lists = [{ codes: truth.codes, lit: shifted(truth, 0) }];
      if (second) lists.push({ codes: second, lit: shifted(truth, 1) });
      list.push({
        name,
        path: `${given.dir}/${name}`,
        profile: truth.profile,
        rest: dialectOf(truth.dialect)?.rest ?? "dark",
        lists,
      });
    }
  for (const profile of ["clean", "normal", "hard"])
    for (const [id, codes, seconds, container, rotation] of PLANS)
      for (let k = 0; k < Number(given.per); k++) {
        const seed = Number(given.seed) + k;
        const [width, height] = given.size.split("x").map(Number);
        const name = `own-${id}-${profile}-${seed}${width === 640 ? "" : `-${given.size}`}.${container}`;
        if (given.only && !name.includes(given.only)) continue;
        const plan = {
          dialect: dialectOf(id),
          codes,
          profile,
          seed: seed * 101 + id.length,
          seconds,
          fps: id === "end-mark" ? 24 : 30,
          width,
          height,
          container,
          rotation,
        };
        list.push({
          name,
          path: `${films}/${name}`,
          profile,
          rest: plan.dialect.rest,
          ...(await drawn(maker, plan, `${films}/${name}`)),
        });
      }
  const chosen = list.filter((f) => !given.only || f.name.includes(given.only));
  const rows = [];
  for (const film of chosen) {
    // Before and after, since a machine is not always equally quick.
    const raw = await bare(maker, film.path);
    const read = await readInPage(browser, base, film);
    raw.ms = (raw.ms + (await bare(maker, film.path)).ms) / 2;
    const row = { ...film, ...read, raw, over: (100 * (read.took - raw.ms)) / raw.ms };
    rows.push(row);
    console.log(
      `${film.name.padEnd(34)} ${film.profile.padEnd(7)} ${row.right ? "right" : row.sure ? "WRONG" : "unsure"}  ${row.said.join(" | ").padEnd(22)} missed ${row.missed} invented ${row.invented} of ${row.marks}  ${(row.length / row.took).toFixed(1)} x true time, bare decoding ${(row.length / raw.ms).toFixed(1)} x (+${row.over.toFixed(0)} %)`,
    );
  }
  console.log("\nprofile   films  right  surely wrong  marks missed  invented");
  for (const profile of ["clean", "normal", "hard"]) {
    const of = rows.filter((r) => r.profile === profile);
    const sum = (key) => of.reduce((n, r) => n + r[key], 0);
    if (of.length)
      console.log(
        `${profile.padEnd(8)} ${String(of.length).padStart(6)} ${((100 * of.filter((r) => r.right).length) / of.length).toFixed(0).padStart(5)}% ${String(of.filter((r) => r.sure && !r.right).length).padStart(13)} ${((100 * sum("missed")) / sum("marks")).toFixed(1).padStart(12)}% ${((100 * sum("invented")) / sum("marks")).toFixed(1).padStart(8)}%`,
      );
  }
  if (given.long) await long(browser, base, maker);
});

/** Lit stretches of a given film on its own time axis. */
function shifted(truth, k) {
  const begins = /film-7/.test(truth.file) ? 3 : 0;
  return truth.edges[k].map(([a, b]) => [a - begins, b - begins]).filter(([, b]) => b > 0);
}

/** Reads a film in the page as a person would: brings it, waits, looks at codes and marks; then at the second lamp. */
async function readInPage(browser, base, film) {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${base}/watch`);
  await tabOf(page, "Film");
  // Whoever picks a film takes longer than the page does to be there as a whole.
  await page.waitForTimeout(PICKING_MS);
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a film" }).click(),
  ]);
  await chooser.setFiles(film.path);
  const state = page.getByText(/times true time/);
  await state.waitFor({ timeout: 300_000 });
  const took = Number(await state.getAttribute("data-took"));
  const result = {
    said: [],
    right: true,
    sure: true,
    missed: 0,
    invented: 0,
    marks: 0,
    took,
    length: Number(await state.getAttribute("data-length")),
  };
  const left = [...film.lists];
  for (let i = 0; i < film.lists.length; i++) {
    if (i)
      await page
        .getByRole("button", { name: /^It is patch/ })
        .first()
        .click();
    await settled(page);
    const cards = await page
      .getByRole("list", { name: "Codes read" })
      .getByRole("listitem")
      .allTextContents()
      .catch(() => []);
    const read = cards.map((c) => /^\d+/.exec(c)?.[0]);
    // Without a vehicle nothing is surer than likely.
    const sure = cards.length > 0 && cards.every((c) => /certain|likely/.test(c));
    result.said.push(`${read.join(",") || "nothing"}${sure ? "" : "?"}`);
    // Either of two lamps may be watched first.
    const same = left.findIndex((l) => JSON.stringify([...read].sort()) === JSON.stringify([...l.codes].sort()));
    const [{ lit }] = left.splice(Math.max(0, same), 1);
    result.right &&= sure && same >= 0;
    result.sure &&= sure;
    const seen = await marksOf(page);
    const length = result.length / 1000;
    const true_ = (film.rest === "lit" ? darkOf(lit) : lit).filter(([a]) => a > 0.3 && a < length - 0.3);
    result.marks += true_.length;
    result.missed += true_.filter(([a]) => !seen.some((m) => Math.abs(m - a) < 0.25)).length;
    result.invented += seen.filter(
      (m) => m > 0.3 && m < length - 0.3 && !true_.some(([a]) => Math.abs(m - a) < 0.25),
    ).length;
  }
  await page.context().close();
  return result;
}

const darkOf = (lit) => lit.slice(1).map(([a], i) => [lit[i][1], a]);

async function marksOf(page) {
  const labels = await page
    .getByRole("listbox")
    .getByRole("option")
    .evaluateAll((all) => all.map((o) => o.getAttribute("aria-label")));
  return labels.map((l) => Number(/at ([\d.]+) s/.exec(l)?.[1]));
}

/** Waits until nothing is worked out any more, and what the page says has not changed for a while. */
async function settled(page) {
  let last = "";
  for (let same = 0; same < 8;) {
    await page.waitForTimeout(500);
    const now = (await page.locator("main").textContent()) ?? "";
    const busy = await page.locator('[aria-busy="true"]').count();
    same = now === last && !busy ? same + 1 : 0;
    last = now;
  }
}

/** The film goes by its path: a long one is too large to be handed over. */
async function bare(maker, path) {
  await maker.setInputFiles("input", path);
  return maker.evaluate(() => globalThis.filmMaker.raw());
}

/** Ten minutes of 1280x720: speed, and the most memory that any process of the browser took. */
async function long(browser, base, maker) {
  const path = `${films}/own-long.mp4`;
  if (!existsSync(path)) {
    const plan = {
      dialect: dialectOf("lead-in"),
      codes: ["26", "43"],
      profile: "normal",
      seed: 7,
      seconds: 30,
      fps: 30,
      width: 1280,
      height: 720,
      container: "mp4",
      rotation: 0,
    };
    const { bytes } = await maker.evaluate((p) => globalThis.filmMaker.make(p), plan);
    writeFileSync(
      path,
      Buffer.from(await maker.evaluate(([b, n]) => globalThis.filmMaker.repeat(b, n), [bytes, 20]), "base64"),
    );
  }
  const raw = await bare(maker, path);
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${base}/watch`);
  await tabOf(page, "Film");
  // Whoever picks a film takes longer than the page does to be there as a whole.
  await page.waitForTimeout(PICKING_MS);
  const cdp = await browser.newBrowserCDPSession();
  const pids = async () =>
    (await cdp.send("SystemInfo.getProcessInfo")).processInfo.filter((p) => p.type === "renderer").map((p) => p.id);
  // What the process itself holds, without the program that all processes share.
  const held = (pid) =>
    [...readFileSync(`/proc/${pid}/status`, "utf8").matchAll(/Rss(?:Anon|Shmem):\s+(\d+)/g)].reduce(
      (sum, [, kB]) => sum + Number(kB),
      0,
    ) / 1024;
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a film" }).click(),
  ]);
  await chooser.setFiles(path);
  const at = [];
  const state = page.getByText(/times true time/);
  while (!(await state.isVisible())) {
    const most = Math.max(
      ...(await pids()).map((pid) => {
        try {
          return held(pid);
        } catch {
          return 0;
        }
      }),
    );
    at.push(most);
    await page.waitForTimeout(1000);
  }
  const took = Number(await state.getAttribute("data-took"));
  // Before and after, since a machine is not always equally quick.
  raw.ms = (raw.ms + (await bare(maker, path)).ms) / 2;
  const tenth = (k) => Math.round(at[Math.min(at.length - 1, Math.floor((k * at.length) / 10))]);
  console.log(
    `\nten minutes of 1280x720 (${(statSync(path).size / 1e6).toFixed(0)} MB): ${(600_000 / took).toFixed(1)} x true time, bare decoding ${(600_000 / raw.ms).toFixed(1)} x (+${((100 * (took - raw.ms)) / raw.ms).toFixed(0)} %); largest page process ${Math.round(Math.max(...at))} MB; at a tenth, half, end: ${tenth(1)}, ${tenth(5)}, ${tenth(9.9)} MB`,
  );
  await page.context().close();
}
