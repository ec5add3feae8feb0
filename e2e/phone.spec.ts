import type { Page } from "@playwright/test";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";
import { letPass, noted } from "./ways";

test.use({ viewport: { width: 360, height: 740 }, hasTouch: true, isMobile: true, colorScheme: "dark" });

const look = expectAccessible;
const tapOn = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).first().tap();
const say = (page: Page, text: string) => page.getByText(text, { exact: true }).first().tap();

/** One number a digit, as somebody calls them out: lead-in and codes three times each, so many rounds. */
const called = (codes: readonly string[], rounds: number): string =>
  [...Array.from({ length: rounds }, () => ["13", ...codes].flatMap((c) => [c, c, c])).flat(), "13"].join(" ");

async function count(page: Page, text: string): Promise<void> {
  const tab = page.getByRole("tab", { name: "Counts" });
  await expect(async () => {
    await tab.tap();
    await expect(tab).toHaveAttribute("aria-selected", "true", { timeout: 500 });
  }).toPass();
  await page.getByRole("textbox", { name: "Counts" }).fill(text);
}

/** The slips that people make: too early, the wrong one, twice, in the middle, a reload. */
test("a whole job on a phone, by touch, in the dark, with slips", async ({ page }) => {
  test.setTimeout(240_000);
  await openGarage(page);
  await page.getByRole("link", { name: "Go on with SM 418 T" }).tap();

  // The wrong answer first, then the right one.
  await tapOn(page, /Stays dark/);
  await expect(page.getByText("locked: the lamp is dark").first()).toBeAttached();
  await look(page, "lamp-check-dark");
  await tapOn(page, /Stays lit/);
  await page.getByRole("link", { name: "On to the hook-up" }).tap();
  const next = page.getByRole("button", { name: /^(Done|Ready: on to the reading)/ });
  await expect(next).toBeDisabled();
  for (const what of ["Engine off", "Parking brake on", "All consumers off: fan, lights, radio"]) await say(page, what);
  await look(page, "hook-up");
  for (const title of ["Find the connector", "Put the wire in"]) {
    await next.tap();
    await expect(page.getByRole("heading", { name: title })).toBeInViewport();
  }
  await look(page, "hook-up-wire");
  await next.tap();

  // Recorded too early; then counts that are not whole; then changed.
  const store = page.getByRole("button", { name: "Record this reading" });
  await count(page, "13 13");
  await look(page, "counts-begun");
  await page.getByRole("textbox", { name: "Counts" }).fill(called(["21"], 2));
  await expect(sentence(page)).toHaveText("21, seen twice: done.");
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Counts" })).toHaveValue(called(["21"], 2));
  await page.getByRole("textbox", { name: "Counts" }).fill(called(["26", "43"], 2));
  await expect(sentence(page)).toHaveText("26 and 43, seen twice: done.");
  // Without a word which lamp it was, nothing is certain.
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("likely")).toHaveCount(2);
  await look(page, "counts-whole");
  await store.tap();
  await noted(page, /Read engine: 26, 43 \(likely, list most likely whole\)/);
  await expect(sentence(page)).toHaveText("2 faults. Look at the plugs first.");
  await look(page, "meaning");
  await page.getByRole("button", { name: "Why not surer, and what settles it" }).tap();
  await expect(page.getByText(/Look which lamp blinks, and say so/)).toBeVisible();

  // Ends: opened, left alone, asked once; a job that was ended is opened again.
  await tapOn(page, "Sheet, files, end or delete this job");
  await look(page, "end");
  await tapOn(page, "Delete this job");
  await tapOn(page, "Keep it");
  await expect(page.getByRole("button", { name: "Delete for good" })).toBeHidden();
  await tapOn(page, "Given up");
  await noted(page, /Given up\. 26 and 43 are still stored, not cleared/);
  await tapOn(page, "Sheet, files, end or delete this job");
  await tapOn(page, "Open it again");

  await page.getByRole("link", { name: /^Clear/ }).tap();
  await look(page, "clear");
  const fuse = page.getByRole("region", { name: "Pull the memory fuse" });
  await fuse.getByRole("button", { name: /start the time/ }).tap();
  const back = page.getByRole("button", { name: "It is back in: done" });
  await expect(back).toBeDisabled();
  // What is new is in sight and has the focus, though the button that was tapped is gone.
  await expect(sentence(page)).toHaveText(/Leave it off for \d+ s more/);
  await expect(sentence(page)).toBeInViewport();
  await expect(sentence(page)).toBeFocused();
  await look(page, "clear-time");
  await letPass(page, "demo-job-estate", 1);
  await back.tap();
  await expect(sentence(page)).toHaveText("Nothing is proven yet. Read the lamp again after the clear.");
  await look(page, "prove-begun");

  // A drive that cannot have been, a minute after the clear.
  await page.getByRole("link", { name: "Read again" }).tap();
  await say(page, "Driven");
  await count(page, called([], 4));
  await expect(sentence(page)).toContainText("Most likely nothing is stored.");
  await look(page, "after-clear");
  await store.tap();
  await expect(sentence(page)).toContainText("Not proven");
  await expect(sentence(page)).not.toContainText("Fixed");
  const tooSoon = page.getByText(/Too little time has passed since the clear/);
  await expect(tooSoon).toBeVisible();
  await look(page, "prove-too-soon");

  // Driven, and one of the two is back.
  await letPass(page, "demo-job-estate", 40);
  await page.getByRole("link", { name: "Read again" }).tap();
  await say(page, "Driven");
  await count(page, called(["26"], 3));
  await page
    .getByRole("radiogroup", { name: /^Look once more/ })
    .getByText("CHECK ENGINE (MIL)", { exact: true })
    .tap();
  await store.tap();
  await expect(sentence(page)).toContainText("Not fixed.");
  await expect(tooSoon).toBeHidden();
  await look(page, "prove-verdict");
  await tapOn(page, "Close the job with this verdict");
  await noted(page, /Not fixed\./);
});
