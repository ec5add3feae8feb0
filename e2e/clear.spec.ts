import { expect, expectAccessible, sentence, test } from "./fixtures";
import { noted } from "./ways";
import { toClear } from "./traces";

test("an inspection that is too near and a school of one's own change what the clear advises", async ({ page }) => {
  await toClear(page, "pellworth", ["31"]);
  await expect(sentence(page)).toHaveText("One code: look first.");
  await expect(page.getByRole("link", { name: "To the checks" })).toBeVisible();

  // A day typed at the keyboard; it outlives a reload, and can be taken away.
  const day = page.getByLabel("Next inspection");
  const soon = new Date(Date.now() + 3 * 86_400_000).toLocaleDateString("sv");
  // As it is typed: a field a part, in the order of the place.
  await day.focus();
  const [year, month, date] = soon.split("-");
  await page.keyboard.type(`${month}${date}${year}`);
  await expect(sentence(page)).toHaveText("Not now: the inspection is too near.");
  await expect(page.getByText("the inspection is in 3 days")).toBeVisible();
  await expectAccessible(page, "clear before an inspection");
  await page.setViewportSize({ width: 360, height: 740 });
  await page.emulateMedia({ colorScheme: "dark" });
  await page.reload();
  await expect(sentence(page)).toHaveText("Not now: the inspection is too near.");
  await expect(day).toHaveValue(soon);
  await expectAccessible(page, "clear before an inspection, dark at 360 px");
  await day.fill("");
  await expect(sentence(page)).toHaveText("One code: look first.");

  const job = page.url();
  await page.goto("/settings");
  await page.getByText("Clear first, see what returns").click();
  // It is chosen once it is kept.
  await expect(page.getByRole("radio", { name: "Clear first, see what returns" })).toBeChecked();
  await page.goto(job);
  await expect(sentence(page)).toHaveText("Clear it, and see whether it comes back.");
  // Begun too early, and broken off: nothing is booked.
  await page
    .getByRole("button", { name: /start the time/ })
    .first()
    .click();
  await expect(page.getByRole("timer")).toBeVisible();
  await page.getByRole("button", { name: "Break off" }).click();
  await expect(sentence(page)).toHaveText("Clear it, and see whether it comes back.");
  await noted(page, /time started/);
});
