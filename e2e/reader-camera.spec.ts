import type { Page } from "@playwright/test";
import { encode } from "@core/flash/dialect/encode";
import { dialectOf } from "./films";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";
import { lampCamera } from "./lamp-camera";

const even = dialectOf("pellworth", "even-when-clear");
const WATCHED = 180_000;
const lamp = encode(even, { stored: ["11"] }, WATCHED);

const marks = (page: Page) => page.getByRole("listbox").getByRole("option");

async function cameraTab(page: Page): Promise<void> {
  const tab = page.getByRole("tab", { name: "Camera" });
  await expect(async () => {
    await tab.click();
    await expect(tab).toHaveAttribute("aria-selected", "true", { timeout: 500 });
  }).toPass();
}

test("the camera watches the lamp: it names the dialect, stops by itself when nothing more can be learned, and keeps the film if asked", async ({
  page,
}) => {
  test.setTimeout(150_000);
  await lampCamera(page, lamp, WATCHED);
  await page.goto("/watch");
  await cameraTab(page);
  await page.getByText("Keep the film, to save it").click();
  await page.getByRole("button", { name: "Start the camera" }).click();
  await expect(page.getByText("The lamp is in sight.")).toBeVisible({ timeout: 30_000 });
  await expectAccessible(page, "camera");
  await expect(page.getByText(/It blinks like .*Pellworth/)).toBeVisible({ timeout: 60_000 });
  await expect(sentence(page)).toHaveText("11, seen twice: done.", { timeout: 90_000 });
  // Nothing more can be learned: the camera is off.
  await expect(page.getByRole("button", { name: "Stop the camera" })).toBeHidden();
  await expect(page.locator("video")).toHaveCount(0);
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /Save the film \(/ }).click(),
  ]);
  expect(saved.suggestedFilename()).toMatch(/^lamp\.(webm|mp4)$/);
});

test("an unplugged camera keeps what was read and filmed, and it can be gone on with", async ({ page }) => {
  test.setTimeout(120_000);
  await lampCamera(page, lamp, WATCHED);
  await page.addInitScript(() => {
    const { mediaDevices } = navigator;
    const real = mediaDevices.getUserMedia.bind(mediaDevices);
    mediaDevices.getUserMedia = async (c) => {
      const stream = await real(c);
      (window as unknown as { unplug: () => void }).unplug = () =>
        stream.getVideoTracks()[0].dispatchEvent(new Event("ended"));
      return stream;
    };
  });
  await openGarage(page);
  await page.goto("/vehicles/demo-et70p");
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page
    .getByRole("button", { name: /Stays lit/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await cameraTab(page);
  await page.getByText("Keep the film with the reading").click();
  await page.getByRole("button", { name: "Start the camera" }).click();
  // A flash that has just begun shows at once, and is no mark yet when the pictures end in it.
  await expect.poll(() => marks(page).count(), { timeout: 45_000 }).toBeGreaterThan(3);
  await page.evaluate(() => (window as unknown as { unplug: () => void }).unplug());
  await expect(page.getByRole("alert")).toContainText("The camera was disconnected. What was read so far is kept");
  await expect(page.getByText("The film is kept with this reading.")).toBeVisible();
  // By now the page has settled on what is a mark.
  const kept = await marks(page).count();
  expect(kept).toBeGreaterThan(2);
  await page.reload();
  await expect(marks(page)).toHaveCount(kept);
  await page.getByRole("button", { name: "Go on watching" }).click();
  await expect.poll(() => marks(page).count(), { timeout: 45_000 }).toBeGreaterThan(kept + 2);
  await page.getByRole("button", { name: "Stop the camera" }).click();
  await page.getByRole("button", { name: "Record this reading" }).click();
  // The film is where the reading is looked at, and goes when it is thrown away.
  const own = page.getByRole("region", { name: "The film of this reading" });
  await own.getByRole("button", { name: "Watch the film" }).click();
  await expect.poll(() => own.locator("video").evaluate((v: HTMLVideoElement) => v.videoWidth)).toBe(320);
  await expectAccessible(page, "film of a reading");
  await own.getByRole("button", { name: "Throw the film away" }).click();
  await own.getByRole("button", { name: "Throw away" }).click();
  await expect(own).toBeHidden();
  await page.reload();
  // The picture begins anew where the camera does, so the show makes little sense: no other code than blinked is more than unsure.
  await expect(sentence(page)).toBeVisible();
  const told = await page
    .getByRole("region", { name: /^Code / })
    .evaluateAll((all) => all.filter((e) => !/unsure/.test(e.textContent)).map((e) => e.ariaLabel));
  expect(told.filter((name) => name !== "Code 11")).toEqual([]);
  await expect(page.getByRole("link", { name: "Read once more" })).toBeVisible();
  await expect(own).toBeHidden();
});

test("a camera that is refused or missing says how to mend that", async ({ page }) => {
  for (const [name, says] of [
    ["NotAllowedError", /camera is not allowed. Allow it for this page/],
    ["NotFoundError", /No camera found. Bring a film/],
    ["NotReadableError", /Another program is using the camera/],
  ] as const) {
    await page.goto("/watch");
    await page.evaluate((error) => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException("no", error));
    }, name);
    await cameraTab(page);
    await page.getByRole("button", { name: "Start the camera" }).click();
    await expect(page.getByRole("alert")).toContainText(says);
    await expect(page.getByRole("tab", { name: "Film" })).toBeEnabled();
  }
});
