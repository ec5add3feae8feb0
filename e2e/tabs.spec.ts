import { expect, openBeside, openGarage, sentence, test } from "./fixtures";
import { noted } from "./ways";

/** Everything is in one browser: two tabs work on it, the store fails, the device is full. */
test("a reading that is open in two tabs is made in one of them, and can be taken over whole", async ({ page }) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-estate/lamp-check");
  await page
    .getByRole("button", { name: /Stays lit/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(sentence(page)).toHaveText("Tap with every flash.");
  const marks = (p: typeof page) => p.getByRole("listbox").first().getByRole("option");
  for (let i = 0; i < 4; i++) {
    await page.keyboard.press("Space");
    await page.waitForTimeout(250);
  }
  const other = await openBeside(page);
  await other.goto(page.url());
  await expect(other.getByRole("heading", { name: "This reading is open in another tab." })).toBeVisible();
  // A key pressed there marks nothing, and takes nothing away here.
  await other.keyboard.press("Space");
  await page.keyboard.press("Space");
  await expect(marks(page)).toHaveCount(5);
  await other.getByRole("button", { name: "Take it over here" }).click();
  await expect(marks(other)).toHaveCount(5);
  await expect(page.getByRole("heading", { name: "This reading is open in another tab." })).toBeVisible();
  await other.getByRole("button", { name: "Go on watching" }).click();
  await other.getByRole("button", { name: /Tap with every flash/ }).click();
  await expect(marks(other)).toHaveCount(6);
  await page.bringToFront();
  await page.getByRole("button", { name: "Take it over here" }).click();
  await expect(marks(page)).toHaveCount(6);
  // Where the tab that has it is closed, the one that waits goes on without being asked.
  await expect(other.getByRole("heading", { name: "This reading is open in another tab." })).toBeVisible();
  await page.close();
  await expect(marks(other)).toHaveCount(6);
});

test("a story told in two tabs keeps the words of both; a line written in one is seen in the other", async ({
  page,
}) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-estate/story");
  const other = await openBeside(page);
  await other.goto(page.url());
  await other.getByLabel("Write a line").fill("Written in the other tab");
  await other.keyboard.press("Enter");
  await expect(other.getByLabel("Write a line")).toHaveValue("");
  await noted(page, /Written in the other tab/);
  await page.getByLabel("In the owner's words").fill("From the first tab");
  await other.getByLabel("Since when").fill("Whitsun");
  await other.getByRole("button", { name: "Write the story down" }).click();
  await expect(sentence(other)).not.toHaveText("What does the owner say?");
  await page.getByRole("button", { name: "Write the story down" }).click();
  await expect(sentence(page)).not.toHaveText("What does the owner say?");
  await page.getByRole("link", { name: /Story/ }).click();
  await expect(page.getByLabel("Since when")).toHaveValue("Whitsun");
  await expect(page.getByLabel("In the owner's words")).toHaveValue("From the first tab");
  // The same field in both: it is said, and sent once more it counts.
  await other.goto(page.url());
  await other.getByLabel("In the owner's words").fill("Second thoughts");
  await other.getByLabel("Since when").fill("Midsummer");
  await page.getByLabel("In the owner's words").fill("First thoughts");
  await other.getByRole("button", { name: "Write the story down" }).click();
  await expect(sentence(other)).not.toHaveText("What does the owner say?");
  await page.getByRole("button", { name: "Write the story down" }).click();
  await expect(page.getByRole("alert")).toContainText("another tab has changed the owner's words as well");
  await expect(page.getByLabel("In the owner's words")).toHaveValue("First thoughts");
  await page.getByRole("button", { name: "Write the story down" }).click();
  await expect(sentence(page)).not.toHaveText("What does the owner say?");
  await page.getByRole("link", { name: /Story/ }).click();
  await expect(page.getByLabel("In the owner's words")).toHaveValue("First thoughts");
  await expect(page.getByLabel("Since when")).toHaveValue("Midsummer");
});

test.describe("a device without room", () => {
  test("what was typed stays with the reason beside it, and is saved once there is room", async ({ page }) => {
    await openGarage(page);
    await page.goto("/jobs/demo-job-estate/story");
    await expect(sentence(page)).toHaveText("What does the owner say?");
    const full = (on: boolean) =>
      page.evaluate((is) => {
        const own = window as unknown as { put?: IDBObjectStore["put"] };
        // eslint-disable-next-line @typescript-eslint/unbound-method -- it is put back where it was
        own.put ??= IDBObjectStore.prototype.put;
        IDBObjectStore.prototype.put = is
          ? () => {
              throw new DOMException("The device is full", "QuotaExceededError");
            }
          : own.put;
      }, on);
    await full(true);
    await page.getByLabel("Write a line").fill("Bought a new relay");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("alert")).toContainText("This browser has no room left");
    await expect(page.getByLabel("Write a line")).toHaveValue("Bought a new relay");
    await page.getByLabel("In the owner's words").fill("It stumbles");
    await page.getByRole("button", { name: "Write the story down" }).click();
    // Beside the line, and beside the story.
    await expect(page.getByRole("alert")).toHaveCount(2);
    await expect(page.getByRole("alert").last()).toContainText("no room left");
    await expect(page.getByLabel("In the owner's words")).toHaveValue("It stumbles");
    await full(false);
    await page.getByLabel("Write a line").press("Enter");
    await noted(page, /Bought a new relay/);
    await page.getByRole("button", { name: "Write the story down" }).click();
    await expect(sentence(page)).not.toHaveText("What does the owner say?");
  });
});

test("a store that never answers is told of, and nothing is called safe", async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => new EventTarget() as IDBOpenDBRequest;
  });
  await page.goto("/");
  await expect(page.getByRole("alert")).toContainText("This browser does not let Klinko store anything");
  await expect(page.getByText(/safe|still on this device/)).toHaveCount(0);
});
