import { expect, openGarage, sentence, test } from "./fixtures";

test("the finder says plainly what is outside, and hands a found vehicle on to the form", async ({ page }) => {
  await openGarage(page);
  await page.getByRole("link", { name: "Find a way in" }).click();
  await expect(sentence(page)).toHaveText("What do you have in front of you?");
  await page.getByText("Osaril", { exact: true }).click();
  await page.getByText("Osaril Coupe", { exact: true }).first().click();
  await page.getByLabel("Model year").fill("1995");
  await page.getByText("2.5 six-cylinder").click();
  await page.getByText("home", { exact: true }).click();
  await expect(sentence(page)).toHaveText("Outside these tables.");
  await expect(page.getByText(/already has the scan socket under the dash/)).toBeVisible();
  await page.getByText("1.8 four-cylinder").click();
  await expect(sentence(page)).toHaveText("Osaril Coupe: marked diagnosis box, test to earth.");
  await page.getByRole("button", { name: "Start over" }).click();
  // By the plug alone: a shape that promises another language.
  await page.getByRole("button", { name: "wider on one side" }).click();
  await expect(page.getByText("What would tell them apart")).toBeVisible();
  await page.getByLabel("Cavities, counted").fill("16");
  await expect(page.getByText(/Up to 1999 it speaks another language/)).toBeVisible();
  await page.getByRole("link", { name: "This is it: add the vehicle" }).first().click();
  await expect(page.getByRole("radio", { name: "Pellworth", exact: true })).toBeChecked();
});

test("the hook-up sheet is one page of paper", async ({ page }) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-six/sheet");
  await expect(sentence(page)).toHaveText(/Bridge test line and ground/);
  const pdf = await page.pdf({ format: "A4", preferCSSPageSize: true });
  const pages = pdf.toString("latin1").match(/\/Type\s*\/Page\b/g) ?? [];
  expect(pages).toHaveLength(1);
});
