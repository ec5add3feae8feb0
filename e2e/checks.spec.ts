import type { Page } from "@playwright/test";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";
import { noted, readByCounts } from "./ways";

/** Pages of paper in a PDF. */
const pagesOf = (pdf: Buffer): number => pdf.toString("latin1").match(/\/Type\s*\/Page\b/g)?.length ?? 0;

const suspects = (page: Page) => page.getByRole("region", { name: "What can be wrong" }).getByRole("listitem");
const card = (page: Page, name: string | RegExp) => page.getByRole("region", { name });

/** Takes another check than the one that is proposed. */
async function other(page: Page, name: string): Promise<void> {
  // What was noted last is weighed in first: the list is sorted anew by it.
  await expect(page.locator('[aria-busy="false"]')).toBeVisible();
  if (await card(page, name).isVisible()) return;
  const more = page.getByRole("button", { name: /^Other checks and tools/ });
  if ((await more.getAttribute("aria-expanded")) !== "true") await more.press("Enter");
  await page.getByRole("button", { name: `Do this one: ${name}`, exact: true }).press("Enter");
  await expect(card(page, name)).toBeVisible();
}

test("three codes with one cause: the ground comes before the sensors, is measured, mended and noted", async ({
  page,
}) => {
  await openGarage(page);
  await readByCounts(page, ["27", "32", "53"]);
  await page.getByRole("button", { name: "On to the checks" }).click();
  await expect(sentence(page)).toHaveText("One thing stands out: sensor ground, splice S12 behind the air cleaner.");
  const first = suspects(page).first();
  await first.getByRole("button").click();
  await expect(first).toContainText("It explains all three codes: 27, 32 and 53.");
  await expect(first).toContainText("Otherwise three separate faults would have come together.");
  await expectAccessible(page, "checks");

  // Measured with slips: nothing, another unit, what cannot be, and then a comma.
  const ground = card(page, /^Measure sensor ground/);
  const shows = ground.getByLabel("The meter shows");
  const judge = ground.getByRole("button", { name: "Is it good?" });
  await judge.click();
  await expect(ground).toContainText("Type what the meter shows");
  await shows.fill("0,62 kΩ");
  await judge.click();
  await expect(ground).toContainText('"kΩ" does not fit here: this is measured in V or mV');
  await shows.fill("900");
  await judge.click();
  await expect(ground).toContainText("900 V cannot be");
  await shows.fill("0,62 V");
  await page.keyboard.press("Enter");
  await expect(ground.getByRole("status")).toContainText("0.62 V is too high by 0.57 V: good is up to 0.05 V.");
  await ground.getByRole("button", { name: "Note it: bad" }).click();
  await expect(sentence(page)).toHaveText("Most likely found: sensor ground, splice S12 behind the air cleaner.");
  await noted(page, /splice S12 behind the air cleaner: 0.62 V is too high by 0.57 V/);

  // Noted by mistake, taken back, and noted again; it outlives a reload.
  await page.getByRole("button", { name: /^Take back: Measure sensor ground/ }).click();
  await expect(sentence(page)).toHaveText(/^One thing stands out/);
  await noted(page, /Taken back: Measure sensor ground/);
  await ground.getByRole("button", { name: "There is a voltage" }).click();
  await expect(sentence(page)).toHaveText(/^Most likely found/);
  await page.reload();
  await expect(sentence(page)).toHaveText(/^Most likely found/);

  // The repair: empty first, then told; what is typed outlives a reload.
  const repair = page.getByRole("region", { name: "Repair" });
  await repair.getByRole("button", { name: "Note the repair" }).click();
  await expect(repair).toContainText("Say in a few words what was done");
  await repair.getByLabel("What was done").fill("Splice S12 soldered anew");
  await page.reload();
  await expect(repair.getByLabel("What was done")).toHaveValue("Splice S12 soldered anew");
  await repair.getByLabel("Cost").fill("0");
  await repair.getByRole("button", { name: "Note the repair" }).click();
  await noted(page, /Repaired: Splice S12 soldered anew; cost 0; for 27, 32, 53\./);
  // What was mended is not suspected again before it was cleared and read.
  await expect(sentence(page)).toHaveText("27, 32 and 53: mended, as you noted.");
  await page.getByRole("button", { name: "On to the clear" }).click();
  await expect(sentence(page)).toHaveText("Mended: clear it, and see whether it stays away.");

  // What is handed on: all of it for a workshop, the short one for the customer, each on one page of paper.
  await page.getByRole("button", { name: "Sheet, files, end or delete this job" }).click();
  await page.getByRole("link", { name: "Sheet for workshop or customer" }).click();
  const work = page.getByRole("main");
  await expect(work).toContainText("Splice S12 soldered anew, for 27, 32, 53");
  await expect(work).toContainText("Measure sensor ground, splice S12 behind the air cleaner: bad");
  await expect(work).toContainText("Do not wipe them");
  await expect(work.getByRole("row", { name: /^53/ })).toContainText("Engine coolant temperature (ECT) circuit");
  await expectAccessible(page, "sheet for a workshop");
  expect(pagesOf(await page.pdf({ format: "A4" }))).toBe(1);
  await page.getByRole("link", { name: "The short one for the customer" }).click();
  await expect(work).toContainText("Splice S12 soldered anew: 0");
  await expect(work).toContainText("Nothing that was read speaks against driving it.");
  await expect(work).not.toContainText("soldered anew, for");
  expect(pagesOf(await page.pdf({ format: "A4" }))).toBe(1);
});

test("one code: a sensor held against its curve, two outcomes that do not go together, another check, a second tap", async ({
  page,
}) => {
  await openGarage(page);
  await readByCounts(page, ["53"]);
  await page.getByRole("button", { name: "On to the checks" }).click();
  const plug = card(page, "Look at the plug of the engine coolant temperature (ECT) sensor");
  // A double tap notes one outcome, and nothing of the check that takes its place.
  await plug.getByRole("button", { name: "Good: on, dry, clean" }).dblclick();
  await expect(plug).toBeHidden();
  const done = page.getByRole("region", { name: "Done so far" }).getByRole("listitem");
  await expect(done).toHaveCount(1);

  // Another check than the proposed one, at the keyboard.
  await other(page, "Measure the engine coolant temperature (ECT) sensor");
  const part = card(page, "Measure the engine coolant temperature (ECT) sensor");
  await expect(part.getByRole("heading")).toBeFocused();
  await expect(
    part.getByRole("img", { name: /^The meter sits between pin [A-C] \(signal\) and pin [A-C] \(ground\)\.$/ }),
  ).toBeVisible();
  await part.getByLabel("The meter shows").fill("2.4");
  await part.getByRole("button", { name: "Is it good?" }).click();
  await expect(part).toContainText("Type how warm it is, in °C");
  await part.getByLabel(/^Part is at/).fill("150");
  await part.getByRole("button", { name: "Is it good?" }).click();
  await expect(part).toContainText("The figures go from -20 °C to 100 °C: measure it in between");
  await part.getByLabel(/^Part is at/).fill("20");
  await part.getByRole("button", { name: "Is it good?" }).click();
  await expect(part.getByRole("status")).toContainText(/2\.4 kΩ is good/);
  await part.getByRole("button", { name: "Note it: good" }).click();
  await expect(done).toHaveCount(2);

  // All of the circuit measures good from the unit's plug, and yet a wire is said to be open.
  for (const [name, outcome] of [
    ["Measure the engine coolant temperature (ECT) sensor from the unit's plug", "The part's value"],
    ["Ring through the wires of the engine coolant temperature (ECT) sensor", "One is open or comes and goes"],
  ] as const) {
    await other(page, name);
    await card(page, name).getByRole("button", { name: outcome }).click({ delay: 600 });
    await expect(card(page, name)).toBeHidden();
  }
  await expect(page.getByText("These two hardly go together")).toBeVisible();
});

test("a code in no table and nothing sure to go by is told apart from a good vehicle", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await openGarage(page);
  await readByCounts(page, ["99"]);
  await page.getByRole("link", { name: "Checks" }).click();
  await expect(sentence(page)).toHaveText("No code is sure enough to go by.");
  await expectAccessible(page, "no code to go by");
});

test("what was found out about a code is there in the next job; codes are found by word; drives show what sets the lamp off", async ({
  page,
}) => {
  await openGarage(page);
  await readByCounts(page, ["22"]);
  await expect(page.getByRole("region", { name: "Can it be driven" })).toContainText("Do not drive it.");
  await page.getByRole("button", { name: "Write a note: code 22" }).click();
  const field = page.getByLabel("Your note to 22");
  await expect(field).toBeFocused();
  await field.fill("Float sticks on this one: tap the tank");
  await page.reload();
  await page.getByRole("button", { name: "Write a note: code 22" }).click();
  await expect(field).toHaveValue("Float sticks on this one: tap the tank");
  await page.getByRole("button", { name: "Keep the note" }).click();
  await expect(page.getByRole("region", { name: "Code 22" })).toContainText("Your note: Float sticks");

  // Another vehicle of the make, another job: the note is there.
  await page.goto("/jobs/demo-job-six/meaning");
  await expect(page.getByRole("region", { name: "Code 14" })).toBeVisible();
  await expect(page.getByText("Float sticks")).toBeHidden();

  await page.goto("/codes");
  const search = page.getByLabel("Number, circuit or word");
  // Key by key: the address follows, and takes nothing of it back.
  await search.pressSequentially("norrvik coolant level", { delay: 15 });
  await expect(search).toHaveValue("norrvik coolant level");
  await expect(page).toHaveURL(/q=norrvik\+coolant\+level/);
  const found = page.getByRole("list", { name: "Codes found" }).getByRole("listitem");
  await expect(found).toHaveCount(1);
  await expect(found).toContainText("22");
  await search.fill("flux");
  await expect(page.getByText('No table here knows "flux".')).toBeVisible();

  await page.goto("/vehicles/demo-ferry3");
  const when = page.getByRole("region", { name: "When it comes on" });
  await expect(when).toContainText("Nothing is noted yet.");
  for (const [weather, button] of [
    ["Wet", "The lamp came on"],
    ["Dry", "A quiet drive"],
    ["Wet", "The lamp came on"],
    ["Dry", "A quiet drive"],
    ["Wet", "The lamp came on"],
  ] as const) {
    const noted = await page.getByRole("button", { name: /^Remove: the drive/ }).count();
    // Of one group one holds: the other one goes by itself.
    await when
      .getByText(weather === "Wet" ? "Dry" : "Wet", { exact: true })
      .last()
      .click();
    await when.getByText(weather, { exact: true }).last().click();
    await when.getByRole("button", { name: button }).click();
    await expect(page.getByRole("button", { name: /^Remove: the drive/ })).toHaveCount(Math.min(4, noted + 1));
  }
  await expect(when).toContainText(
    'Too few drives to tell: with "wet" it came on in 3 of 3 such drives, and in 0 of 2 others.',
  );
  await page.reload();
  await expect(when).toContainText("in 3 of 3 such drives");
  await expectAccessible(page, "when it comes on");
});
