import { execFileSync } from "node:child_process";
import { mkdirSync } from "node:fs";
import { ensureCli, ensurePackages, root, withDemo } from "./ensure.mjs";

// The pictures in docs/screenshots, from the demo data: a reading is brought in as a trace of the simulated lamp.
ensurePackages();
ensureCli();
const out = `${root}/docs/screenshots`;
mkdirSync(out, { recursive: true });
await withDemo(4181, async (browser, base) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
  const page = await context.newPage();
  const shot = async (name) => {
    await page.waitForTimeout(400);
    await page.mouse.move(0, 0);
    await page.screenshot({ path: `${out}/${name}.png` });
    console.log(name);
  };
  const heading = (text) => page.getByRole("heading", { level: 1, name: text }).waitFor();
  await page.goto(base);
  await page.getByRole("list", { name: "Vehicles" }).waitFor();
  await shot("garage");
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("link", { name: /Story/ }).click();
  await heading("What does the owner say?");
  await shot("job");
  await page.getByRole("link", { name: "Lamp check" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  for (const what of ["Engine off", "Parking brake on", "All consumers off: fan, lights, radio"])
    await page.getByText(what, { exact: true }).click();
  for (let i = 0; i < 2; i++) {
    await page.getByRole("button", { name: /^Done/ }).click();
    await page.waitForTimeout(300);
  }
  await page.getByText("Put the wire in").waitFor();
  await shot("hook-up");
  await page.getByRole("button", { name: /Wire is in/ }).click();
  await page.getByRole("button", { name: /It blinks/ }).click();
  await heading("Tap with every flash.");
  // Marks of a tapping hand, straight into the store: a picture should not take three minutes.
  const taps = JSON.parse(
    execFileSync(
      process.execPath,
      ["build/cli/klinko.js", "taps", "--pack", "norrvik", "--codes", "26,43", "--until", "118000", "--seed", "5"],
      { cwd: root, encoding: "utf8" },
    ),
  );
  await page.keyboard.press("Space");
  await page.waitForTimeout(600);
  await page.evaluate(
    (taps) =>
      new Promise((resolve) => {
        const open = indexedDB.open("klinko");
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
              `reading/${reading.id}`,
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
  await shot("read");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await page.getByRole("button", { name: "On to the clear" }).waitFor();
  await page.evaluate(() => scrollTo(0, 0));
  await shot("meaning");
  await page.getByRole("button", { name: "On to the clear" }).click();
  await heading("Pull the memory fuse: it costs least.");
  await shot("clear");
  await page.goto(`${base}/jobs/demo-job-old/prove`);
  await page.getByRole("table").waitFor();
  await shot("prove");
  await page.setViewportSize({ width: 1100, height: 800 });
  await page.goto(`${base}/simulated/demo-sm418t`);
  await page.getByRole("button", { name: "C", exact: true }).click();
  await page.getByRole("button", { name: "G", exact: true }).click();
  await page.getByText("On, engine off").click();
  await page.waitForTimeout(200);
  await shot("simulated-vehicle");
});
