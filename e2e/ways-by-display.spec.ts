import { expect, sentence, test } from "./fixtures";
import { DrivenTime } from "./clock";
import { DrivenWatcher } from "./lamp";
import { noted, record, says, simulated, takeSteps, toHookUp } from "./ways";

test("method H: numbers of the dash are typed, an unclear one offered with look-alikes, one list a system", async ({
  page,
}) => {
  const vehicle = "demo-mc7";
  await toHookUp(page, "make=tarvello&year=2008", /Hold two buttons/, vehicle);
  await takeSteps(page);
  const v = await simulated(page, vehicle);
  await v.press("Hold SET");
  await v.press("Hold RESET");
  await v.key("On, engine off");
  await v.car.waitForTimeout(5300);
  await v.press("Let SET go");
  await v.press("Let RESET go");
  const display = v.car.getByLabel("Display");
  for (let i = 0; ; i++) {
    const shown = (await display.textContent())!;
    await page.getByLabel("On the display").fill(i === 1 ? "1?" : shown);
    await page.keyboard.press("Enter");
    if (shown === "--") break;
    await v.press("SET");
    await expect(display).not.toHaveText(shown);
  }
  await page.reload();
  await page.getByRole("group", { name: "What 1? may be" }).getByRole("button", { name: /14/ }).click();
  await expect(sentence(page)).toHaveText("3 numbers, then nothing more.");
  await record(page);
  await noted(page, /engine: 4, 14; brakes: 29; inertial unit: nothing stored/);
  await expect(page.getByRole("region", { name: "Code 14" })).toBeVisible();
  await page.getByText("Brakes", { exact: false }).locator("visible=true").first().click();
  await expect(page.getByRole("region", { name: "Code 29" })).toBeVisible();
});

test("method I: the dash walks through its modules, one list each; a wrong wire blows the fuse", async ({ page }) => {
  const vehicle = "demo-sm9a";
  await toHookUp(page, "make=aldermoor&year=1990", /walk through the modules/, vehicle);
  // On the drawing first: what a wrong wire would do.
  await page.getByRole("button", { name: "What would another wire do?" }).click();
  const box = (name: string) => page.locator(`[data-cavity="${name}"]`).first();
  await box("D").scrollIntoViewIfNeeded();
  const [from, to] = [(await box("D").boundingBox())!, (await box("B").boundingBox())!];
  await page.mouse.move(from.x + 15, from.y + 15);
  await page.mouse.down();
  await page.mouse.move(to.x + 15, to.y + 15, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText("D and B: Danger.")).toBeVisible();
  const cavities = page.getByRole("group", { name: "Cavities to try" });
  await cavities.getByRole("button", { name: "D", exact: true }).press("Enter");
  await cavities.getByRole("button", { name: "H", exact: true }).press("Enter");
  await expect(page.getByText("D and H: Right.")).toBeVisible();
  await takeSteps(page);
  const v = await simulated(page, vehicle);
  const display = v.car.getByLabel("Display");
  await v.wire("B", "H");
  await v.key("On, engine off");
  await expect(v.car.getByText("There was a spark at the connector")).toBeVisible();
  await v.key("Off");
  await v.press("Pull the wire out");
  await v.press("Fit a new unit fuse");
  await v.wire("D", "H");
  await v.key("On, engine off");
  await expect(display).toHaveText("E 13", { timeout: 8000 });
  await expect(display).toHaveText("E 34", { timeout: 8000 });
  for (const code of ["13", "34"]) {
    await page.getByLabel("After the E").fill(code);
    await page.keyboard.press("Enter");
  }
  await page.getByRole("button", { name: /All codes of Engine/ }).click();
  await v.press("TRIP");
  await expect(display).toHaveText("B ---");
  await page.getByRole("button", { name: /nothing: next module/ }).click();
  await v.press("TRIP");
  await expect(display).toHaveText("C 49");
  await page.getByLabel("After the C").fill("49");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /All codes of Climate/ }).click();
  await page.getByRole("button", { name: /nothing: next module/ }).click();
  await expect(sentence(page)).toHaveText("All modules are read.");
  await record(page);
  await noted(page, /engine: 13, 34; body: nothing stored; climate: 49; ride control: nothing stored/);
});

test("method J: readiness by lamp, with a countdown and taps, before and after the drive", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  const vehicle = "demo-et70p";
  await toHookUp(page, "make=pellworth&year=2002", /Readiness by lamp/, vehicle);
  await page.getByText("Readiness", { exact: true }).click();
  await expect(page.getByText("Readiness by lamp: key on and wait").first()).toBeVisible();
  await takeSteps(page);
  const v = await simulated(page, vehicle, time);
  const watch = async (seed: number, until: string) => {
    await v.key("On, engine off");
    await page.getByRole("button", { name: "The key goes on now" }).click();
    await new DrivenWatcher(time, v.car, page, seed).watch("engine", 60_000, says(page, until));
  };
  await watch(1, "Not ready: the monitors are not complete.");
  await expect(sentence(page)).toHaveText("Not ready: the monitors are not complete.");
  await page.getByRole("button", { name: "Start over" }).click();
  await v.key("Off");
  await v.press("Drive for twenty minutes");
  await time.pass(5000);
  await expect(v.car.getByRole("button", { name: "Drive for twenty minutes" })).toBeEnabled();
  await watch(2, "The watch is over. What does the lamp do now?");
  await page.getByText("Stays lit", { exact: true }).click();
  await expect(sentence(page)).toHaveText("Ready, as the lamp shows it.");
  await record(page);
  await expect(sentence(page)).toHaveText("Ready, as the lamp showed it.");
  await noted(page, /Ready, as the lamp shows it/);
});

test("method K: swapped leads are silent, the wrong protocol is gibberish, the right one gives values and codes", async ({
  page,
}) => {
  const vehicle = "demo-sm88m";
  await toHookUp(page, "shape=round&colour=green", /Serial lead on the round plug/, vehicle);
  await takeSteps(page);
  const v = await simulated(page, vehicle);
  const connect = page.getByRole("button", { name: "Connect to the simulated unit" });
  for (const cavity of ["2", "1", "3"]) await v.press(cavity);
  await v.key("Engine runs");
  await connect.click();
  await expect(page.getByText(/The unit is silent/)).toBeVisible();
  await v.press("Pull all leads out");
  for (const cavity of ["1", "2", "3"]) await v.press(cavity);
  await page.getByText("Version 1, one block").click();
  await connect.click();
  await expect(page.getByText(/choose the other protocol/)).toBeVisible();
  await page.getByText("Version 2, two blocks").click();
  await connect.click();
  await expect(page.getByRole("button", { name: /Engine speed 1\d{3} 1\/min outside/ })).toBeVisible();
  await page.getByRole("button", { name: /Battery voltage/ }).click();
  await expect(page.getByRole("img", { name: /Battery voltage over the last/ })).toBeVisible({ timeout: 15_000 });
  await page.getByRole("button", { name: "Read the codes" }).click();
  await expect(sentence(page)).toHaveText("2 codes: 15, 28.");
  await record(page);
  await noted(page, /Read engine: 15, 28/);
});
