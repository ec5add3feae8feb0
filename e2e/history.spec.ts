import { readFileSync } from "node:fs";
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
  expect(rows[0]).toBe("time,vehicle,kind,system,codes,text,job");
  expect(rows.some((r) => /^\d{4}-.*Z,ET 9,codes,engine,5 21,/.test(r))).toBe(true);

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
