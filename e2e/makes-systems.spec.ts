import type { Page } from "@playwright/test";
import { DrivenTime } from "./clock";
import { expect, expectAccessible, sentence, test } from "./fixtures";
import { DrivenWatcher } from "./lamp";
import { record, simulated, takeSteps } from "./ways";

const part = (page: Page, name: RegExp) =>
  page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name }).click();
const button = (page: Page, name: RegExp | string) =>
  page.getByRole("button", { name, exact: typeof name === "string" });

async function newMake(page: Page, way: RegExp): Promise<void> {
  await page.goto("/makes");
  await page.getByRole("link", { name: /^Build a make/ }).click();
  for (const [label, text] of [
    ["Make", "Harrowgate"],
    ["Model", "Coupe"],
    ["First model year", "1988"],
  ] as const)
    // prettier-ignore
    await page.getByLabel(label, { exact: true }).fill(text);
  await button(page, "Go on").click();
  await expect(sentence(page)).toHaveText("How do you ask for the codes?");
  await button(page, way).click();
  await expect(page.getByRole("heading", { name: "Steps" })).toBeVisible();
}

/** Pastes a table for what is picked. */
async function paste(page: Page, table: string): Promise<void> {
  await page.getByLabel("Paste the table", { exact: true }).fill(table);
  await button(page, /^Take \d+ codes/).click();
  await expect(sentence(page)).toHaveText(/\d+ codes$/);
}

test("engine and brakes at one plug: each is asked, talks and is read for itself; what is not told of one is said", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  await newMake(page, /^Join two cavities of a plug/);
  await part(page, /Plug/);
  await button(page, "Letters").click();
  const joined = async (line: string, ground: string, at: number) => {
    await page.getByRole("radiogroup", { name: "Test line" }).nth(at).getByText(line, { exact: true }).click();
    await page.getByRole("radiogroup", { name: "Ground" }).nth(at).getByText(ground, { exact: true }).click();
  };
  await joined("C", "G", 0);
  await expect(page.getByRole("img", { name: /wire from C to G/ }).first()).toBeVisible();
  await part(page, /How it talks/);
  await button(page, /^Counts two digits Two/).click();
  await part(page, /Codes/);
  await paste(page, "12 Air meter\n14 Coolant sensor\n21 Throttle switch");
  await part(page, /Vehicle/);
  await button(page, "Brakes").click();
  await expect(button(page, "Take Brakes out")).toBeVisible();
  await part(page, /Hand over/);
  await expect(sentence(page)).toHaveText("Not ready yet");
  for (const says of [
    /^Brakes: nobody has said how the codes/,
    /^Brakes: nobody has said what the plug/,
    /^Brakes: no code/,
  ])
    // prettier-ignore
    await expect(page.getByRole("listitem").filter({ hasText: says })).toBeVisible();
  await part(page, /Way in/);
  const ways = page.getByRole("group", { name: "What you do, and what you see, Brakes" });
  await ways.getByRole("button", { name: /^Join two cavities of a plug/ }).click();
  await expect(page.getByRole("heading", { name: /^Brakes: Join two/ })).toBeVisible();
  await part(page, /Plug/);
  // The other way's wire stays where it is.
  await joined("D", "G", 1);
  await page.getByRole("radiogroup", { name: "Way in" }).getByText(/^Brakes/).click(); // prettier-ignore
  await expect(page.getByRole("img", { name: /wire from D to G/ })).toBeVisible();
  await page.getByRole("radiogroup", { name: "Way in" }).getByText(/^Engine/).click(); // prettier-ignore
  await expect(page.getByRole("img", { name: /wire from C to G/ })).toBeVisible();
  await part(page, /How it talks/);
  await page
    .getByRole("group", { name: "Ways to blink, Brakes" })
    .getByRole("button", { name: /^Like Engine/ })
    .click();
  await part(page, /Codes/);
  await page.getByRole("radiogroup", { name: "Which table" }).getByText("Brakes").click();
  await paste(page, "31 Wheel sensor, front left\n33 Wheel sensor, front right\n42 Pump relay");
  await expectAccessible(page, "a make of two systems");
  await part(page, /Hand over/);
  await button(page, "Rehearse: Brakes").click();
  await button(page, "Write the story down").click();
  await button(page, "On to the lamp check").click();
  const lamps = page.getByRole("button", { name: /Stays lit/ });
  await expect(sentence(page)).toHaveText(/^Key on, engine off/);
  if (await lamps.first().isVisible()) await lamps.first().click();
  else for (const yes of await page.getByText("Yes", { exact: true }).all()) await yes.click();
  const id = (await page.getByRole("link", { name: "Open the simulated vehicle" }).first().getAttribute("href"))!.split("/").at(-1)!; // prettier-ignore
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await expect(page.getByText("Tick what is above first.")).toBeVisible();
  await expect(page.getByText(/Nobody has said/)).toBeHidden();
  await takeSteps(page);
  const v = await simulated(page, id, time);
  await v.wire("D", "G");
  const now = button(page, "The key goes on now");
  if (await now.isVisible()) await now.click();
  await v.key("On, engine off");
  const person = new DrivenWatcher(time, v.car, page, 5, "tap");
  const began = time.at;
  const codes = page.getByRole("list", { name: "Codes read" });
  await person.watch("brake", 150_000, async () => (await codes.getByText(/certain/).count()) > 0 && time.at - began > 45_000); // prettier-ignore
  // Codes that the brakes know, none of the engine's.
  for (const text of await codes.getByRole("listitem").allTextContents()) expect(text).toMatch(/31|33|42/);
  await record(page);
});

test("a dash that tells of several modules has a letter for each; what is taken out goes with its codes", async ({
  page,
}) => {
  await newMake(page, /^Join two cavities, then walk/);
  await part(page, /Vehicle/);
  await button(page, "Gearbox").click();
  await button(page, "Brakes").click();
  await expect(button(page, "Take Brakes out")).toBeVisible();
  await part(page, /Way in/);
  const letter = (name: string) => page.getByLabel(name, { exact: true });
  await expect(letter("Gearbox")).toHaveValue("G");
  await letter("Brakes").fill("G");
  await expect(page.getByText("Another system has that letter already.")).toBeVisible();
  await letter("Brakes").fill("a");
  await letter("Brakes").blur();
  await expect(letter("Brakes")).toHaveValue("A");
  await part(page, /Vehicle/);
  await button(page, "Take Gearbox out").click();
  await button(page, "Take it out").click();
  await expect(button(page, "Take Gearbox out")).toBeHidden();
  await part(page, /Way in/);
  await expect(letter("Gearbox")).toBeHidden();
  await button(page, "Undo last change").click();
  await expect(letter("Gearbox")).toHaveValue("G");
  // Read by a lamp, each needs a way of its own.
  await button(page, /^Turn the key on and off/).click();
  await expect(page.getByRole("group", { name: /what you see, Gearbox/ })).toBeVisible();
  await expect(page.getByRole("group", { name: /what you see, Brakes/ })).toBeVisible();
});
