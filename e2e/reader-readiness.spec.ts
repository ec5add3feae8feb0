import { expect, expectAccessible, sentence, test } from "./fixtures";
import { lampCamera, lampTalks } from "./lamp-camera";
import { noted, record, takeSteps, toHookUp } from "./ways";

// Lit for some seconds after the key, then it blinks as a lamp does whose monitors are not complete, and is lit again.
const TELLS = 17_000;
const lamp: [number, 0 | 1][] = [
  [0, 1],
  ...Array.from({ length: 8 }, (_, i) => TELLS + 1000 * i).flatMap((t): [number, 0 | 1][] => [
    [t, 0],
    [t + 500, 1],
  ]),
];

test("the camera counts the blinks of a readiness lamp once it is told where the lamp is", async ({ page }) => {
  test.setTimeout(120_000);
  await lampCamera(page, lamp, 120_000, true);
  await toHookUp(page, "make=pellworth&year=2002", /Readiness by lamp/, "demo-et70p");
  await page.getByText("Readiness", { exact: true }).click();
  await expect(page.getByText("Readiness by lamp: key on and wait").first()).toBeVisible();
  await takeSteps(page);
  await page.getByRole("button", { name: "Start the camera" }).click();
  const key = page.getByRole("button", { name: "The key goes on now" });
  await expect(page.getByText("Draw a box around the lamp first.")).toBeVisible();
  await expect(key).toBeDisabled();
  await page.getByRole("button", { name: "Draw the lamp myself" }).click();
  await page.keyboard.press("Enter");
  await expect(key).toBeEnabled();
  await key.click();
  await lampTalks(page);
  await expect(sentence(page)).toHaveText("Wait. The camera watches.");
  await expect(sentence(page)).toHaveText("Not ready: the monitors are not complete.", { timeout: 60_000 });
  // Looked at once it is told: while it counts the camera needs the processor.
  await expectAccessible(page, "readiness by camera");
  await record(page);
  await noted(page, /Not ready/);
});
