import { encode } from "@core/flash/dialect/encode";
import { writeTrace } from "@core/lamp/trace";
import type { Pack } from "@core/pack/pack";
import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { expect, openGarage, sentence, test } from "./fixtures";
import { lookedAt, noted } from "./ways";

const norrvik = JSON.parse(readFileSync("packs/norrvik.json", "utf8")) as Pack;

async function openRead(page: Page): Promise<void> {
  await openGarage(page);
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(sentence(page)).toHaveText("Tap with every flash.");
}

/** Called-out counts of all readings, as they are stored by now. */
const countsStored = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise((resolve) => {
        const open = indexedDB.open("klinko-readings");
        open.onsuccess = () => {
          const all = open.result.transaction("records").objectStore("records").getAll();
          all.onsuccess = () => resolve((all.result as { counts?: string }[]).map((r) => r.counts ?? ""));
        };
      }),
  );

const marks = (page: Page) => page.getByRole("listbox").getByRole("option");

function trace(codes: string[], until: number): string {
  return writeTrace({ edges: encode(norrvik.dialects[0], { stored: codes }, until), until });
}

test("a closed tab loses no mark, and offers to go on", async ({ page, context }) => {
  await openRead(page);
  for (let i = 0; i < 7; i++) {
    await page.keyboard.press("Space");
    await page.waitForTimeout(180);
  }
  await expect(marks(page)).toHaveCount(7);
  const url = page.url();
  // No goodbye: the tab is gone in the middle of the watch.
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(url);
  await expect(again.getByRole("heading", { name: /broken off .* with 7 marks/ })).toBeVisible();
  await again.getByRole("button", { name: "Go on watching" }).click();
  await again.getByRole("button", { name: /Tap with every flash/ }).click();
  await expect(marks(again)).toHaveCount(8);
  await again.goto("/");
  await expect(again.getByText("reading broken off after 8 marks")).toBeVisible();
});

test("marks are corrected at the keyboard and by touch, and every correction can be taken back", async ({ page }) => {
  await openRead(page);
  // A tab that was clicked keeps the focus, and the pad its key.
  await page.getByRole("tab", { name: "Tap" }).click();
  for (let i = 0; i < 4; i++) {
    await page.keyboard.press("Space");
    await page.waitForTimeout(250);
  }
  await page.getByRole("listbox").focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(marks(page).nth(1)).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Delete");
  await expect(marks(page)).toHaveCount(3);
  await page.keyboard.press("+");
  await expect(marks(page)).toHaveCount(4);
  await page.keyboard.press("z");
  await page.keyboard.press("z");
  await expect(marks(page)).toHaveCount(4);
  await marks(page).first().click({ force: true });
  await page.getByRole("button", { name: "Remove", exact: false }).click();
  await expect(marks(page)).toHaveCount(3);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(marks(page)).toHaveCount(4);
  await page.getByRole("button", { name: "Stop watching" }).click();
  await page.getByRole("button", { name: "Start over" }).click();
  await page.getByRole("button", { name: "Throw away" }).click();
  await expect(sentence(page)).toHaveText("Tap with every flash.");
});

test("a trace file is read right or refused by the line at fault, and a bad one changes nothing", async ({ page }) => {
  await openRead(page);
  await page.getByRole("tab", { name: "Trace file" }).click();
  const give = async (text: string) => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      page.getByRole("button", { name: "Pick a file" }).click(),
    ]);
    await chooser.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  };
  await give("t_ms,lit\n0,0\n500,1\nlater,0\n");
  await expect(page.getByRole("alert")).toContainText('lamp.csv, line 4: "later" is not a time.');
  await give("0,0\n500,1\n400,0\n");
  await expect(page.getByRole("alert")).toContainText("line 3: the time 400 comes after 500. Sort the lines by time.");
  await give(Array.from({ length: 700_000 }, (_, i) => `${i * 15},${i % 2}`).join("\n"));
  await expect(page.getByRole("alert")).toContainText("line 20001: there are more than 20000 changes");
  await expect(page.getByRole("alert")).toContainText("The job is as it was.");
  await expect(marks(page)).toHaveCount(0);
  await give(`\uFEFF${trace(["26", "54"], 200_000).replaceAll(",", ";")}`);
  await expect(sentence(page)).toHaveText("26 and 54, seen twice: done.");
  await page.getByRole("button", { name: "Record this reading" }).click();
  // One number, another meaning by year: this estate is of 1989.
  await expect(page.getByRole("heading", { name: "Timing does not follow" })).toBeVisible();
  await expect(page.getByText("Not to be taken for 54 on 1990 to 1993: No camshaft signal.")).toBeVisible();
});

test("called-out counts are typed in any spacing, kept through a reload, and read like a lamp", async ({ page }) => {
  await openRead(page);
  await page.getByRole("tab", { name: "Counts" }).click();
  await page.getByRole("textbox", { name: "Counts" }).fill("13 1 3 13 26 26 0 26 43 43 43 131313 26");
  await expect(page.getByText("Not understood, and left out: 0")).toBeVisible();
  await expect(page.getByText(/Understood: 1 · 3 · 1 · 3/)).toBeVisible();
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("43");
  // Decoding may be done before the disk is: a reload in that moment breaks the write off.
  await expect.poll(() => countsStored(page)).toContainEqual(expect.stringMatching(/131313 26$/));
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Counts" })).toHaveValue(/131313 26$/);
  await page.getByRole("textbox", { name: "Counts" }).fill("13 13 13 26 26 26 43 43 43 13 13 13 26 26 26 43 43 43 13");
  await expect(sentence(page)).toHaveText("26 and 43, seen twice: done.");
  // Changed once the answer was whole, the page follows.
  await page.getByRole("textbox", { name: "Counts" }).fill("13 13 13 21 21 21 13 13 13 21 21 21 13");
  await expect(sentence(page)).toHaveText("21, seen twice: done.");
  await lookedAt(page, "CHECK ENGINE (MIL)");
  await page.getByRole("button", { name: "Record this reading" }).click();
  // Numbers make sense wherever they leave off: whole at most likely.
  await noted(page, /Read engine: 21 \(certain, list most likely whole\)/);
  // It can be looked at again, and taken back: noted, not erased.
  await page.getByRole("link", { name: "Read once more" }).click();
  await page
    .getByRole("region", { name: "Recorded readings" })
    .getByText(/Read engine: 21/)
    .click();
  await page.getByRole("button", { name: /^Take it back/ }).click();
  await page.getByRole("button", { name: "Take it back", exact: true }).click();
  await noted(page, /Taken back: the reading of engine/);
  await expect(page.getByText("locked: after a usable reading")).toBeVisible();
});

test("a code that is in no table is said to be so, with what lies one flash away", async ({ page }) => {
  await openRead(page);
  await page.getByRole("tab", { name: "Trace file" }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a file" }).click(),
  ]);
  await chooser.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(trace(["25"], 120_000)) });
  await expect(sentence(page)).toHaveText("25, seen twice: done.");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await expect(sentence(page)).toHaveText("25 is in no table of this vehicle.");
  await expect(page.getByText("No speed signal, Vehicle speed sensor (VSS) circuit")).toBeVisible();
});

test("a dark or flashing lamp stops the way to the codes with its reason", async ({ page }) => {
  await openGarage(page);
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("button", { name: /Stays dark/ }).click();
  await expect(page.getByText("locked: the lamp is dark").first()).toBeVisible();
  // What else the unit drives is dead too: its power or ground; measured good, the unit; a unit on the same feed decides.
  const heading = (name: string) => expect(page.getByRole("heading", { name })).toBeVisible();
  await page
    .getByRole("radiogroup", { name: /Fuel pump primes/ })
    .getByText("No", { exact: true })
    .click();
  await heading("The lamp is dark, and so is what was looked at.");
  await page
    .getByRole("radiogroup", { name: /^SHIFT lamp/ })
    .getByText("No", { exact: true })
    .click();
  await heading("The lamp and all that the unit drives are dead.");
  await page.getByText("12 V or more", { exact: true }).click();
  await page.getByText("Below 0.1 V", { exact: true }).click();
  await heading("The unit itself is suspect.");
  await page
    .getByRole("radiogroup", { name: /There: Fuel pump/ })
    .getByText("Yes: hums for two seconds")
    .click();
  await expect(page.getByText("Works there and not here:")).toBeVisible();
  await page
    .getByRole("radiogroup", { name: /^SHIFT lamp/ })
    .getByText("Yes", { exact: true })
    .click();
  await expect(page.getByText(/SHIFT lamp: the ECM drives that, so it is alive/)).toBeVisible();
  await page.goto(page.url().replace("lamp-check", "read"));
  await expect(page.getByRole("heading", { name: "Reading is closed: the lamp is dark." })).toBeVisible();
  await page.getByRole("link", { name: "To the lamp check" }).click();
  await page.getByRole("button", { name: /Flashes/ }).click();
  await expect(page.getByText(/test line is already joined to ground/)).toBeVisible();
});

test("records of a newer Klinko are read only, offered as a file, and never written over", async ({ page }) => {
  await openGarage(page);
  const inStore = (write: boolean) =>
    page.evaluate(
      (write) =>
        new Promise((resolve, reject) => {
          const open = indexedDB.open("klinko-jobs");
          open.onerror = () => reject(new Error("no store"));
          open.onsuccess = () => {
            const turn = open.result.transaction("records", "readwrite");
            const store = turn.objectStore("records");
            const get = store.get("demo-job-estate");
            get.onsuccess = () => {
              if (write) store.put({ ...(get.result as object), version: 99, added: "later" }, "demo-job-estate");
            };
            // Only what is written through is there on the next page.
            turn.oncomplete = () => {
              open.result.close();
              resolve(get.result);
            };
          };
        }),
      write,
    );
  await inStore(true);
  await page.goto("/jobs/demo-job-estate/story");
  await expect(page.getByRole("alert")).toContainText("Written by a newer Klinko");
  await page.goto("/");
  await expect(page.getByText(/Written by a newer Klinko \(version 99/)).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save it as a file" }).click(),
  ]);
  expect(JSON.parse(readFileSync((await file.path()) ?? "", "utf8"))).toMatchObject({ version: 99, added: "later" });
  await page.goto("/jobs/demo-job-estate/story");
  await expect(page.getByRole("alert")).toContainText("Written by a newer Klinko");
  expect(await inStore(false)).toMatchObject({ version: 99 });
});

test("a flash of the wrong length is made long or short at its mark, and the codes follow", async ({ page }) => {
  const calverra = JSON.parse(readFileSync("packs/calverra.json", "utf8")) as Pack;
  await openGarage(page);
  await page.getByRole("button", { name: "New job for SM 233 K" }).click();
  await page.getByText("Warm", { exact: true }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await page.getByRole("tab", { name: "Trace file" }).click();
  // One showing of 17, whose long flash was held too briefly.
  const [dialect] = calverra.dialects;
  const edges = encode(dialect, { stored: ["17"] }, 60_000);
  const long = edges.findIndex(
    ([t], i) => edges[i][1] === 1 && Math.abs(edges[i + 1]?.[0] - t - dialect.marks.long!) < 200,
  );
  const cut = edges.map(([t, lit], i): [number, 0 | 1] => [
    i === long + 1 ? edges[long][0] + dialect.marks.short : t,
    lit,
  ]);
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a file" }).click(),
  ]);
  const text = writeTrace({ edges: cut, until: 60_000 });
  await chooser.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("17");
  const first = page.getByRole("option", { name: new RegExp(`at ${(edges[long][0] / 1000).toFixed(1)} s`) });
  const width = async () => (await first.boundingBox())!.width;
  const before = await width();
  await first.click({ force: true });
  await page.getByRole("button", { name: "Make it long" }).click();
  await expect(page.getByRole("button", { name: "Make it short" })).toBeVisible();
  expect(await width()).toBeGreaterThan(before * 1.8);
  await page.getByRole("button", { name: "Longer" }).click();
  await page.getByRole("button", { name: "Shorter" }).click();
  for (let i = 0; i < 3; i++) await page.keyboard.press("z");
  await expect(page.getByRole("button", { name: "Make it long" })).toBeVisible();
});

test.describe("on a phone, by touch, in the dark", () => {
  test.use({ viewport: { width: 360, height: 740 }, hasTouch: true, isMobile: true, colorScheme: "dark" });

  test("a lamp is tapped, the strip zoomed with two fingers, a mark dragged and one added", async ({ page }) => {
    await openGarage(page);
    await page.getByRole("link", { name: "Go on with SM 418 T" }).tap();
    await page.getByRole("button", { name: /Stays lit/ }).tap();
    await page.getByRole("link", { name: "Read", exact: true }).tap();
    const pad = page.getByRole("button", { name: /Tap with every flash/ });
    for (let i = 0; i < 5; i++) {
      await pad.tap();
      await page.waitForTimeout(300);
    }
    await expect(marks(page)).toHaveCount(5);
    await page.getByRole("button", { name: "Stop watching" }).tap();

    const devtools = await page.context().newCDPSession(page);
    const strip = page.getByRole("listbox");
    await strip.scrollIntoViewIfNeeded();
    const box = (await strip.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + 50];
    const fingers = (type: "touchStart" | "touchMove" | "touchEnd", ...at: number[]) =>
      devtools.send("Input.dispatchTouchEvent", { type, touchPoints: at.map((dx, id) => ({ x: x + dx, y, id })) });
    const wide = async () => strip.evaluate((e) => e.scrollWidth);
    const before = await wide();
    await fingers("touchStart", -20, 20);
    for (let apart = 20; apart <= 90; apart += 10) await fingers("touchMove", -apart, apart);
    await fingers("touchEnd");
    await expect.poll(wide).toBeGreaterThan(2 * before);
    // What lay between the fingers still does, though it was drawn later.
    const middle = await strip.evaluate((e) => (e.scrollLeft + e.clientWidth / 2) / e.scrollWidth);
    expect(Math.abs(middle - 0.5)).toBeLessThan(0.05);
    // Nothing was picked or moved by that.
    await expect(page.getByRole("toolbar")).toBeHidden();

    const at = async (i: number) =>
      Number(/at ([\d.]+) s/.exec((await marks(page).nth(i).getAttribute("aria-label"))!)![1]);
    await marks(page).nth(1).tap({ force: true });
    await expect(page.getByRole("toolbar", { name: "Correct this mark" })).toBeVisible();
    const own = (await marks(page).nth(1).boundingBox())!;
    const was = await at(1);
    const finger = (type: "touchStart" | "touchMove" | "touchEnd", dx?: number) =>
      devtools.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: dx === undefined ? [] : [{ x: own.x + own.width / 2 + dx, y: own.y + own.height / 2 }],
      });
    await finger("touchStart", 0);
    for (let dx = 4; dx <= 24; dx += 4) await finger("touchMove", dx);
    await finger("touchEnd");
    // Some 180 ms, of which the label tells tenths of a second: one more, or two.
    await expect.poll(() => at(1)).toBeGreaterThan(was + 0.05);
    await page.getByRole("button", { name: "Add after" }).tap();
    await expect(marks(page)).toHaveCount(6);
    for (let i = 0; i < 2; i++) await page.getByRole("button", { name: "Undo" }).tap();
    await expect(marks(page)).toHaveCount(5);
    await expect.poll(() => at(1)).toBe(was);
  });
});
