import { expect, openGarage, sentence, test } from "./fixtures";

test("a stranger's vehicle is looked at: one page that claims no more than was seen, kept through a reload, printed, begun anew", async ({
  page,
}) => {
  await openGarage(page);
  await page.getByRole("link", { name: "Look at one to buy" }).click();
  await expect(sentence(page)).toHaveText("Nothing is looked at yet.");
  const answer = (group: string, says: string) =>
    page.getByRole("radiogroup", { name: group }).getByText(says, { exact: true }).click();
  await page.getByLabel("Which vehicle").fill("Grey estate, 1990");
  await answer("Key on, engine off: the trouble lamp", "Lights");
  await expect(sentence(page)).toHaveText("Not read: nobody knows what is stored.");
  await answer("Engine running: the trouble lamp", "Goes out");
  await answer("What is stored", "Read: no code");
  await answer("Readiness", "Complete");
  await page.getByLabel("Minutes driven").fill("20");
  await answer("Did the lamp come on", "No");
  await expect(sentence(page)).toHaveText("Nothing was found where you looked.");
  await page.getByText("The clock is wrong").click();
  await expect(sentence(page)).toHaveText("Quiet, and perhaps only since it was wiped.");
  await page.reload();
  await expect(sentence(page)).toHaveText("Quiet, and perhaps only since it was wiped.");
  await expect(page.getByText("When was the battery last off, and why?")).toBeVisible();

  // On paper stands what was seen, and no form.
  await page.emulateMedia({ media: "print" });
  await expect(page.getByText("Grey estate, 1990, looked at")).toBeVisible();
  await expect(page.getByLabel("Which vehicle")).toBeHidden();
  await page.emulateMedia({ media: "screen" });
  await page.getByRole("button", { name: "Begin with another vehicle" }).click();
  await page.getByRole("button", { name: "Yes, begin anew" }).click();
  await expect(sentence(page)).toHaveText("Nothing is looked at yet.");
});
