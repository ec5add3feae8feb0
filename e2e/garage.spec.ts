import { readFileSync } from "node:fs";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";

test("a vehicle is changed in its fields, put out of the way, removed and put back", async ({ page }) => {
  await openGarage(page);
  const rows = page.getByRole("list", { name: "Vehicles" }).getByRole("listitem");
  await page.getByRole("link", { name: "Norrvik Pickup 2.3 1991" }).click();
  await page.getByRole("link", { name: "Change what it is" }).click();
  // What its make does not cover is said at the field, and what was typed stays.
  await page.getByLabel("Model year").fill("2011");
  await page.getByLabel("Plate or name").fill("et 31 b");
  await page.getByRole("button", { name: "Keep the change" }).click();
  await expect(page.getByText(/covers/).first()).toBeVisible();
  await expect(page.getByLabel("Plate or name")).toHaveValue("et 31 b");
  await page.getByLabel("Model year").fill("1992");
  await expectAccessible(page, "change a vehicle");
  await page.keyboard.press("Enter");
  await expect(sentence(page)).toHaveText("Norrvik Pickup 2.3, 1992");
  await expect(page.getByText("closed as fixed")).toBeHidden();
  await expect(page.getByText("ET 31 B", { exact: true })).toBeVisible();
  await page.getByLabel("Next inspection").fill("2026-01-05");
  await page.getByRole("radiogroup", { name: "After a power cut, the immobiliser" }).getByText("There is none").click();
  await expect(page.getByRole("radio", { name: "There is none" })).toBeChecked();

  await page.getByRole("button", { name: "Put it in the archive" }).click();
  await expect(page.getByText(/In the archive since/)).toBeVisible();
  await page.getByRole("link", { name: "Garage", exact: true }).click();
  await expect(rows).toHaveCount(12);
  await page.getByLabel("Show").selectOption({ label: "In the archive (1)" });
  await expect(rows).toHaveCount(1);
  // What is asked for stands in the address: it is there after a reload.
  await page.reload();
  await expect(rows).toHaveCount(1);
  await page.getByRole("link", { name: "Norrvik Pickup 2.3 1992" }).click();
  await page.getByRole("button", { name: "Take it out of the archive" }).click();
  await page.getByRole("link", { name: "Garage", exact: true }).click();
  await page.getByLabel("Order").selectOption({ label: "Next inspection" });
  await expect(rows.first()).toContainText("ET 31 B");
  await expect(rows.first()).toContainText("inspection 5 Jan 2026");
  await page.getByLabel("Order").selectOption({ label: "Plate" });
  await expect(rows.first()).toContainText("ET 9");
  await page.getByLabel("Show").selectOption({ label: "Inspection due (1)" });
  await expect(rows).toHaveCount(1);

  await page.getByRole("link", { name: "Norrvik Pickup 2.3 1992" }).click();
  await page.getByRole("button", { name: "Remove this vehicle" }).click();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Remove this vehicle" }).click();
  await page.getByRole("button", { name: "Remove it" }).click();
  const removed = page.getByRole("region", { name: "Removed" });
  await expect(removed).toContainText("ET 31 B was removed with its job.");
  await expect(rows).toHaveCount(12);
  await page.setViewportSize({ width: 360, height: 740 });
  await page.reload();
  await expectAccessible(page, "garage with a vehicle removed, 360 px");
  await removed.getByRole("button", { name: "Put ET 31 B back" }).click();
  await expect(rows).toHaveCount(13);
  await expect(removed).toBeHidden();
  await page.getByRole("link", { name: "Norrvik Pickup 2.3 1992" }).click();
  await expect(page.getByRole("link", { name: "All of it by date" })).toBeVisible();
});

test("keys lead to the search, the notebook and the sheet of keys; a field that is typed in keeps them", async ({
  page,
}) => {
  await openGarage(page);
  await page.keyboard.press("?");
  const sheet = page.getByRole("dialog", { name: "Keys" });
  await expect(sheet).toBeVisible();
  await expectAccessible(page, "keys");
  await page.keyboard.press("/");
  await expect(sheet).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(sheet).toBeHidden();
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await expect(page.getByText("locked: after a usable reading")).toBeVisible();
  await page.keyboard.press("n");
  await page.keyboard.type("n/?");
  await expect(page.getByLabel("Write a line")).toHaveValue("n/?");
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("/");
  await expect(page.getByRole("searchbox", { name: /^Search/ })).toBeFocused();
  // A finger that slips beside the key that is tapped leads nowhere.
  await page.goto("/watch");
  await page.getByRole("tab", { name: "Tap" }).click();
  await expect(page.locator("[data-pad]")).toBeVisible();
  await page.keyboard.press("Space");
  await page.keyboard.press("/");
  await page.keyboard.press("n");
  await page.keyboard.press("Space");
  await expect(page.getByRole("listbox").getByRole("option")).toHaveCount(2);
  await expect(page).toHaveURL(/\/watch/);
});

test("the demo fleet goes as it came; wiping asks once, and leaves nothing of ours in the browser", async ({
  page,
}) => {
  const plain = String(test.info().config.metadata.plain);
  const bringIn = async () => {
    await page.goto(`${plain}/`);
    await page.getByRole("button", { name: "Look around with a demo fleet" }).click();
    await expect(page.getByRole("list", { name: "Vehicles" }).getByRole("listitem")).toHaveCount(13);
    // The button is gone: the keys go on from the heading.
    await expect(sentence(page)).toBeFocused();
  };
  await bringIn();
  await page.goto(`${plain}/settings`);
  await page.getByRole("button", { name: "Take the demo fleet out" }).click();
  await page.getByRole("button", { name: "Take it out", exact: true }).click();
  await expect(page.getByText("The demo fleet is out of your garage.")).toBeVisible();
  await page.getByRole("link", { name: "Garage", exact: true }).click();
  await expect(sentence(page)).toHaveText("The garage is empty.");

  await bringIn();
  await page.goto(`${plain}/settings`);
  await page.getByText("Dark, for the shed").click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  await page.getByRole("button", { name: "Wipe everything" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Wipe everything" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Wipe it all" }).click();
  await expect(sentence(page)).toHaveText("The garage is empty.");
  await expect(page.locator("html")).not.toHaveAttribute("data-theme", "dark");
  const left = await page.evaluate(async () => {
    const held: string[] = [];
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((done) => {
        const open = indexedDB.open(name!);
        open.onsuccess = () => done(open.result);
      });
      for (const store of db.objectStoreNames) {
        const keys = await new Promise<IDBValidKey[]>((done) => {
          const all = db.transaction(store).objectStore(store).getAllKeys();
          all.onsuccess = () => done(all.result);
        });
        held.push(...keys.map((key) => `${name}/${JSON.stringify(key)}`));
      }
      db.close();
    }
    return held;
  });
  // That there is nothing older to move is noted anew.
  expect(left.filter((key) => !/local-forage-detect|"moved"/.test(key))).toEqual([]);
});

test("the longest plate, title and notebook that a record can hold are laid out without scrolling sideways", async ({
  page,
}) => {
  const { records } = JSON.parse(readFileSync("core/record/samples/v1.json", "utf8")) as {
    records: Record<string, { id: string; kind: string; vehicle: string; notebook: object[] }>;
  };
  const job = Object.values(records).find((r) => r.kind === "job")!;
  const own = Object.entries(records).filter(([, r]) => r.id === job.vehicle || r.vehicle === job.vehicle);
  const line = (text: string) => ({ at: "2026-11-01T10:00:00.000Z", by: "person", step: "read", text });
  const long = own.map(([key, r]) => [
    key,
    r.kind === "vehicle"
      ? { ...r, plate: "W".repeat(120), changes: [{ text: "x".repeat(4000), codes: [] }] }
      : r.id === job.id
        ? {
            ...r,
            title: "T".repeat(4000),
            notebook: [...Array.from({ length: 5000 }, (_, i) => line(`Line ${i}`)), line("N".repeat(4000))],
          }
        : r,
  ]);
  const plain = String(test.info().config.metadata.plain);
  await page.goto(`${plain}/settings`);
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Bring records in" }).click(),
  ]);
  const file = { format: "klinko-backup", version: 1, savedAt: "2026-11-30T10:00:00.000Z", records: Object.fromEntries(long) as object }; // prettier-ignore
  await chooser.setFiles({
    name: "long.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByText(/\d+ records brought in/)).toBeVisible();
  for (const path of [
    "/",
    "/?show=archived",
    `/vehicles/${job.vehicle}`,
    `/vehicles/${job.vehicle}/history`,
    `/jobs/${job.id}/story`,
    `/jobs/${job.id}/handover`,
    `/jobs/${job.id}/carry`,
    "/across",
  ]) {
    await page.goto(plain + path);
    await expect(sentence(page)).not.toHaveText(/^$|Opening/);
    for (const width of [360, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect([path, width, over]).toEqual([path, width, Math.min(0, over)]);
    }
  }
  // Of so many lines the latest stand there; the others come when they are asked for.
  await page.goto(`${plain}/jobs/${job.id}/story`);
  const lines = page.getByRole("list", { name: "Lines of the notebook" });
  await expect(lines.getByText("N".repeat(4000))).toBeInViewport();
  await expect(lines.getByText(/Line 4900$/)).toHaveCount(0);
  await lines.getByRole("button", { name: "Show 300 earlier lines of 4,901" }).click();
  await expect(lines.getByText(/Line 4601$/)).toHaveCount(1);
});
