import { expect, openBeside, openGarage, sentence, test } from "./fixtures";
import { DrivenTime } from "./clock";
import { DrivenWatcher } from "./lamp";
import { lookedAt, noted, record, says } from "./ways";

/** Method A from the lamp check to the verdict, with the lamp of the simulated vehicle really read. */
test("a whole job against the simulated vehicle: wrong bridge, reading, clear, proof", async ({ page, context }) => {
  const time = await DrivenTime.of(context);
  await openGarage(page);
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await expect(page.getByText("locked: after a usable reading")).toBeVisible();

  const car = await openBeside(page);
  await car.goto("/simulated/demo-sm418t");
  const lamp = car.locator('[data-system="engine"]');
  const wire = async (a: string, b: string) => {
    await car.getByRole("button", { name: a, exact: true }).click();
    await car.getByRole("button", { name: b, exact: true }).click();
  };
  const key = (to: "Off" | "On, engine off") => car.getByText(to, { exact: true }).click();
  const person = new DrivenWatcher(time, car, page, 11);

  await key("On, engine off");
  await expect(lamp).toHaveAttribute("data-lit", "yes");
  await time.pass(3000);
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await key("Off");
  await expect(lamp).toHaveAttribute("data-lit", "no");

  // The steps, at the keyboard; the first one waits for what must be so before.
  const next = page.getByRole("button", { name: /^(Done|Wire is in)/ });
  await expect(next).toBeDisabled();
  for (const what of ["Engine off", "Parking brake on", "All consumers off: fan, lights, radio"])
    await page.getByText(what, { exact: true }).click();
  await page.getByRole("heading", { name: "Key off", exact: true }).click();
  for (const title of ["Find the connector", "Put the wire in"]) {
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: title })).toBeVisible();
  }

  // The wrong bridge: another lamp answers, and this one only stays lit.
  await wire("D", "G");
  // The key goes on where the lamp is watched, so that nothing of the list is lost.
  await page.getByRole("button", { name: /Ready: on to the reading/ }).click();
  await expect(page.getByRole("heading", { name: "Key on, do not start" })).toBeVisible();
  await key("On, engine off");
  await time.pass(4000);
  await page.getByRole("button", { name: "It does not blink" }).click();
  await expect(page.getByText("if the lamp does not blink, the hook-up is not right")).toBeVisible();
  await expect(page.getByRole("button", { name: "Record this reading" })).toBeDisabled();
  await expect(car.locator('[data-system="brake"]')).toHaveAttribute("data-lit", "no");
  await expect(lamp).toHaveAttribute("data-lit", "yes");
  await page.getByRole("link", { name: /Hook-up/ }).click();
  await page.getByRole("button", { name: "Nothing happens?" }).click();
  await expect(page.getByText(/Socket face and wire side are mirror images/)).toBeVisible();

  // The right one.
  await key("Off");
  await car.getByRole("button", { name: "Pull the wire out" }).click();
  await wire("C", "G");
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(sentence(page)).toHaveText("Tap with every flash.");
  await key("On, engine off");
  const whole = "26 and 43, seen twice: done.";
  await person.watch("engine", 300_000, says(page, whole));
  await expect(sentence(page)).toHaveText(whole);
  // Another lamp could have blinked: which it was makes it certain.
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("likely")).toHaveCount(2);
  await lookedAt(page, "CHECK ENGINE (MIL)");
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("certain")).toHaveCount(2);
  await record(page);

  await expect(sentence(page)).toHaveText("2 faults. Look at the plugs first.");
  await expect(page.getByText("Mass air flow (MAF) sensor circuit")).toBeVisible();
  await noted(page, /Read engine: 26, 43 \(certain, list seen whole\)/);
  await page.getByRole("button", { name: "On to the checks" }).click();
  await expect(sentence(page)).toHaveText("What set 26 and 43? Look here first.");
  await page.getByRole("button", { name: "On to the clear" }).click();

  // The battery costs the radio its code, and the brakes, which nobody has read, their memory: both are said, and asked once.
  await expect(sentence(page)).toHaveText("2 codes: clear them, and see what returns first.");
  const battery = page.getByRole("region", { name: "Battery negative off" });
  await expect(battery).toContainText("Say first whether the radio needs a code.");
  await expect(battery.getByRole("button", { name: /start the time/ })).toBeDisabled();
  await page.getByText("Needs a code, I have it").click();
  await expect(battery).toContainText("It wipes more: Brakes, not read yet.");
  await battery.getByRole("button", { name: /start the time/ }).click();
  await expect(battery.getByRole("button", { name: "No" })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(battery.getByRole("button", { name: /start the time/ })).toBeFocused();

  await key("Off");
  await car.getByRole("button", { name: "Pull the wire out" }).click();
  await car.getByRole("button", { name: "Pull the memory fuse" }).click();
  await page.getByRole("button", { name: "It is off: start the time" }).first().click();
  await expect(page.getByRole("button", { name: "It is back in: done" })).toBeDisabled();
  await page.reload();
  await expect(sentence(page)).toHaveText(/Leave it off for \d+ s more/);
  await time.skip(61_000);
  await expect(sentence(page)).toHaveText("Long enough. Put it back.");
  await car.getByRole("button", { name: "Pull the memory fuse: put it back" }).click();
  await page.getByRole("button", { name: "It is back in: done" }).click();
  await expect(sentence(page)).toHaveText("Nothing is proven yet. Read the lamp again after the clear.");
  // Drive, read again.
  await car.getByRole("button", { name: "Drive for twenty minutes" }).click();
  await time.skip(25 * 60_000);
  await expect(car.getByRole("button", { name: "Drive for twenty minutes" })).toBeEnabled();
  await wire("C", "G");
  await page.getByRole("link", { name: "Read again" }).click();
  await page.getByText("Driven", { exact: true }).click();
  await page.getByRole("heading", { level: 1 }).click();
  await key("On, engine off");
  const round = "13 is the lead-in. The list came round: 26.";
  await person.watch("engine", 150_000, says(page, round));
  await expect(sentence(page)).toHaveText(round);
  await lookedAt(page, "CHECK ENGINE (MIL)");
  await record(page);
  const verdict = "26 is back after the drive; 43 stayed away over the drive that you told of. Not fixed.";
  await expect(sentence(page)).toHaveText(verdict);
  await expect(page.getByRole("row", { name: /^26 / })).toContainText("at once or on the road, not known");
  await expect(page.getByRole("row", { name: /^43 / })).toContainText("history");
  await page.getByRole("button", { name: "Close the job with this verdict" }).click();
  await expect(page.getByRole("list", { name: "Lines of the notebook" })).toContainText(verdict);
  await page.getByRole("link", { name: "To the garage", exact: true }).click();
  await expect(sentence(page)).toHaveText("One job is open.");
});
