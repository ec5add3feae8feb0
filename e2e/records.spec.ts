import { encode } from "@core/flash/dialect/encode";
import { writeTrace } from "@core/lamp/trace";
import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { dialectOf } from "./films";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";
import { traceOf } from "./traces";
import { noted } from "./ways";

/** Gives a file to the button that asks for one. */
async function give(page: Page, button: string, name: string, content: string): Promise<void> {
  // The page is there before it listens.
  await expect(async () => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser", { timeout: 1500 }),
      page.getByRole("button", { name: button }).click(),
    ]);
    await chooser.setFiles({ name, mimeType: "text/plain", buffer: Buffer.from(content) });
  }).toPass();
}

test("records go to another device as a file; what both went on with is joined as somebody decides", async ({
  page,
  browser,
}) => {
  await openGarage(page);
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByLabel("Write a line").fill("Owner waits until noon");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Owner waits until noon")).toBeVisible();
  await page.goto("/settings");
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save all records as a file" }).click(),
  ]);
  expect(saved.suggestedFilename()).toMatch(/^klinko-\d{4}-\d\d-\d\d\.json$/);
  const file = readFileSync(await saved.path(), "utf8");

  const other = await (await browser.newContext()).newPage();
  await other.goto(new URL("/settings", page.url()).href);
  const told = other.getByRole("status").filter({ hasText: /./ });
  await give(other, "Bring records in", "half.json", file.slice(0, 2000));
  await expect(other.getByRole("alert")).toContainText("half.json: This is no file of records");
  await give(other, "Bring records in", "records.json", file);
  const brings = other.getByRole("region", { name: "What the file brings" });
  await expect(brings.getByRole("checkbox", { name: /new here/ })).toHaveCount(13);
  // All of them, none, or some.
  const all = brings.getByRole("checkbox", { name: "All 13 vehicles" });
  await brings.getByText("All 13 vehicles").click();
  await expect(brings.getByRole("checkbox", { checked: true })).toHaveCount(0);
  await expect(other.getByRole("button", { name: "Bring it in" })).toBeDisabled();
  await brings.getByText("ET 9", { exact: true }).click();
  await expect(all).toBeChecked({ indeterminate: true });
  await brings.getByText("All 13 vehicles").click();
  await expect(brings.getByRole("checkbox", { checked: true })).toHaveCount(14);
  await expect(brings).toContainText("ET 9 new here, with 1 new job and 2 new readings");
  await expectAccessible(other, "what a file brings");
  // Nothing is done before it is said.
  await other.getByRole("button", { name: "Leave all as it is" }).click();
  await expect(told).toContainText("Nothing was brought in.");
  await give(other, "Bring records in", "records.json", file);
  await other.getByRole("button", { name: "Bring it in" }).click();
  await expect(told).toContainText(/\d+ records brought in/);
  await expectAccessible(other, "records brought in");
  await give(other, "Bring records in", "records.json", file);
  await expect(told).toContainText("Nothing new");
  await expect(told).toContainText(/\d+ records were here already/);
  // What is here in another state stays as it is.
  await other.goto(new URL("/", page.url()).href);
  await expect(other.getByRole("list", { name: "Vehicles" }).getByRole("listitem")).toHaveCount(13);
  await other.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await expect(other.getByText("Owner waits until noon")).toBeVisible();
  await other.getByLabel("Write a line").fill("He called");
  await other.keyboard.press("Enter");
  await expect(other.getByText("He called")).toBeVisible();
  await other.goto(new URL("/settings", page.url()).href);
  await give(other, "Bring records in", "records.json", file);
  await expect(told).toContainText("1 record was here already, in a state that stays.");

  // Both go on with the same job and the same vehicle.
  await page.goto("/vehicles/demo-sm418t/edit");
  await page.getByLabel("Plate or name").fill("SM 418 X");
  await page.getByRole("button", { name: "Keep the change" }).click();
  await page.getByRole("link", { name: "Go on with the open job" }).click();
  await page.getByLabel("Write a line").fill("Bulb swapped");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Bulb swapped")).toBeVisible();
  await page.goto("/settings");
  const [later] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save all records as a file" }).click(),
  ]);
  await give(other, "Bring records in", "later.json", readFileSync(await later.path(), "utf8"));
  await expect(brings.getByRole("checkbox")).toHaveCount(1);
  await expect(brings).toContainText("Joined, it gains 1 line of the notebook.");
  const plate = brings.getByRole("radiogroup", { name: "Plate" });
  await expect(plate.getByRole("radio", { name: "Here: SM 418 T" })).toBeChecked();
  await plate.getByText("File: SM 418 X").click();
  await expectAccessible(other, "two states joined");
  await other.getByRole("button", { name: "Bring it in" }).click();
  await expect(told).toContainText("2 records were joined with what is here.");
  await other.getByRole("link", { name: "Garage", exact: true }).click();
  await other.getByRole("link", { name: "Go on with SM 418 X" }).click();
  for (const line of ["Owner waits until noon", "He called", "Bulb swapped"])
    await expect(other.getByRole("list", { name: "Lines of the notebook" })).toContainText(line);
  await other.context().close();
});

test("in a garage of many one is found by words of its name or plate, and what was written by any of its words", async ({
  page,
}) => {
  await openGarage(page);
  const rows = page.getByRole("list", { name: "Vehicles" }).getByRole("listitem");
  const field = page.getByRole("searchbox", { name: /^Search/ });
  await field.fill("estate norrvik");
  await expect(rows).toHaveCount(2);
  await field.fill("233");
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText("SM 233 K");
  await field.fill("nothing like it");
  await expect(rows).toHaveCount(0);
  await expect(page.getByText(`No vehicle is called "nothing like it"`)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(rows).toHaveCount(13);

  // A word of a story; a code as a whole number; what was written since.
  const found = page.getByRole("list", { name: "Entries found" }).getByRole("listitem");
  await field.fill("CAUSEWAY");
  await expect(found).toHaveCount(1);
  await expect(found.locator("mark")).toHaveText("causeway");
  await field.fill("99");
  await expect(page.getByText("Nothing that was written down holds these words.")).toBeVisible();
  await field.fill("27 et");
  await expect(found.first()).toContainText("21 and 27 stayed away");
  await expectAccessible(page, "search");
  await field.fill("causeway");
  await expect(found).toHaveCount(1);
  await found.getByRole("link").click();
  await page.getByLabel("Write a line").fill("Grommet of the loom renewed");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Grommet of the loom renewed")).toBeVisible();
  await page.goBack();
  await field.fill("grommet 418");
  await expect(found).toHaveCount(1);
  await expect(found).toContainText("Grommet of the loom renewed");
});

test("a job whose make is not known here is kept: it can be read, saved as a file and removed", async ({
  page,
  browser,
}) => {
  await openGarage(page);
  await page.goto("/settings");
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save all records as a file" }).click(),
  ]);
  const { records, ...file } = JSON.parse(readFileSync(await saved.path(), "utf8")) as {
    records: Record<string, { id: string; vehicle?: string; pack?: string }>;
  };
  const id = records["job/demo-job-six"].vehicle!;
  const mine = Object.entries(records).filter(([, r]) => r.id === id || r.vehicle === id);
  const elsewhere = mine.map(([key, r]) => [key, r.id === id ? { ...r, pack: "elsewhere" } : r]);

  const other = await (await browser.newContext()).newPage();
  await other.goto(new URL("/settings", page.url()).href);
  await give(
    other,
    "Bring records in",
    "one.json",
    JSON.stringify({ ...file, records: Object.fromEntries(elsewhere) as object }),
  );
  await other.getByRole("button", { name: "Bring it in" }).click();
  await expect(other.getByText(/\d+ records brought in/)).toBeVisible();
  await other.goto(new URL("/", page.url()).href);
  await other.getByRole("link", { name: "Go on with SM 077 F" }).click();
  await expect(other.getByText(/Klinko has no table for this vehicle/)).toBeVisible();
  await expect(other.getByText("14, 35", { exact: true })).toBeVisible();
  await expect(other.getByRole("list", { name: "Lines of the notebook" })).toContainText("The lamp is steady");
  await expectAccessible(other, "a job that is kept");
  const [again] = await Promise.all([
    other.waitForEvent("download"),
    other.getByRole("button", { name: "Save it as a file" }).click(),
  ]);
  expect(
    Object.keys((JSON.parse(readFileSync(await again.path(), "utf8")) as typeof file & { records: object }).records),
  ).toHaveLength(mine.length);
  await other.getByRole("button", { name: "Remove this job" }).click();
  await other.getByRole("button", { name: "Remove for good" }).click();
  await expect(other).toHaveURL(/\/vehicles\//);
  await expect(other.getByText("No job yet")).toBeVisible();
  await other.context().close();
});

test("settings hold: the look from the first picture of the server on, units where they are used", async ({ page }) => {
  await openGarage(page);
  await page.goto("/settings");
  // By keyboard: the arrows of a group of choices.
  await page.getByRole("radio", { name: "As the device" }).focus();
  await page.keyboard.press("ArrowUp");
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  // A hand that is quicker than the store: each change starts from what is stored, so both stay.
  await page.evaluate(() => {
    for (const unit of ["mph", "°F"]) document.querySelector<HTMLInputElement>(`input[value="${unit}"]`)!.click();
  });
  await expect(page.getByRole("radio", { name: "°F" })).toBeChecked();
  await expect(page.getByRole("radio", { name: "mph" })).toBeChecked();
  const first = await page.request.get("/settings", {
    headers: { cookie: await page.evaluate(() => document.cookie) },
  });
  expect(await first.text()).toMatch(/<html[^>]*data-theme="dark"/);
  await page.reload();
  await expect(page.getByRole("radio", { name: "Dark, for the shed" })).toBeChecked();
  await expect(page.getByRole("radio", { name: "mph" })).toBeChecked();
  await page.goto("/");
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("link", { name: /Story/ }).click();
  await expect(page.getByText(/mph/).first()).toBeVisible();
  await expect(page.getByText(/km\/h/)).toHaveCount(0);
  await page.goto("/settings");
  await page.getByText("As the device").click();
  await expect(page.locator("html")).not.toHaveAttribute("data-theme");
});

test("what was changed on a vehicle is written down with its codes, and can be taken off", async ({ page }) => {
  await openGarage(page);
  await page.goto("/vehicles/demo-sm418t");
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByText("Write what was changed.")).toBeVisible();
  await page.getByLabel("What was changed").fill("<b>Throttle</b> body of a later year");
  await page.getByLabel("Codes to expect").fill("26, 43 and 9999999");
  await page.keyboard.press("Enter");
  const line = page.getByRole("listitem").filter({ hasText: "body of a later year" });
  // As text, whatever is typed.
  await expect(line).toContainText("<b>Throttle</b> body of a later year · expects 26, 43");
  await page.reload();
  await expect(line).toBeVisible();
  const removes = page.getByRole("button", { name: "Remove: <b>Throttle</b> body of a later year" });
  await removes.click();
  await page.getByRole("group", { name: "Remove this change?" }).getByRole("button", { name: "Keep it" }).click();
  await expect(removes).toBeFocused();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Remove it" }).click();
  await expect(line).toBeHidden();
  const radio = page.getByRole("radio", { name: "Needs a code, not found" });
  await page.getByText("Needs a code, not found").click();
  // It shows as chosen once it is stored.
  await expect(radio).toBeChecked();
  await page.reload();
  await expect(radio).toBeChecked();
});

test("a second person's reading is laid over the first, slid until the flashes meet, and says what differs", async ({
  page,
}) => {
  const even = dialectOf("pellworth", "even-when-clear");
  const lamp = (codes: string[], from: number) => {
    const edges = encode(even, { stored: codes }, 90_000).filter(([t]) => t >= from);
    return writeTrace({ edges: edges.map(([t, lit]) => [t - from, lit]), until: 90_000 - from });
  };
  await page.goto("/watch");
  await expect(async () => {
    await page.getByRole("tab", { name: "Trace file" }).click();
    await expect(page.getByRole("button", { name: "Pick a file" })).toBeVisible({ timeout: 500 });
  }).toPass();
  await give(page, "Pick a file", "mine.csv", lamp(["24", "31"], 0));
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("31");
  const lay = async (name: string, content: string) => {
    await page.getByText("Lay a second person’s reading over this one").click();
    await give(page, "From a trace file", name, content);
  };
  const told = page.getByRole("status").filter({ hasText: ".csv" });
  await lay("hers.csv", lamp(["24", "31"], 17_300));
  await expect(told).toContainText(/hers\.csv agrees: all \d+ flashes are in both/);
  await page.getByRole("button", { name: "Remove the overlay" }).click();
  const missed = lamp(["24", "31"], 0).split("\n");
  missed.splice(9, 2);
  await lay("his.csv", missed.join("\n"));
  await expect(told).toContainText(/his\.csv: \d+ flashes in both, 1 flash only here, 0 flashes only there/);
  await page.getByRole("button", { name: "Remove the overlay" }).click();
  await lay("broken.csv", "0,0\n500,maybe\n");
  await expect(page.getByRole("alert")).toContainText("broken.csv, line 2");
});

test("without a vehicle another lamp is begun afresh: neither dialect nor codes of the first one are told of it", async ({
  page,
}) => {
  const tab = page.getByRole("tab", { name: "Trace file" });
  const codes = page.getByRole("list", { name: "Codes read" });
  await page.goto("/watch");
  await expect(async () => {
    await tab.click();
    await expect(page.getByRole("button", { name: "Pick a file" })).toBeVisible({ timeout: 500 });
  }).toPass();
  // Whatever is read in between, no code of another dialect may stand there for a moment.
  await page.evaluate(() => {
    const seen = new Set<string>();
    Object.assign(window, { seen });
    new MutationObserver(() => {
      for (const card of document.querySelectorAll('ul[aria-label="Codes read"] b')) seen.add(card.textContent);
    }).observe(document.body, { childList: true, subtree: true, characterData: true });
  });
  await give(page, "Pick a file", "one.csv", traceOf("pellworth", "even-when-clear", ["24", "31"], 90_000));
  await expect(page.getByText(/It blinks like .*Pellworth/)).toBeVisible();
  await expect(codes).toContainText("31");
  await page.getByRole("button", { name: "Watch another" }).click();
  await page.getByRole("button", { name: "Throw away" }).click();
  await expect(sentence(page)).toHaveText("Watch a lamp");
  await expect(page.getByText(/It blinks like/)).toHaveCount(0);
  await tab.click();
  await give(page, "Pick a file", "two.csv", traceOf("norrvik", "lead-in", ["26", "43"], 200_000));
  await expect(page.getByText(/It blinks like .*Norrvik/)).toBeVisible();
  await expect(codes).toContainText("43");
  expect(await page.evaluate(() => [...(window as unknown as { seen: Set<string> }).seen].sort())).toEqual([
    "24",
    "26",
    "31",
    "43",
  ]);
});

test("a reading without a vehicle outlives the page, and is taken into the open job of one that blinks this way", async ({
  page,
}) => {
  await openGarage(page);
  await page.goto("/watch");
  await expect(async () => {
    await page.getByRole("tab", { name: "Trace file" }).click();
    await expect(page.getByRole("button", { name: "Pick a file" })).toBeVisible({ timeout: 500 });
  }).toPass();
  const edges = encode(dialectOf("norrvik", "lead-in"), { stored: ["26", "43"] }, 200_000);
  await give(page, "Pick a file", "mine.csv", writeTrace({ edges, until: 200_000 }));
  const codes = page.getByRole("list", { name: "Codes read" });
  await expect(codes).toContainText("43");
  await page.reload();
  await expect(codes).toContainText("43");
  const keep = page.getByRole("region", { name: "Keep it with a vehicle" });
  await expectAccessible(page, "a reading that is to be kept");
  // By keyboard: the open jobs come first, and of this dialect there is one.
  await keep.getByRole("button", { name: /SM 418 T.*the open job/ }).focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/lamp-check$/);
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(codes).toContainText("43");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await expect(page.getByText(/Read without a vehicle, and taken in: \d+ flashes/)).toBeVisible();
  await expect(page.getByRole("list", { name: "Lines of the notebook" })).toContainText(/Read engine: 26, 43/);
  // It was taken, not copied.
  await page.goto("/watch");
  await expect(sentence(page)).toHaveText("Watch a lamp");
});

test("short and long flashes have a key each, a held key has a length, and the lists they tell are the same", async ({
  page,
}) => {
  await openGarage(page);
  await page.getByRole("button", { name: "New job for SM 233 K" }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  const marks = page.getByRole("listbox").getByRole("option");
  await page.getByRole("tab", { name: "Two keys" }).click();
  await expect(sentence(page)).toHaveText("Short or long: one key each.");
  for (const key of ["j", "j", "f", "f", "f"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(350);
  }
  await expect(marks).toHaveCount(5);
  await expect(marks.first()).toHaveAccessibleName(/^Long flash/);
  await expect(marks.last()).toHaveAccessibleName(/^Short flash/);
  // A mark that was the other kind is turned, and turned back.
  await page.getByRole("listbox").focus();
  await page.keyboard.press("End");
  await page.getByRole("button", { name: "Make it long" }).click();
  await expect(marks.last()).toHaveAccessibleName(/^Long flash/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(marks.last()).toHaveAccessibleName(/^Short flash/);
});

test("a story outlives a reload before it is sent; a job is ended where it stands, opened again, and deleted once asked", async ({
  page,
}) => {
  await openGarage(page);
  await page.getByRole("button", { name: "New job for SM 233 K" }).click();
  // More than one lamp, and words that nobody has sent.
  await page.getByText("ABS", { exact: true }).click();
  await page.getByLabel("In the owner's words").fill("Both lit on the bridge.");
  await page.getByLabel("Since when").fill("since last Friday");
  await page.reload();
  await expect(page.getByLabel("In the owner's words")).toHaveValue("Both lit on the bridge.");
  await page.getByRole("button", { name: "Write the story down" }).click();
  await noted(page, /CHECK ENGINE \(MIL\) and ABS lamps came on; since last Friday\./);
  // Who listens is at the heading of the new step.
  await expect(page.getByRole("heading", { level: 1 })).toBeFocused();
  const url = page.url();
  const menu = page.getByRole("button", { name: "Sheet, files, end or delete this job" });
  await menu.click();
  await page.getByRole("button", { name: "Given up" }).click();
  await noted(page, /Given up\. Nothing is read yet\./);
  await page.goto("/");
  const row = page.getByRole("listitem").filter({ hasText: "SM 233 K" });
  await expect(row).toContainText("given up");
  await expect(row).not.toContainText("quiet");
  await page.goto(url);
  await menu.click();
  await page.getByRole("button", { name: "Open it again" }).click();
  await menu.click();
  await page.getByRole("button", { name: "Delete this job", exact: true }).click();
  await expect(page.getByRole("button", { name: "Keep it" })).toBeFocused();
  await page.getByRole("button", { name: "Delete for good" }).click();
  await expect(page).toHaveURL(/vehicles\/demo-sm233k$/);
  await expect(page.getByText("ABS lamps came on")).toHaveCount(0);
});
