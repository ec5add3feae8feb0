import { mkdirSync, openSync, writeSync, closeSync, readFileSync } from "node:fs";
import { deflateRawSync, inflateRawSync } from "node:zlib";
import jsQR from "jsqr";
import { create } from "qrcode";
import { framesOf, withFrame, wholeOf, type Carried } from "@core/carry/frames";
import { writeBackup } from "@core/record/backup";
import { FILMS } from "../scripts/film-maker.mjs";
import { withCamera } from "./chromium";
import { expect, expectAccessible, openGarage, test } from "./fixtures";

const { records } = JSON.parse(readFileSync("core/record/samples/v1.json", "utf8")) as {
  records: Record<string, unknown>;
};
const shown = framesOf(deflateRawSync(writeBackup(records, "2026-11-30T10:00:00.000Z")))!;

/** What a camera sees of another device's screen: patterns that follow one another, the first one again after the last. */
function patternFilm(path: string, frames: readonly Uint8Array[]): void {
  const [width, height] = [640, 480];
  mkdirSync(FILMS, { recursive: true });
  const file = openSync(path, "w");
  writeSync(file, `YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`);
  const grey = Buffer.alloc((width * height) / 2, 128);
  for (const frame of frames) {
    const { modules } = create([{ data: frame as unknown as Uint8ClampedArray, mode: "byte" }], {
      errorCorrectionLevel: "L",
    });
    const cell = Math.floor((height - 40) / modules.size);
    const luma = Buffer.alloc(width * height, 225);
    const [x0, y0] = [width, height].map((l) => Math.floor((l - cell * modules.size) / 2));
    for (let y = 0; y < modules.size * cell; y++)
      for (let x = 0; x < modules.size * cell; x++)
        if (modules.get(Math.floor(y / cell), Math.floor(x / cell))) luma[(y0 + y) * width + x0 + x] = 30;
    for (let n = 0; n < 4; n++) {
      writeSync(file, "FRAME\n");
      writeSync(file, luma);
      writeSync(file, grey);
    }
  }
  closeSync(file);
}

const film = `${FILMS}/carry.y4m`;
patternFilm(film, shown);
test.use(withCamera(film));

test("a job that one screen shows in patterns is read by another device's camera, and nothing comes in unasked", async ({
  page,
}) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-six/meaning");
  await page.getByRole("button", { name: "Sheet, files, end or delete this job" }).click();
  await page.getByRole("link", { name: "Show it to another device" }).click();
  const pattern = page.getByRole("img", { name: /^Pattern \d+ of \d+/ });
  await expect(pattern).toBeVisible();
  await expectAccessible(page, "patterns of a job");
  await page.getByText("Quick", { exact: true }).click();
  // Read off the screen: what a camera would make of it holds the job.
  let so: Carried | null = null;
  await expect(async () => {
    const { size, path } = await pattern.evaluate((svg) => ({
      size: Number(svg.getAttribute("viewBox")!.split(" ")[2]),
      path: svg.querySelector("path")!.getAttribute("d")!,
    }));
    const [scale, edge] = [4, 16];
    const side = size * scale + 2 * edge;
    const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
    for (const [, x, y, n] of path.matchAll(/M(\d+) (\d+)h(\d+)/g))
      for (let dy = 0; dy < scale; dy++)
        for (let dx = 0; dx < Number(n) * scale; dx++)
          pixels.set([0, 0, 0], ((Number(y) * scale + dy + edge) * side + Number(x) * scale + dx + edge) * 4);
    so = withFrame(so, Uint8Array.from(jsQR(pixels, side, side)!.binaryData));
    expect(wholeOf(so!)).not.toBeNull();
  }).toPass({ intervals: [90], timeout: 60_000 });
  const file = JSON.parse(inflateRawSync(wholeOf(so!)!).toString()) as { records: Record<string, unknown> };
  expect(Object.keys(file.records)).toContain("job/demo-job-six");

  // The other way: the camera sees a job of another device.
  await page.goto("/settings");
  await page.getByRole("button", { name: "Read it off another screen" }).click();
  const brings = page.getByRole("region", { name: "What the file brings" });
  await expect(brings).toBeVisible({ timeout: 60_000 });
  await expect(page.locator("video")).toHaveCount(0);
  await expect(brings).toContainText(/SM 233 K Job: .* is here in another state\. Joined, it gains/);
  await page.getByRole("button", { name: "Leave all as it is" }).click();
  await expect(page.getByText("Nothing was brought in.")).toBeVisible();
  // Called off in the middle, the camera is off.
  await page.getByRole("button", { name: "Read it off another screen" }).click();
  await expect(page.locator("video")).toHaveCount(1);
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await expect(page.locator("video")).toHaveCount(0);
});
