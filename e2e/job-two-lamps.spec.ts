import { expect, openBeside, openGarage, sentence, test } from "./fixtures";
import { DrivenTime } from "./clock";
import { DrivenWatcher } from "./lamp";
import { says } from "./ways";

/** Method B: a two-wire plug, long and short flashes held on a key, engine and brake lamp at once. */
test("long and short flashes, from the garage to the meaning, one lamp and then the other", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  await openGarage(page);
  await page.getByRole("button", { name: "New job for SM 233 K" }).click();
  await expect(sentence(page)).toHaveText("What does the owner say?");
  await page.getByText("Warm", { exact: true }).click();
  await page.getByText("Standing", { exact: true }).click();
  await page.getByText("Hunting idle", { exact: true }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await expect(sentence(page)).toHaveText("2 systems can be read. Which one first?");
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await page.getByRole("tab", { name: "From the wire side" }).click();
  await expect(page.getByRole("img", { name: /Service plug, 2 wires, from the wire side/ })).toBeVisible();

  const car = await openBeside(page);
  await car.goto("/simulated/demo-sm233k");
  // The neighbour first: it carries battery, and all goes dark until a new fuse is in.
  await car.getByText("grey, 5 cavities").click();
  await car.getByRole("button", { name: "1", exact: true }).click();
  await car.getByRole("button", { name: "5", exact: true }).click();
  await car.getByText("On, engine off").click();
  await expect(car.getByText(/There was a spark/)).toBeVisible();
  await expect(car.locator('[data-system="engine"]')).toHaveAttribute("data-lit", "no");
  await car.getByText("Off", { exact: true }).click();
  await car.getByRole("button", { name: "Pull the wire out" }).click();
  await car.getByRole("button", { name: "Fit a new unit fuse" }).click();
  await car.getByText("blue, 2 cavities").click();
  await car.getByRole("button", { name: "A", exact: true }).click();
  await car.getByRole("button", { name: "B", exact: true }).click();

  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(sentence(page)).toHaveText("Hold while the lamp is lit.");
  const person = new DrivenWatcher(time, car, page, 3, "hold");
  await car.getByText("On, engine off").click();
  await person.watch("engine", 200_000, says(page, "7 and 27, seen twice: done."));
  await expect(sentence(page)).toHaveText("7 and 27, seen twice: done.");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await expect(page.getByText("Expected on this vehicle:")).toBeVisible();
  await expect(page.getByRole("region", { name: "Code 7", exact: true })).toContainText(
    "Idle air control (IAC) valve circuit",
  );

  // The other lamp has its own list, at the same time.
  await page.getByText("ABS · Brakes").click();
  await page.getByRole("link", { name: "To the reading" }).click();
  await person.watch("brake", 120_000, says(page, "13, seen twice: done."));
  await expect(sentence(page)).toHaveText("13, seen twice: done.");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await expect(page.getByRole("region", { name: "Code 13" })).toContainText("ABS pump motor circuit");
});
