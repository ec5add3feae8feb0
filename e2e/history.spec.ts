import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, expectAccessible, openGarage, test } from "./fixtures";

test("what came and what was done to a vehicle stands by date, can be narrowed, and is saved as CSV", async ({
  page,
}) => {
  await openGarage(page);
  await page.goto("/vehicles/demo-et9");
  await page.getByRole("link", { name: "All of it by date" }).click();
  const entries = page.getByRole("region", { name: "Entries, the newest first" }).getByRole("listitem");
  await expect(entries.first()).toContainText(/5 is back after the drive.*Not fixed\.$/);
  await expect(page.getByRole("img", { name: /^Codes by date\. 5: .*21: .* 1 clears\.$/ })).toBeVisible();
  const all = await entries.count();
  await expectAccessible(page, "history");
  await page.getByText("Clears", { exact: true }).first().click();
  await expect(entries).toHaveCount(1);
  await expect(entries).toContainText("Pull the BACK UP fuse");
  await page.getByRole("checkbox", { name: "Readings" }).press("Space");
  await expect(entries).toHaveCount(3);
  await page.getByRole("checkbox", { name: "Readings" }).press("Space");
  await page.getByRole("checkbox", { name: "Clears" }).press("Space");
  await expect(entries).toHaveCount(all);

  await page.setViewportSize({ width: 360, height: 740 });
  await page.emulateMedia({ colorScheme: "dark" });
  await page.reload();
  await expect(entries).toHaveCount(all);
  await expectAccessible(page, "history, dark at 360 px");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save it as CSV" }).click(),
  ]);
  const rows = readFileSync(await file.path(), "utf8")
    .trim()
    .split(/\r?\n/);
  expect(rows).toHaveLength(all + 1);
  expect(rows[0]).toBe("time,vehicle,kind,system,codes,km,text,job");
  expect(rows.some((r) => /^\d{4}-.*Z,ET 9,codes,engine,5 21,,/.test(r))).toBe(true);

  // One of which nothing is recorded says what will stand here.
  await page.goto("/vehicles/demo-sm88m/history");
  await expect(page.getByRole("heading", { name: "Nothing is recorded of it yet." })).toBeVisible();
  await page.getByRole("main").getByRole("link", { name: "To the vehicle" }).click();
  await expect(page).toHaveURL(/vehicles\/demo-sm88m$/);
});

test("a garage of which no file was kept says so, and no more once it is saved", async ({ page }) => {
  await page.goto(`${String(test.info().config.metadata.plain)}/vehicles/new`);
  await page.getByLabel("Plate or name").fill("OLD 1");
  await page.getByText("Calverra", { exact: true }).click();
  await page.getByText("1.6 variable timing").click();
  await page.getByLabel("Model year").fill("1993");
  await page.getByRole("button", { name: "Add and start a job" }).click();
  await expect(page).toHaveURL(/jobs/);
  await page.goto(`${String(test.info().config.metadata.plain)}/`);
  const reminder = page.getByRole("region", { name: "Save your records" });
  await expect(page.getByRole("list", { name: "Vehicles" }).getByRole("listitem")).toHaveCount(1);
  await expect(reminder).toBeHidden();
  // Put in six weeks ago, as far as the records say.
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const open = indexedDB.open("klinko-vehicles");
        open.onsuccess = () => {
          const turn = open.result.transaction("records", "readwrite");
          turn.oncomplete = () => (open.result.close(), resolve());
          turn.objectStore("records").openCursor().onsuccess = (e) => {
            const cursor = (e.target as IDBRequest<IDBCursorWithValue | null>).result;
            if (!cursor) return;
            const createdAt = new Date(Date.now() - 42 * 86_400_000).toISOString();
            cursor.update({ ...(cursor.value as object), createdAt });
            cursor.continue();
          };
        };
      }),
  );
  await page.reload();
  await expect(reminder).toContainText("These records are in this browser alone.");
  await expectAccessible(page, "a reminder to save");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    reminder.getByRole("button", { name: "Save all records as a file" }).press("Enter"),
  ]);
  expect(JSON.parse(readFileSync(await file.path(), "utf8"))).toMatchObject({ records: expect.anything() });
  await expect(reminder).toBeHidden();
});

test("mileage, work, a photo and a corrected line are kept, go along in a file, and the codes that come again stand together", async ({
  page,
  browser,
}) => {
  const photo = { name: "plug.jpg", mimeType: "image/jpeg", buffer: await page.screenshot({ type: "jpeg" }) };
  const pick = async (on: Page, button: string, file: typeof photo) => {
    const [chooser] = await Promise.all([
      on.waitForEvent("filechooser"),
      on.getByRole("button", { name: button }).click(),
    ]);
    await chooser.setFiles(file);
  };
  await openGarage(page);
  await page.goto("/vehicles/demo-et9");
  const work = page.getByRole("button", { name: "Note mileage or work" });
  await work.click();
  await expect(page.getByText("Write what it shows, or what was done.")).toBeVisible();
  await page.getByLabel("Odometer, km").fill("184 210 km");
  await work.click();
  await expect(page.getByText("Only the figures, as the odometer shows them.")).toBeVisible();
  await page.getByLabel("Odometer, km").fill("184,210");
  await page.getByLabel("What was done").fill("Front pads renewed");
  await page.getByLabel("On", { exact: true }).fill("2026-10-05");
  await work.click();
  await expect(page.getByText("184,210 km on 5 Oct 2026.")).toBeVisible();
  await pick(page, "Add a photo", { ...photo, name: "a.jpg", buffer: Buffer.from("no picture") });
  await expect(page.getByText("This file can't be read as a photo.")).toBeVisible();
  await pick(page, "Add a photo", photo);
  await page.getByRole("button", { name: "Photo of ET 9, larger" }).click();
  await expect(page.getByRole("dialog", { name: "Photo of ET 9" }).getByRole("img")).toBeVisible();
  await page.keyboard.press("Escape");
  await expectAccessible(page, "vehicle with photo and work");

  await page.getByRole("link", { name: "All of it by date" }).click();
  await page.getByRole("checkbox", { name: "Work" }).press("Space");
  const entries = page.getByRole("region", { name: "Entries, the newest first" }).getByRole("listitem");
  await expect(entries).toHaveText(/Front pads renewed, at 184,210 km$/);

  // A line with a photo, put right: what it said before stays.
  await page.goto("/jobs/demo-job-six/meaning");
  await pick(page, "Add a photo", photo);
  await expect(page.getByRole("button", { name: "Photo 1 for the line, larger" })).toBeVisible();
  await page.getByLabel("Write a line").fill("Plug was blue");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("button", { name: "Correct the line: Plug was blue" }).click();
  await page.getByLabel("Correct the line").fill("Plug was green");
  await page.getByRole("button", { name: "Save it" }).click();
  const line = page.getByRole("list", { name: "Lines of the notebook" }).getByRole("listitem").last();
  await expect(line).toContainText("Plug was green");
  await expect(line.locator("s")).toHaveText("Plug was blue");
  const menu = page.getByRole("button", { name: "Sheet, files, end or delete this job" });
  await menu.click();
  const [text] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the notebook as text" }).click(),
  ]);
  expect(readFileSync(await text.path(), "utf8")).toMatch(
    /Z {2}\* Plug was green \[until .*Z: Plug was blue; with a photo\]/,
  );
  await menu.click();
  const [job] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save this job as a file" }).click(),
  ]);

  // The job alone goes to another device, its photo with it.
  const other = await (await browser.newContext()).newPage();
  await other.goto(new URL("/settings", page.url()).href);
  const [chooser] = await Promise.all([
    other.waitForEvent("filechooser"),
    other.getByRole("button", { name: "Bring records in" }).click(),
  ]);
  await chooser.setFiles(await job.path());
  await other.getByRole("button", { name: "Bring it in" }).click();
  await expect(other.getByText("With one photo or film.")).toBeVisible();
  await other.goto(new URL("/jobs/demo-job-six/meaning", page.url()).href);
  await expect(other.getByRole("button", { name: /^Photo 1 of the line: Plug was green/ })).toBeVisible();
  await other.context().close();

  await page.goto("/across");
  await expect(page.getByRole("region", { name: "Open jobs" }).getByRole("listitem")).not.toHaveCount(0);
  await expectAccessible(page, "across the garage");
  // Miles and dates by the settings.
  await page.goto("/settings");
  await page.getByText("mph", { exact: true }).click();
  await page.getByText("2026-11-03", { exact: true }).click();
  for (const chosen of ["mph", "2026-11-03"]) await expect(page.getByRole("radio", { name: chosen })).toBeChecked();
  await page.goto("/vehicles/demo-et9");
  await expect(page.getByText("114,463 miles on 2026-10-05.")).toBeVisible();
});
