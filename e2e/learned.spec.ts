import { encode } from "@core/flash/dialect/encode";
import { DrivenTime } from "./clock";
import { dialectOf } from "./films";
import { expect, expectAccessible, sentence, test } from "./fixtures";

test("a lamp that no pack knows is read by its flashes alone, and known by its name the next time", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  // Of no make: long and short flashes with a rest of their own between tens and units.
  const lamp = {
    ...dialectOf("calverra", "long-short"),
    marks: { short: 640, long: 1990 },
    gaps: { flash: 640, digit: 1150, repeat: 1990, code: 1990, pass: 3820 },
  };
  const until = 110_000;
  const edges = encode(lamp, { stored: ["34", "52", "7"] }, until);
  const trace = ["t_ms,lit", ...edges.map(([t, lit]) => `${Math.round(t)},${lit}`)].join("\n");
  const watch = async () => {
    await page.goto("/watch");
    await page.getByRole("tab", { name: "Trace file" }).click();
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      page.getByRole("button", { name: "Pick a file" }).click(),
    ]);
    await chooser.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(trace) });
  };
  await watch();
  const talk = page.getByRole("region", { name: "How it talks" });
  for (let i = 0; i < 20 && !(await talk.isVisible()); i++) await time.pass(3000);
  await expect(talk).toContainText("Long flashes are the tens, short ones the units");
  await expect(talk).toContainText("Its list goes round and round");
  await expect(sentence(page)).toContainText("7, 34 and 52");
  // What no make's table stands behind is likely at most.
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("likely")).toHaveCount(3);
  await expectAccessible(page, "a learned lamp");
  await talk.getByLabel("Name of this lamp").fill("Gran's van");
  await talk.getByRole("button", { name: "Keep how it talks" }).click();
  await expect(talk.getByText("Kept as")).toBeVisible();
  await page.getByRole("button", { name: "Watch another" }).click();
  await page.getByRole("button", { name: "Throw away" }).click();
  // A page that is left before the reading is gone from the device finds it again.
  await expect(sentence(page)).toHaveText("Watch a lamp");
  await watch();
  const known = page.getByText(/It blinks like.*Gran's van/);
  for (let i = 0; i < 20 && !(await known.isVisible()); i++) await time.pass(3000);
  await expect(known).toBeVisible();
  await expect(sentence(page)).toContainText("7, 34 and 52");
  await page.getByRole("button", { name: "Watch another" }).click();
  await page.getByRole("button", { name: "Throw away" }).click();
  await page.getByRole("button", { name: "Forget it" }).click();
  await page.getByRole("button", { name: "Forget it" }).last().click();
  await expect(page.getByText("Lamps that you taught Klinko")).toBeHidden();
});
