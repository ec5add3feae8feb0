import { execFileSync } from "node:child_process";
import { mkdirSync, readFileSync } from "node:fs";
import { ensureCli, ensureFilmMaker, ensurePackages, root, withDemo } from "./ensure.mjs";
import { drawn, FILMS, openMaker } from "./film-maker.mjs";
import { drawPage, lookOf, seeded } from "./table-pictures.mjs";

// The pictures in docs/screenshots, from the demo data: a reading is brought in as a trace of the simulated lamp.
ensurePackages();
await ensureCli();
const out = `${root}/docs/screenshots`;
mkdirSync(out, { recursive: true });
await withDemo(4181, async (browser, base) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
  const page = await context.newPage();
  const shot = async (name, of = page) => {
    await of.waitForTimeout(400);
    await of.mouse.move(0, 0);
    await of.screenshot({ path: `${out}/${name}.png` });
    console.log(name);
  };
  const heading = (text) => page.getByRole("heading", { level: 1, name: text }).waitFor();
  if (process.argv.includes("--proving")) {
    await page.goto(base);
    await page.getByRole("list", { name: "Vehicles" }).waitFor();
    return proving(page, base, shot);
  }
  if (process.argv.includes("--offline")) return offline(browser, base, shot);
  if (process.argv.includes("--records")) return records(page, base, shot);
  await makes(page, await context.newPage(), base, shot);
  if (process.argv.includes("--makes")) return;
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  await shot("garage");
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("link", { name: /Story/ }).click();
  await heading("What does the owner say?");
  await page.getByRole("link", { name: "Lamp check" }).click();
  await page
    .getByRole("button", { name: /Stays lit/ })
    .first()
    .click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  for (const what of ["Engine off", "Parking brake on", "All consumers off: fan, lights, radio"])
    await page.getByText(what, { exact: true }).click();
  for (let i = 0; i < 2; i++) {
    await page.getByRole("button", { name: /^Done/ }).click();
    await page.waitForTimeout(300);
  }
  await page.getByText("Put the wire in").waitFor();
  await shot("hook-up");
  await page.getByRole("button", { name: /Ready: on to the reading/ }).click();
  await heading("Tap with every flash.");
  // Marks of a tapping hand, straight into the store: a picture should not take three minutes.
  const taps = JSON.parse(
    execFileSync(
      process.execPath,
      ["dist/cli/klinko.js", "taps", "--pack", "norrvik", "--codes", "26,43", "--until", "118000", "--seed", "5"],
      { cwd: root, encoding: "utf8" },
    ),
  );
  await page.keyboard.press("Space");
  await page.waitForTimeout(600);
  await page.evaluate(
    (taps) =>
      new Promise((resolve) => {
        const open = indexedDB.open("klinko-readings");
        open.onsuccess = () => {
          const store = open.result.transaction("records", "readwrite").objectStore("records");
          const all = store.getAll();
          all.onsuccess = () => {
            const reading = all.result.find((d) => d?.kind === "reading" && !d.recordedAt);
            store.put(
              {
                ...reading,
                startedAt: new Date(Date.now() - 118000).toISOString(),
                marks: taps.map((t, i) => ({ id: i + 1, t: Math.round(t) })),
              },
              `${reading.job}/${reading.id}`,
            );
            setTimeout(resolve, 300);
          };
        };
      }),
    taps,
  );
  await page.reload();
  await page.getByRole("button", { name: "Go on watching" }).click();
  await page.getByRole("list", { name: "Codes read" }).waitFor();
  await page.waitForTimeout(1500);
  await page
    .getByRole("radiogroup", { name: /^Look once more/ })
    .getByText("CHECK ENGINE (MIL)", { exact: true })
    .click();
  await page.evaluate(() => scrollTo(0, 0));
  await shot("read");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await page.getByRole("button", { name: "On to the checks" }).waitFor();
  await page.evaluate(() => scrollTo(0, 0));
  await shot("meaning");
  await page.getByRole("button", { name: "On to the checks" }).click();
  await page.getByRole("heading", { name: "What can be wrong" }).waitFor();
  await shot("checks");
  await page.getByRole("button", { name: "On to the clear" }).click();
  await heading("2 codes: clear them, and see what returns first.");
  await shot("clear");
  await page.goto(`${base}/vehicles/demo-sm418t`);
  await page.getByRole("heading", { name: "When it comes on" }).scrollIntoViewIfNeeded();
  await page.evaluate(() => scrollTo(0, 260));
  await shot("conditions");
  await page.goto(`${base}/jobs/demo-job-old/prove`);
  await page.getByRole("table").waitFor();
  await shot("prove");
  // The reader: a film with the strip in step, a correction, the camera.
  await ensureFilmMaker();
  const norrvik = JSON.parse(readFileSync(`${root}/packs/norrvik.json`, "utf8"));
  const film = `${FILMS}/picture.mp4`;
  const plan = {
    dialect: norrvik.dialects[0],
    codes: ["26", "43"],
    profile: "normal",
    seed: 12,
    seconds: 90,
    fps: 30,
    width: 640,
    height: 360,
    container: "mp4",
    rotation: 0,
  };
  await drawn(await openMaker(browser), plan, film);
  await page.goto(`${base}/watch`);
  const tab = async (name) => {
    const wanted = page.getByRole("tab", { name });
    while ((await wanted.getAttribute("aria-selected")) !== "true") {
      await wanted.click();
      await page.waitForTimeout(200);
    }
  };
  await tab("Film");
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a film" }).click(),
  ]);
  await chooser.setFiles(film);
  await page.getByText(/times true time/).waitFor({ timeout: 60_000 });
  await page.getByText(/It blinks like/).waitFor({ timeout: 60_000 });
  await page.getByRole("list", { name: "Codes read" }).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(4000);
  await page.setViewportSize({ width: 1280, height: 1000 });
  await page.getByRole("slider", { name: "Go through the film" }).focus();
  await page.keyboard.press("Home");
  for (let i = 0; i < 52; i++) await page.keyboard.press("ArrowRight");
  await page.waitForTimeout(800);
  await shot("read-film");
  await page.getByRole("listbox").focus();
  for (const key of ["Home", ...Array(7).fill("ArrowRight")]) await page.keyboard.press(key);
  await page.waitForTimeout(400);
  await page.getByRole("toolbar", { name: "Correct this mark" }).evaluate((e) => e.scrollIntoView({ block: "end" }));
  await page.keyboard.press("Escape");
  await page.setViewportSize({ width: 1280, height: 800 });
  // A lamp of no make that Klinko knows: long flashes are tens, and a rest of its own parts them from the units.
  const trace = ["t_ms,lit", "0,0"];
  let t = 900;
  const flash = (ms, rest) => {
    trace.push(`${t},1`, `${t + ms},0`);
    t += ms + rest;
  };
  for (let round = 0; round < 3; round++)
    for (const [tens, units] of [
      [3, 4],
      [5, 2],
      [0, 7],
    ]) {
      for (let i = 1; i <= tens; i++) flash(1990, i < tens ? 640 : 1150);
      for (let i = 1; i <= units; i++) flash(640, i < units ? 640 : units < 7 ? 1990 : 3820);
    }
  trace.push(`${t},0`);
  await page.getByRole("button", { name: "Watch another" }).click();
  await page.getByRole("button", { name: "Throw away" }).click();
  await tab("Trace file");
  const [picker] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a file" }).click(),
  ]);
  await picker.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(trace.join("\n")) });
  await page.getByRole("region", { name: "How it talks" }).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(2000);
  await page.getByRole("region", { name: "How it talks" }).evaluate((e) => e.scrollIntoView({ block: "end" }));
  await shot("learned");
  await page.goto(`${base}/find?shape=trapezoid&place=engine-bay&year=1992`);
  await page.getByText("What would tell them apart").waitFor();
  await shot("finder");
  await offline(browser, base, shot);
  await proving(page, base, shot);
});

/** A make of one's own: its plug, its table with the page that it was read from, and the list of makes. */
async function makes(page, drawing, base, shot) {
  await page.goto(`${base}/makes/new`);
  await page.getByLabel("Make", { exact: true }).fill("Harrowgate");
  await page.getByLabel("Model", { exact: true }).fill("Coupe");
  await page.getByLabel("First model year").fill("1986");
  await page.getByLabel("Last model year").fill("1991");
  await page.getByRole("button", { name: "Go on" }).click();
  await page.getByRole("button", { name: /^Join two cavities of a plug/ }).click();
  await page.getByRole("link", { name: "Next: Plug" }).click();
  await page.getByRole("button", { name: "Letters" }).click();
  await page.locator('[data-cavity="K"]').waitFor();
  const pick = (group, option) =>
    page.getByRole("radiogroup", { name: group, exact: true }).getByText(option, { exact: true }).click();
  await pick("Test line", "C");
  await pick("Ground", "G");
  await page.getByRole("img", { name: /wire from C to G/ }).waitFor();
  await pick("What a cavity carries: touch it, or pick it here", "A");
  await pick("A carries", "Battery or ignition");
  await drawFace(page, drawing);
  await shot("make-plug");
  await page.getByRole("button", { name: "Leave it as it was" }).click();
  await page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name: /Codes/ }).click();
  const rows = [
    ["11", "Air meter", "Signal below 0.2 V for a second", "Its plug, then the 5 V feed"],
    ["13", "Coolant sensor", "Open circuit", "Wires at the thermostat"],
    ["22", "Throttle switch", "Never closes", "The bracket and its screws"],
    ["23 / 24", "Knock sensor", "Noisy, or silent under load", "Bolt and plug"],
    ["31", "Speed signal", "Missing above 20 km/h", "The cable at the gearbox"],
    ["44", "Idle valve", "No change of speed", "The hose behind the plenum"],
  ];
  const look = { ...lookOf(seeded(10), true), font: "Liberation Serif", ruled: "rows" };
  const buffer = await drawPage(drawing, rows, ["Code", "Circuit", "Sets when", "Look at"], look, 3);
  await drawing.close();
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Open a picture or file" }).click(),
  ]);
  await chooser.setFiles({ name: "manual-page-7.jpg", mimeType: "image/jpeg", buffer });
  await page.getByText(/codes found/).waitFor({ timeout: 60_000 });
  await page.getByText(/Read from/).evaluate((e) => e.scrollIntoView());
  await shot("make-codes");
  await page.getByRole("button", { name: /^Take \d+ codes/ }).click();
  await page.getByRole("button", { name: "Read another page" }).waitFor();
  await page.goto(`${base}/makes`);
  await page.getByRole("list", { name: "Makes on this device" }).waitFor();
  await shot("makes");
}

/** The face of the plug, drawn over a made-up photo of it. */
async function drawFace(page, drawing) {
  const photo = await drawing.evaluate(async () => {
    const sheet = new OffscreenCanvas(1200, 640);
    const pen = sheet.getContext("2d");
    const back = pen.createLinearGradient(0, 0, 1200, 640);
    back.addColorStop(0, "#8b8273");
    back.addColorStop(1, "#544d44");
    pen.fillStyle = back;
    pen.fillRect(0, 0, 1200, 640);
    pen.fillStyle = "#232427";
    pen.beginPath();
    for (const [x, y] of [[190, 90], [1010, 90], [1060, 330], [930, 560], [270, 560], [140, 330]]) pen.lineTo(x, y); // prettier-ignore
    pen.fill();
    for (let i = 0; i < 10; i++) {
      pen.fillStyle = "#0f1012";
      pen.fillRect(268 + 142 * (i % 5), i < 5 ? 170 : 390, 96, 96);
      pen.fillStyle = "#b9a77c";
      pen.fillRect(300 + 142 * (i % 5), i < 5 ? 206 : 426, 32, 22);
    }
    const file = await sheet.convertToBlob({ type: "image/jpeg", quality: 0.9 });
    return [...new Uint8Array(await file.arrayBuffer())];
  });
  await page.getByRole("button", { name: /^Draw its face/ }).click();
  const sheet = page.getByRole("region", { name: "Draw its face" });
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    sheet.getByRole("button", { name: /photo beneath/ }).click(),
  ]);
  await chooser.setFiles({ name: "plug.jpg", mimeType: "image/jpeg", buffer: Buffer.from(photo) });
  await sheet.locator("img").waitFor();
  const stage = sheet.locator("[style*=aspect-ratio]");
  const touch = async (x, y) => {
    const { width, height } = await stage.boundingBox();
    await stage.click({ position: { x: (x / 1200) * width, y: (y / 640) * height } });
  };
  for (const [x, y] of [[190, 90], [1010, 90], [1060, 330], [930, 560], [270, 560], [140, 330]]) await touch(x, y); // prettier-ignore
  await sheet.getByText("Cavities", { exact: true }).click();
  for (let i = 0; i < 7; i++) await touch(316 + 142 * (i % 5), i < 5 ? 218 : 438);
  await sheet.getByText("What you touch in now").evaluate((e) => e.scrollIntoView());
}

/** A phone without a signal: a job of which no page was open before, from a cold start. */
async function offline(browser, base, shot) {
  const context = await browser.newContext({
    viewport: { width: 390, height: 800 },
    deviceScaleFactor: 2,
    hasTouch: true,
    isMobile: true,
    reducedMotion: "reduce",
  });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    if (!navigator.serviceWorker.controller)
      await new Promise((r) => navigator.serviceWorker.addEventListener("controllerchange", r, { once: true }));
  });
  await context.setOffline(true);
  await page.goto(`${base}/jobs/demo-job-six/checks`);
  await page.getByRole("heading", { level: 1, name: /\w/ }).waitFor();
  await page.waitForFunction(() => !/Opening/.test(document.querySelector("h1").textContent));
  await page.waitForTimeout(1500);
  await shot("offline", page);
  await context.close();
}

/** A new job on a vehicle, up to the steps of its hook-up. */
async function toHookUp(page, base, vehicle) {
  await page.goto(`${base}/vehicles/${vehicle}`);
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page.getByRole("heading", { level: 1, name: /^Key on, engine off/ }).waitFor();
  const lit = page.getByRole("button", { name: /Stays lit/ }).first();
  if (await lit.isVisible()) await lit.click();
  else await page.getByText("Yes", { exact: true }).first().click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await page.getByText("Tick what is above first.").waitFor();
  for (const box of await page.getByRole("group", { name: "Before you begin" }).locator("label").all())
    await box.click();
}

/** Years of one vehicle, and two states of a record that two devices went on with. */
async function records(page, base, shot) {
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  await page.goto(`${base}/vehicles/demo-et9`);
  for (const [shown, day, what] of [
    ["182 940", "2026-03-14", "Belts and coolant renewed"],
    ["184 210", "2026-09-02", "Front pads renewed"],
  ]) {
    await page.getByLabel("Odometer, km").fill(shown);
    await page.getByLabel("On", { exact: true }).fill(day);
    await page.getByLabel("What was done").fill(what);
    await page.getByRole("button", { name: "Note mileage or work" }).click();
    await page.getByText(`: ${what}`).waitFor();
  }
  await page.getByRole("link", { name: "All of it by date" }).click();
  await page.getByRole("img", { name: /^Codes by date/ }).waitFor();
  await page.waitForTimeout(600);
  await shot("history");
  await page.goto(`${base}/settings`);
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save all records as a file" }).click(),
  ]);
  const file = JSON.parse(readFileSync(await saved.path(), "utf8"));
  delete file.sha256;
  file.records["vehicle/demo-sm418t"].plate = "SM 418 TR";
  file.records["job/demo-job-six"].notebook.push({ at: file.savedAt, by: "person", step: "checks", text: "Loom rubbed through at the bulkhead" }); // prettier-ignore
  await page.locator("main input[type=file]").last().setInputFiles({ name: "from the laptop.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(file, null, 1)) }); // prettier-ignore
  const brings = page.getByRole("region", { name: "What the file brings" });
  await brings.waitFor();
  await brings.scrollIntoViewIfNeeded();
  await shot("joined");
}

/** What follows a clear: when it is ready, and the sheet that is handed on. */
async function proving(page, base, shot) {
  const press = (name) => page.getByRole("button", { name }).first().click();
  await toHookUp(page, base, "demo-et70p");
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await page.getByRole("tab", { name: "Counts" }).click();
  await page.getByRole("textbox", { name: "Counts" }).fill("2 4 3 1 2 4 3 1 2 4 3 1");
  await page.getByRole("list", { name: "Codes read" }).getByText("31").waitFor();
  await press("Record this reading");
  await page.getByRole("button", { name: "On to the checks" }).waitFor();
  await page.getByRole("link", { name: "Clear", exact: true }).click();
  await press("Begin with the first step");
  await press("All steps done");
  const ready = page.getByRole("region", { name: "Ready for inspection" });
  await ready.getByText("Three times a week").click();
  await ready.getByLabel("Next inspection").fill(new Date(Date.now() + 9 * 86_400_000).toLocaleDateString("sv"));
  await ready.getByText("It may not be ready by then").waitFor();
  await press("What each monitor needs");
  await ready.evaluate((e) => e.scrollIntoView({ block: "start" }));
  await page.evaluate(() => scrollBy(0, -70));
  await shot("readiness");
  await page.goto(`${base}/jobs/demo-job-old/handover`);
  await page
    .getByRole("img", { name: /flashes in their time$/ })
    .first()
    .waitFor();
  await shot("handover");
}
