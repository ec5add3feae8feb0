import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { ensureChromium, withDemo } from "./ensure.mjs";

// What can happen to the records, done to them: the browser's process killed at random moments, files of records changed at random
// places, two tabs at work on the same things. Exits 1 where anything is lost, unreadable, or changed by a file that was refused.
//   npm run test:faults [-- --only kills,files,tabs] [--kills 200] [--files 500] [--tabs 500] [--seed 1]
const { values: given } = parseArgs({
  options: {
    only: { type: "string", default: "kills,files,tabs" },
    kills: { type: "string", default: "200" },
    files: { type: "string", default: "500" },
    tabs: { type: "string", default: "500" },
    seed: { type: "string", default: "1" },
  },
});
const AGENT = "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36";
const sleep = (ms) => new Promise((done) => setTimeout(done, ms));
const faults = [];
const fault = (text) => {
  faults.push(text);
  console.log(`FAULT ${text}`);
};

let state = Number(given.seed) >>> 0;
/** Mulberry32: the same faults for the same seed. */
function random() {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = state;
  t = Math.imul(t ^ (t >>> 15), t | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
}
const below = (n) => Math.floor(random() * n);
const pick = (list) => list[below(list.length)];

/** Runs in the page: all that is stored, by store and key. */
async function dump() {
  const all = {};
  for (const { name } of await indexedDB.databases()) {
    const db = await new Promise((done, no) => {
      const open = indexedDB.open(name);
      open.onsuccess = () => done(open.result);
      open.onerror = () => no(open.error);
    });
    for (const store of db.objectStoreNames) {
      if (/blob/.test(store)) continue;
      const of = db.transaction(store).objectStore(store);
      const [keys, values] = await Promise.all(
        [of.getAllKeys(), of.getAll()].map((r) => new Promise((done) => (r.onsuccess = () => done(r.result)))),
      );
      all[name] = Object.fromEntries(keys.map((k, i) => [k, values[i]]));
    }
    db.close();
  }
  return all;
}
/** What of it are records. */
const recordsOf = (all) =>
  Object.fromEntries(["klinko-vehicles", "klinko-jobs", "klinko-readings"].map((name) => [name, all[name] ?? {}]));
const hashOf = (value) => createHash("sha256").update(JSON.stringify(value)).digest("hex");

/** A line of the notebook as it stands on the page, behind its time. */
const lineOf = (page, text) =>
  page
    .getByRole("list", { name: "Lines of the notebook" })
    .getByRole("listitem")
    .filter({ hasText: new RegExp(`\\d${text}$`) });

/** Is every page of what is stored a page, and nothing of it locked? @returns what is wrong */
async function lookThrough(page, base) {
  const wrong = [];
  const bad = async (what) => {
    if (await page.getByText("This page could not be shown").count()) wrong.push(`${what} cannot be shown`);
  };
  await page.goto(`${base}/?order=plate`);
  await page.getByRole("heading", { level: 1 }).waitFor();
  await page.waitForFunction(() => !/Opening/.test(document.querySelector("h1")?.textContent ?? ""));
  if (await page.getByText("is read only here.").count()) wrong.push("a record is locked");
  const links = await page.locator("main a").evaluateAll((all) => all.map((a) => a.getAttribute("href")));
  for (const path of new Set(links.filter((l) => /^\/(jobs|vehicles)\/(?!new)/.test(l)))) {
    await page.goto(base + path);
    await page.getByRole("heading", { level: 1 }).waitFor();
    await bad(path);
  }
  return wrong;
}

const fileInput = (page) => page.locator("main input[type=file]").last();
async function give(page, base, name, text) {
  if (!page.url().endsWith("/settings")) {
    await page.goto(`${base}/settings`);
    await page.getByRole("button", { name: "Bring records in" }).waitFor();
  }
  await fileInput(page).setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
}

/** A fleet as a file, each record its own. */
function fleetFile(n, tag) {
  const { records } = JSON.parse(readFileSync("core/record/samples/v1.json", "utf8"));
  const first = (kind) => Object.values(records).find((r) => r.kind === kind);
  const [vehicle, job, reading] = ["vehicle", "job", "reading"].map(first);
  const out = {};
  for (let v = 0; v < n; v++) {
    const [vid, jid] = [`${tag}-v${v}`, `${tag}-j${v}`];
    out[`vehicle/${vid}`] = { ...vehicle, id: vid, plate: `${tag} ${v}` };
    out[`job/${jid}`] = { ...job, id: jid, vehicle: vid };
    for (let r = 0; r < 3; r++)
      out[`reading/${vid}-r${r}`] = { ...reading, id: `${vid}-r${r}`, job: jid, vehicle: vid };
  }
  return { format: "klinko-backup", version: 1, savedAt: "2026-11-30T10:00:00.000Z", records: out };
}

const ACTS = ["reading", "edits", "restore", "merge"];

/** The browser's process is killed at a random moment of each of these; it is started again on what it left. */
async function kills(base, chromium, n) {
  const profile = mkdtempSync(join(tmpdir(), "klinko-faults-"));
  const start = async () => {
    const child = spawn(
      ensureChromium(),
      ["--headless=new", "--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync", `--user-agent=${AGENT}`, `--user-data-dir=${profile}`, "--remote-debugging-port=0", "about:blank"], // prettier-ignore
      { detached: true, stdio: ["ignore", "ignore", "pipe"] },
    );
    const address = await new Promise((done, no) => {
      let said = "";
      child.stderr.on("data", (d) => {
        said += d;
        const told = /DevTools listening on (ws:\S+)/.exec(said);
        if (told) done(told[1]);
      });
      child.once("exit", () => no(new Error(said)));
    });
    const browser = await chromium.connectOverCDP(address);
    const context = browser.contexts()[0];
    const page = context.pages()[0] ?? (await context.newPage());
    return {
      page,
      kill: () => process.kill(-child.pid, "SIGKILL"),
      over: new Promise((done) => child.once("exit", done)),
    };
  };
  /** What was seen in the store: from then on it must be there. */
  const held = { notes: new Set(), marks: 0, records: new Set() };
  let count = 0;
  const act = {
    reading: async (page) => {
      await page.goto(`${base}/watch`);
      await page.getByRole("tab", { name: "Tap" }).click();
      const pad = page.locator("[data-pad]");
      await pad.waitFor();
      const go = page.getByRole("button", { name: "Go on watching" });
      if (await go.count()) await go.first().click();
      for (;;) {
        await page.keyboard.press("Space");
        await sleep(80 + 200 * random());
        held.marks = Math.max(held.marks, await marks(page));
      }
    },
    edits: async (page) => {
      await page.goto(`${base}/jobs/demo-job-six/story`);
      const field = page.getByLabel("Write a line");
      for (;;) {
        const text = `line ${++count}`;
        await field.fill(text);
        await field.press("Enter");
        await lineOf(page, text).waitFor();
        held.notes.add(text);
      }
    },
    restore: async (page) => {
      const file = fleetFile(25, `K${++count}`);
      await give(page, base, "fleet.json", JSON.stringify(file));
      await page.getByRole("button", { name: "Bring it in" }).click();
      await page.getByText(/\d+ records? brought in/).waitFor();
      for (const key of Object.keys(file.records)) held.records.add(key);
      await sleep(400);
    },
    merge: async (page) => {
      const stored = await page.evaluate(dump);
      const jobs = Object.values(stored["klinko-jobs"] ?? {}).slice(0, 15);
      const records = {};
      for (const j of jobs) {
        const v = stored["klinko-vehicles"][j.vehicle];
        if (!v) continue;
        records[`vehicle/${v.id}`] = v;
        const line = { at: "2026-11-30T09:00:00.000Z", by: "person", step: "read", text: `joined ${++count} ${j.id}` };
        records[`job/${j.id}`] = { ...j, notebook: [...j.notebook, line] };
      }
      await give(page, base, "merge.json", JSON.stringify({ ...fleetFile(0, ""), records }));
      await page.getByRole("button", { name: "Bring it in" }).click();
      await page.getByText(/joined with what is here/).waitFor();
      for (const r of Object.values(records)) if (r.notebook) held.notes.add(r.notebook.at(-1).text);
      await sleep(400);
    },
  };
  const marks = (page) =>
    page.evaluate(
      () =>
        new Promise((done) => {
          const open = indexedDB.open("klinko-values");
          open.onerror = () => done(0);
          open.onsuccess = () => {
            const get = open.result.transaction("records").objectStore("records").getAll();
            get.onsuccess = () => {
              open.result.close();
              done(Math.max(0, ...get.result.map((v) => v?.marks?.length ?? v?.reading?.marks?.length ?? 0)));
            };
          };
        }),
    );
  const done = Object.fromEntries(ACTS.map((a) => [a, 0]));
  for (let i = 0; i < n; i++) {
    const own = await start();
    await own.page.goto(base);
    await own.page.getByRole("list", { name: "Vehicles" }).waitFor({ timeout: 30_000 });
    const stored = recordsOf(await own.page.evaluate(dump));
    const lines = new Set(Object.values(stored["klinko-jobs"]).flatMap((j) => j.notebook.map((l) => l.text)));
    for (const note of held.notes) if (!lines.has(note)) fault(`round ${i}: the line "${note}" is gone`);
    for (const key of held.records) {
      const [kind, id] = key.split("/");
      const of = stored[`klinko-${kind}s`];
      if (!(id in of) && !Object.keys(of).some((k) => k.endsWith(`/${id}`))) fault(`round ${i}: ${key} is gone`);
    }
    const now = await marks(own.page);
    if (now < held.marks) fault(`round ${i}: ${held.marks - now} marks of the reading are gone`);
    if (await own.page.getByText("is read only here.").count()) fault(`round ${i}: a record is locked`);
    if (i % 20 === 19 || i === n - 1) for (const w of await lookThrough(own.page, base)) fault(`round ${i}: ${w}`);
    if (i % 20 === 19) console.log(`kills: ${i + 1} of ${n}, ${held.notes.size} lines, ${held.marks} marks, ${held.records.size} records held`); // prettier-ignore
    const what = ACTS[i % ACTS.length];
    done[what]++;
    // From the moment on at which the page is at work.
    const work = act[what](own.page).catch(() => undefined);
    await Promise.race([
      work,
      sleep((what === "reading" ? 2500 : i % 4 < 2 ? 700 : 1500) + (i % 4 < 2 ? 2500 : 6000) * random()),
    ]);
    own.kill();
    await own.over;
    await work;
  }
  rmSync(profile, { recursive: true, force: true });
  console.log(
    `kills: ${n} (${ACTS.map((a) => `${done[a]} ${a}`).join(", ")}); held: ${held.notes.size} lines, ${held.marks} marks, ${held.records.size} records`,
  );
}

const ODD = [null, "", "x".repeat(5000), -1, 1e308, 0.5, [], {}, true, "2026-13-45", "../..", "new", "a/b", "__proto__", "<img src=x onerror=alert(1)>", [[[]]], { __proto__: { a: 1 } }, "\ud800"]; // prettier-ignore

/** One file, changed at one to three places. */
function mutated(text) {
  const how = below(6);
  if (how === 0) return text.slice(0, below(text.length));
  if (how === 1) {
    const at = below(text.length);
    return text.slice(0, at) + pick(['"', "{", "}", "0", "\\", ",", "\u0000", "é"]) + text.slice(at + 1 + below(3));
  }
  const file = JSON.parse(text);
  for (let n = 1 + below(3); n > 0; n--) {
    const places = [];
    const walk = (node, depth) => {
      if (typeof node !== "object" || node === null) return;
      for (const key of Object.keys(node)) {
        places.push([node, key]);
        if (depth < 6) walk(node[key], depth + 1);
      }
    };
    walk(how === 2 ? file : pick(Object.values(file.records)), 0);
    const [node, key] = pick(places);
    if (how === 3) delete node[key];
    else if (how === 4) node[pick(["__proto__", "constructor", "extra", "id", "kind", "version"])] = pick(ODD);
    else node[key] = pick(ODD);
  }
  return JSON.stringify(file);
}

/** Changed files are brought in: refused or not, all that is stored can be opened, and a refused one has changed nothing. */
async function files(browser, base, n) {
  const context = await browser.newContext({ userAgent: AGENT });
  const page = await context.newPage();
  const errors = [];
  page.on("pageerror", (e) => errors.push(e.message));
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  const whole = JSON.stringify(fleetFile(4, "M"));
  const told = { refused: 0, nothing: 0, brought: 0 };
  for (let i = 0; i < n; i++) {
    const before = hashOf(recordsOf(await page.evaluate(dump)));
    await page.goto(`${base}/settings`);
    await page.getByRole("button", { name: "Bring records in" }).waitFor();
    await give(page, base, `m${i}.json`, mutated(whole));
    const alert = page.getByRole("alert").filter({ hasText: `m${i}.json` });
    const plan = page.getByRole("button", { name: "Bring it in" });
    const end = page.getByText(/brought in|Nothing new/).and(page.locator("strong"));
    let answer = await Promise.race([
      alert.waitFor({ timeout: 20_000 }).then(() => "refused"),
      plan.waitFor({ timeout: 20_000 }).then(() => "plan"),
      end.waitFor({ timeout: 20_000 }).then(() => "nothing"),
    ]).catch(() => "silent");
    // What can be read of a file is offered beside what is wrong with the rest.
    if (answer === "refused" && (await plan.isVisible())) answer = "plan";
    if (answer === "silent") fault(`file ${i}: no answer`);
    if (answer === "plan") {
      const file = page.getByRole("radio", { name: /^File: / });
      for (let k = 0; k < (await file.count()); k++) if (random() < 0.5) await file.nth(k).check({ force: true });
      await plan.click();
      await end.waitFor({ timeout: 20_000 }).catch(() => fault(`file ${i}: no end`));
      told.brought++;
    } else told[answer]++;
    if (answer === "refused" && hashOf(recordsOf(await page.evaluate(dump))) !== before)
      fault(`file ${i}: it was refused, and changed what is stored`);
    if (i % 25 === 24 || i === n - 1) for (const w of await lookThrough(page, base)) fault(`after file ${i}: ${w}`);
    if (i % 50 === 49) console.log(`files: ${i + 1} of ${n}`);
    for (const e of errors.splice(0)) fault(`file ${i}: ${e}`);
  }
  await context.close();
  console.log(
    `files: ${n} (${told.brought} brought in at least in part, ${told.refused} refused, ${told.nothing} with nothing new)`,
  );
}

/** Two tabs at work on one job and one vehicle: nothing that one was told is stored is lost, and both show the same. */
async function tabs(browser, base, n) {
  const context = await browser.newContext({ userAgent: AGENT });
  const pages = [await context.newPage(), await context.newPage()];
  await pages[0].goto(base);
  await pages[0].getByRole("list", { name: "Vehicles" }).waitFor();
  const JOB = "demo-job-six";
  const written = { notes: [], work: [], words: [], plates: [] };
  const vehicle = "demo-sm077f";
  const at = async (page, path) => {
    if (new URL(page.url()).pathname !== path) await page.goto(base + path);
  };
  const ids = await pages[0].evaluate(dump);
  const own = ids["klinko-jobs"][JOB].vehicle ?? vehicle;
  const OPS = {
    note: async (page, text) => {
      await at(page, `/jobs/${JOB}/story`);
      await page.getByLabel("Write a line").fill(text);
      await page.getByLabel("Write a line").press("Enter");
      await lineOf(page, text).waitFor();
      written.notes.push(text);
    },
    words: async (page, text) => {
      await at(page, `/jobs/${JOB}/story`);
      await page.getByLabel("In the owner's words").fill(text);
      written.words.push(text);
    },
    work: async (page, text) => {
      await at(page, `/vehicles/${own}`);
      await page.getByLabel("What was done").fill(text);
      await page.getByRole("button", { name: "Note mileage or work" }).click();
      await page.getByText(text).first().waitFor();
      written.work.push(text);
    },
    plate: async (page, text) => {
      await at(page, `/vehicles/${own}/edit`);
      await page.getByLabel("Plate or name").fill(text);
      await page.getByRole("button", { name: "Keep the change" }).click();
      await page.getByRole("heading", { level: 1 }).waitFor();
      await page.waitForURL(/vehicles\/[^/]+$/);
      written.plates.push(text.toUpperCase());
    },
  };
  const one = async (page, who) => {
    for (let i = 0; i < n; i++) {
      const op = pick(["note", "note", "note", "work", "work", "plate", "words"]);
      await OPS[op](page, `${op} ${who}${i}`).catch((e) => fault(`tab ${who}, ${op} ${i}: ${String(e).slice(0, 200)}`));
    }
  };
  await Promise.all([one(pages[0], "a"), one(pages[1], "b")]);
  const stored = await pages[0].evaluate(dump);
  const job = stored["klinko-jobs"][JOB];
  const lines = job.notebook.map((l) => l.text);
  for (const note of written.notes) if (lines.filter((l) => l === note).length !== 1) fault(`the line "${note}" is there ${lines.filter((l) => l === note).length} times`); // prettier-ignore
  const work = (stored["klinko-vehicles"][own].work ?? []).map((w) => w.what);
  for (const w of written.work) if (work.filter((x) => x === w).length !== 1) fault(`the work "${w}" is there ${work.filter((x) => x === w).length} times`); // prettier-ignore
  const last = ["A", "B"].map((who) => written.plates.findLast((p) => p.startsWith(`PLATE ${who}`)));
  const { plate } = stored["klinko-vehicles"][own];
  if (written.plates.length && !last.includes(plate)) fault(`the plate is "${plate}", the last of neither tab`);
  for (const path of [`/jobs/${JOB}/story`, `/vehicles/${own}`]) {
    const seen = [];
    for (const page of pages) {
      await page.goto(base + path);
      await page.getByRole("heading", { level: 1 }).waitFor();
      await sleep(800);
      seen.push(await page.locator("main, aside").allInnerTexts());
    }
    if (JSON.stringify(seen[0]) !== JSON.stringify(seen[1])) fault(`${path} is not the same in both tabs`);
  }
  await context.close();
  console.log(`tabs: 2 × ${n} (${Object.entries(written).map(([k, v]) => `${v.length} ${k}`).join(", ")})`); // prettier-ignore
}

const { chromium } = await import("@playwright/test");
await withDemo(4191, async (browser, base) => {
  const only = given.only.split(",");
  if (only.includes("tabs")) await tabs(browser, base, Number(given.tabs));
  if (only.includes("files")) await files(browser, base, Number(given.files));
  if (only.includes("kills")) await kills(base, chromium, Number(given.kills));
});
console.log(faults.length ? `${faults.length} faults` : "nothing lost, nothing unreadable");
process.exitCode = faults.length ? 1 : 0;
