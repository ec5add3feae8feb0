import { expect, expectAccessible, openGarage, test } from "./fixtures";
import { letPass, noted } from "./ways";

/** A log a second long each row: it stands, drives at a speed for so long, goes on slowly, and stands. From two hours ago. */
function log(fast: number, heading = "time,speed (km/h)"): { name: string; mimeType: string; buffer: Buffer } {
  const start = Date.now() - 7_200_000;
  const rows = Array.from({ length: 1020 }, (_, s) => {
    const kmh = s < 30 || s > 990 ? 0 : s < 60 + fast ? 95 : 50;
    return `${new Date(start + s * 1000).toISOString()},${s < 60 && s >= 30 ? 50 : kmh}`;
  });
  return { name: `ride-${fast}.csv`, mimeType: "text/csv", buffer: Buffer.from([heading, ...rows].join("\n")) };
}

test("a ride that misses by seconds is told so, one that counts is counted; what is no log, or has no unit, says what to do", async ({
  page,
}) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-six/clear");
  await page
    .getByRole("button", { name: /start the time/ })
    .first()
    .click();
  // The time is running: it is stored.
  await expect(page.getByRole("timer")).toBeVisible();
  await letPass(page, "demo-job-six", 200);
  await page.getByRole("button", { name: /done$/ }).click();
  const rides = page.getByRole("region", { name: "Rides since the clear" });
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 0 of 1");
  // It was cleared before the ride: three hours ago.
  await letPass(page, "demo-job-six", 180);
  const bring = async (file: ReturnType<typeof log>) => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      rides.getByRole("button", { name: "Pick a log" }).click(),
    ]);
    await chooser.setFiles(file);
  };

  await bring({
    name: "notes.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("It ran well.\nThen it did not.\nThen it did.\n"),
  });
  await expect(rides.getByRole("alert")).toContainText("notes.csv: Its lines have but one column");

  await bring(log(115));
  await expect(rides.getByRole("img", { name: /^Speed over the ride/ })).toBeVisible();
  await expect(rides).toContainText(/does not count: at 80 km\/h or more for 1:5\d of 2:00/);
  await expectAccessible(page, "a ride read");
  await rides.getByRole("button", { name: "Note this ride" }).click();
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 0 of 1");
  await noted(page, /Ride: does not count: at 80 km\/h or more for 1:5\d of 2:00/);

  // The same again is not noted twice; the person's unit is asked for where the file has none.
  await bring(log(200, "time,speed"));
  await expect(rides.getByRole("alert")).toContainText("does not say in what its speeds are told");
  await rides.getByText("km/h", { exact: true }).last().click();
  await expect(rides).toContainText(/counts: at 80 km\/h or more for 3:\d\d \(2:00 needed\)/);
  await rides.getByRole("button", { name: "Note this ride" }).press("Enter");
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 1 of 1");
  await page.setViewportSize({ width: 360, height: 740 });
  await page.reload();
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 1 of 1");
  await expectAccessible(page, "rides at 360 px");
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 1 of 1");

  // Taken back, then told by hand, with a slip.
  await rides
    .getByRole("button", { name: /^Take back/ })
    .last()
    .click();
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 0 of 1");
  await rides.getByRole("button", { name: "Note a ride without a log" }).click();
  await rides.getByLabel("Minutes on the way").fill("20");
  await rides.getByRole("button", { name: "Note the ride" }).click();
  await expect(rides.getByRole("alert")).toContainText("Type minutes as numbers");
  await rides.getByLabel("Minutes of it at 80 km/h or more").fill("2,5");
  await rides.getByRole("button", { name: "Note the ride" }).click();
  await expect(rides.getByRole("heading")).toHaveText("Rides that count: 1 of 1");
  await expect(rides).toContainText("as you told it");
  await page.goto("/");
  await expect(page.getByText("1 ride counts since the clear")).toBeVisible();
});
