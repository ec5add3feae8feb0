import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, expectAccessible, sentence, test } from "./fixtures";
import { DrivenTime } from "./clock";
import { readTrace, toClear } from "./traces";
import { letPass, noted } from "./ways";

const jobOf = (page: Page): string => new URL(page.url()).pathname.split("/")[2];
/** Clears by the way that costs least, so many minutes ago. */
async function clearNow(page: Page, minutes: number): Promise<void> {
  await page
    .getByRole("button", { name: /start the time/ })
    .first()
    .click();
  await expect(page.getByRole("timer")).toBeVisible();
  await letPass(page, jobOf(page), minutes);
  await page.getByRole("button", { name: /done$/ }).click();
  await expect(page).toHaveURL(/prove$/);
}

const inDays = (n: number): string => new Date(Date.now() + n * 86_400_000).toLocaleDateString("sv");

test("after an adapter's clear: what is learned anew has its time, and the inspection is held against the days until it is ready", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  await toClear(page, "pellworth", ["31"]);
  await time.skip(60_000);
  // The immobiliser is asked about where a way takes its keys, and once more where one is missing.
  const battery = page.getByRole("region", { name: "Battery negative off" });
  await page.getByText("A key or the card is missing").click();
  await expect(battery).toContainText("It may not start afterwards");
  await battery.getByRole("button", { name: /start the time/ }).click();
  await expect(battery.getByRole("group", { name: "All the same?" })).toBeVisible();
  await page.keyboard.press("Escape");

  const adapter = page.getByRole("region", { name: /^Scan adapter/ });
  await adapter.getByRole("button", { name: "Begin with the first step" }).click();
  await page.getByRole("button", { name: "All steps done" }).click();
  await expect(page.getByText("With nothing stored: quick even flashing that does not stop.")).toBeVisible();

  // Its time runs through a reload, and cannot be called done before it is over.
  const after = page.getByRole("region", { name: "After the clear" });
  await after.getByRole("button", { name: "It runs: start the 3 min" }).press("Enter");
  await expect(after.getByRole("timer")).toBeVisible();
  await page.reload();
  await expect(after.getByRole("button", { name: "Done" })).toBeDisabled();
  await time.skip(181_000);
  await after.getByRole("button", { name: "Done" }).click();
  await expect(after.getByRole("heading")).toHaveText("Learned anew");
  await noted(page, /Learned anew: Throttle stop, 3 min/);

  const ready = page.getByRole("region", { name: "Ready for inspection" });
  await ready.getByText("Once a week").click();
  await expect(ready.getByRole("heading")).toHaveText(/^Ready most likely between \d+ \w+ and \d+ \w+\.$/);
  await ready.getByLabel("Next inspection").fill(inDays(1));
  await expect(ready).toContainText("The inspection comes first, tomorrow");
  await ready.getByText("Twice a day").click();
  await ready.getByLabel("Next inspection").fill(inDays(30));
  await expect(ready).toContainText("Most likely ready by then.");
  await expectAccessible(page, "ready for inspection");
  await page.setViewportSize({ width: 360, height: 740 });
  await page.reload();
  await expect(ready).toContainText("Most likely ready by then.");
  await expectAccessible(page, "ready for inspection at 360 px");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    ready.getByRole("button", { name: "Save the days for a calendar" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("ready-ET-70-P.ics");
  const calendar = readFileSync(await file.path(), "utf8");
  expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(3);
  expect(calendar).toContain(`DTSTART;VALUE=DATE:${inDays(30).replaceAll("-", "")}`);

  // The lamp is watched from here; a page that was closed while it tells proves nothing.
  await ready.getByRole("button", { name: "Watch what the lamp says" }).click();
  await page.getByRole("button", { name: "The key goes on now" }).click();
  await time.pass(10_000);
  await time.skip(20_000);
  await page.reload();
  await expect(page.getByRole("timer")).toBeVisible();
  await time.pass(5000);
  await page.getByText("Stays lit", { exact: true }).click();
  await expect(sentence(page)).toHaveText("Nobody watched when it tells: watch once more.");
});

test("a unit that wipes itself after so many starts: counted once a tap, begun anew, ended too early only when asked", async ({
  page,
}) => {
  await toClear(page, "osaril", ["21", "35"]);
  await page
    .getByRole("region", { name: "Forty starts without the fault" })
    .getByRole("button", { name: "Count from now" })
    .click();
  const count = page.getByRole("region", { name: "Wiping itself" });
  const more = count.getByRole("button", { name: "One more start, lamp out" });
  await more.dblclick();
  await expect(count.getByRole("heading")).toHaveText("Wiping itself: 1 of 40 starts");
  // Another start, and not the same finger once more.
  await page.waitForTimeout(1000);
  await more.press("Enter");
  await expect(count.getByRole("heading")).toHaveText("Wiping itself: 2 of 40 starts");
  await count.getByRole("button", { name: "Take the last one back" }).click();
  await expect(count.getByRole("heading")).toHaveText("Wiping itself: 1 of 40 starts");
  await expectAccessible(page, "a unit that wipes itself");
  const job = page.url();
  await page.goto("/");
  await expect(page.getByText(/wiping itself: 1 of 40 starts/)).toBeVisible();
  await page.getByRole("link", { name: "Go on with SM 501 C" }).click();
  await expect(page).toHaveURL(job);

  await count.getByRole("button", { name: "The lamp came on" }).click();
  await count.getByRole("button", { name: "Yes, from 0" }).click();
  await expect(count.getByRole("heading")).toHaveText("Wiping itself: 0 of 40 starts");
  await noted(page, /The lamp came on: the count begins anew/);
  // Nobody is held up: another way can be taken meanwhile, and the count goes on.
  await page.getByRole("link", { name: "Clear it" }).click();
  await expect(page.getByText("Wiping itself: 0 of 40 starts.")).toBeVisible();
  await page.getByRole("link", { name: "To the count" }).click();

  await count.getByRole("button", { name: "It is wiped already" }).click();
  await expect(count.getByRole("button", { name: "Count on" })).toBeFocused();
  await count.getByRole("button", { name: "Yes, note it" }).click();
  await expect(count).toBeHidden();
  await noted(page, /Forty starts without the fault: 0 of 40 starts/);
  await expect(sentence(page)).toHaveText("Nothing is proven yet. Read the lamp again after the clear.");
});

test("one code will not wipe, the other stays away: how sure that is grows with each drive", async ({ page }) => {
  await toClear(page, "osaril", ["21", "35"]);
  const read = async (run: "Only switched on" | "Driven", codes: string[]) => {
    await page
      .getByRole("link", { name: /^Read( again)?$/ })
      .last()
      .click();
    await page.getByText(run, { exact: true }).click();
    await readTrace(page, ["osaril", "even-when-clear"], codes);
    await expect(page.getByRole("table")).toBeVisible();
  };
  const row = (code: string) => page.getByRole("row", { name: new RegExp(`^${code}`) });
  await clearNow(page, 20);
  await read("Only switched on", ["35"]);
  await expect(row("35")).toContainText("hard");
  await expect(row("21")).toContainText("quiet so far");
  // Switched on alone it had no chance to come back: nothing is said of how sure that is.
  await expect(row("21")).not.toContainText("% that it is gone");
  // The idle test comes next, with a time that runs through a reload.
  const tests = page.getByRole("region", { name: "Tests that bring it back" });
  await tests.getByRole("button", { name: "It runs: start the time, 5:00" }).press("Enter");
  await expect(tests.getByRole("timer")).toBeVisible();
  await letPass(page, jobOf(page), 30);
  await expect(tests).toContainText("Long enough. Read it now.");
  await read("Driven", ["35"]);
  await expect(row("21")).toContainText("67 % that it is gone: 1 drive and reading without it");
  // Read once more at once it is the same drive.
  await read("Driven", ["35"]);
  await expect(row("21")).toContainText("67 % that it is gone");
  await letPass(page, jobOf(page), 30);
  await read("Driven", ["35"]);
  await expect(row("21")).toContainText("75 % that it is gone: 2 drives with a reading without it");
  await expect(row("35")).not.toContainText("% that it is gone");

  // The sheet for a workshop has every reading with its flashes, on one page.
  await page.getByRole("button", { name: "Sheet, files, end or delete this job" }).click();
  await page.getByRole("link", { name: "Sheet for workshop or customer" }).click();
  await expect(page.getByRole("img", { name: /flashes in their time$/ })).toHaveCount(5);
  const pdf = (await page.pdf({ format: "A4" })).toString("latin1");
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
});

test("a phone records the ride: it outlives a reload, counts once noted, and a refused position says what to do", async ({
  page,
  context,
}) => {
  await context.addInitScript(() => {
    const state = window as unknown as { ride?: (fixes: number[][]) => void; refuse?: boolean };
    Object.defineProperty(navigator, "geolocation", {
      value: {
        watchPosition: (done: (p: unknown) => void, failed: (e: unknown) => void) => {
          if (localStorage.getItem("refuse")) failed({ code: 1 });
          state.ride = (fixes) => {
            for (const [timestamp, latitude, longitude, speed] of fixes)
              done({ timestamp, coords: { latitude, longitude, speed } });
          };
          return 1;
        },
        clearWatch: () => (state.ride = undefined),
      },
    });
  });
  await toClear(page, "osaril", ["21", "35"]);
  await clearNow(page, 60);
  await letPass(page, jobOf(page), 60);
  const rides = page.getByRole("region", { name: "Rides since the clear" });
  const recorder = rides.getByRole("group", { name: "Record the ride with this phone" });
  await page.evaluate(() => localStorage.setItem("refuse", "yes"));
  await recorder.getByRole("button", { name: "Record the ride" }).click();
  await expect(recorder.getByRole("alert")).toContainText("Allow the position for this page");
  await page.evaluate(() => localStorage.removeItem("refuse"));

  // A quarter of an hour at 20 and 25 m/s, the page reloaded in the middle.
  const start = Date.now() - 1_800_000;
  const fixes = (from: number, to: number) =>
    Array.from({ length: to - from }, (_, i) => {
      const s = from + i;
      return [start + s * 1000, 51 + s * 0.00018, 1, s < 20 || s > 880 ? 0 : 22];
    });
  const ride = (rows: number[][]) =>
    page.evaluate((rows) => (window as unknown as { ride: (r: number[][]) => void }).ride(rows), rows);
  await recorder.getByRole("button", { name: "Record the ride" }).click();
  await ride(fixes(0, 500));
  await expect(recorder.getByRole("status")).toContainText("Recording: 500 positions in 8 min.");
  await expect(recorder).toContainText("Nobody looks at a screen while driving.");
  // Another page is opened: what came is written.
  await page.getByRole("link", { name: "Checks", exact: true }).click();
  await expect(page).toHaveURL(/checks$/);
  await page.getByRole("link", { name: "Prove", exact: true }).click();
  await expect(recorder).toContainText("500 positions in 8 min");
  await page.reload();
  await expect(recorder).toContainText("500 positions in 8 min");
  await recorder.getByRole("button", { name: "Go on recording" }).click();
  await ride(fixes(500, 900));
  await recorder.getByRole("button", { name: "The ride is over" }).click();
  await expect(rides).toContainText(/counts: at 70 km\/h or more for 14:\d\d \(1:00 needed\)/);
  await rides.getByRole("button", { name: "Note this ride" }).click();
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 1 of 1");
  await page.reload();
  await expect(recorder.getByRole("button", { name: "Record the ride" })).toBeVisible();
});
