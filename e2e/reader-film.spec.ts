import { readFileSync, truncateSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import type { Page } from "@playwright/test";
import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";
import { FILMS } from "../scripts/film-maker.mjs";
import { dialectOf, madeFilm } from "./films";
import { noted } from "./ways";

const even = dialectOf("pellworth", "even-when-clear");
const lead = dialectOf("norrvik", "lead-in");
const longShort = dialectOf("calverra", "long-short");

const marks = (page: Page) => page.getByRole("listbox").first().getByRole("option");

async function toRead(page: Page, plate: string): Promise<void> {
  await openGarage(page);
  await page.getByRole("link", { name: `Go on with ${plate}` }).click();
  await page
    .getByRole("button", { name: /Stays lit/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await filmTab(page);
}

/** The page is drawn before it listens. */
async function filmTab(page: Page): Promise<void> {
  const tab = page.getByRole("tab", { name: "Film" });
  await expect(async () => {
    await tab.click();
    await expect(tab).toHaveAttribute("aria-selected", "true", { timeout: 500 });
  }).toPass();
}

type File = string | { name: string; mimeType: string; buffer: Buffer };

async function bring(page: Page, file: File): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a film" }).click(),
  ]);
  await chooser.setFiles(file);
}

/** Throws away what was read without a vehicle; that is asked once, where there is something. */
async function another(page: Page): Promise<void> {
  await expect(page.getByText("Still working it out")).toBeHidden({ timeout: 30_000 });
  await page.getByRole("button", { name: "Watch another" }).click();
  const sure = page.getByRole("button", { name: "Throw away" });
  const pick = page.getByRole("button", { name: "Pick a film" });
  await expect(sure.or(pick)).toBeVisible();
  if (await sure.isVisible()) await sure.click();
  await expect(pick).toBeVisible();
}

/** Drags a file from outside over the page and lets it go. */
async function dropFilm(page: Page, path: string): Promise<void> {
  const zone = (await page.getByText("Drop a film of the lamp here").boundingBox())!;
  const devtools = await page.context().newCDPSession(page);
  for (const type of ["dragEnter", "dragOver", "drop"] as const)
    await devtools.send("Input.dispatchDragEvent", {
      type,
      x: zone.x + 9,
      y: zone.y + 9,
      data: { items: [], files: [resolve(path)], dragOperationsMask: 1 },
    });
}

test("a film is read in a job: codes, the strip in step, a correction, files of it, and the reading is recorded", async ({
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  const film = await madeFilm(browser, "lead-in", { dialect: lead, codes: ["26"], seconds: 75, profile: "normal" });
  await toRead(page, "SM 418 T");
  await dropFilm(page, film);
  await expect(page.getByText(/times true time/)).toBeVisible({ timeout: 60_000 });
  await expect(sentence(page)).toContainText("The list came round: 26.", { timeout: 20_000 });
  await expect(page.getByRole("button", { name: "Lamp: this patch is watched" })).toBeVisible();
  await expect(page.getByText("Watching began", { exact: false }).first()).toBeVisible();
  await expect(page.getByText(/The list came round here · round 2/).first()).toBeAttached();
  await expectAccessible(page, "film");

  // The film goes where a mark is picked; the strip's playhead goes where the film is moved to.
  await marks(page).nth(4).click({ force: true });
  const at = Number(/at ([\d.]+) s/.exec((await marks(page).nth(4).getAttribute("aria-label"))!)![1]);
  await expect.poll(() => page.locator("video").evaluate((v: HTMLVideoElement) => v.currentTime)).toBeCloseTo(at, 0);
  await page.getByRole("slider", { name: "Go through the film" }).focus();
  await page.keyboard.press("Home");
  await expect(page.locator(".playhead")).toHaveCount(1);
  await expect.poll(() => page.locator("video").evaluate((v: HTMLVideoElement) => v.currentTime)).toBe(0);

  // What a person corrects counts more than the pictures, until it is taken back.
  const before = await marks(page).count();
  await page.getByRole("listbox").focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Delete");
  await expect(marks(page)).toHaveCount(before - 1);
  await page.keyboard.press("z");
  await expect(marks(page)).toHaveCount(before);

  const save = async (name: string) => {
    await page.getByRole("button", { name: "Save the strip" }).click();
    const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("menuitem", { name }).click()]);
    return readFileSync((await file.path()) ?? "");
  };
  const csv = (await save("Trace (CSV)")).toString();
  expect(csv).toMatch(/^t_ms,lit\n0,0\n/);
  expect((await save("Value change dump (VCD)")).toString()).toContain("$var wire 1 ! CHECK_ENGINE");
  expect((await save("Picture (SVG)")).toString()).toContain("the list came round here");
  expect((await save("Picture (PNG)")).subarray(1, 4).toString()).toBe("PNG");

  // A second person's reading, begun four seconds later, with one flash missed.
  const lines = csv
    .trim()
    .split("\n")
    .slice(1)
    .map((l) => l.split(",").map(Number))
    .filter(([t]) => t > 4000);
  const other = lines
    .filter((_, i) => i < 8 || i > 9)
    .map(([t, lit]) => `${t - 4000},${lit}`)
    .join("\n");
  await page.getByText("Lay a second person’s reading over this one").click();
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "From a trace file" }).click(),
  ]);
  await chooser.setFiles({ name: "anna.csv", mimeType: "text/csv", buffer: Buffer.from(other) });
  await expect(page.getByText(/anna.csv: \d+ flashes in both, 1 flash only here, 0 flashes only there/)).toBeVisible();

  await page.getByRole("button", { name: "Record this reading" }).click();
  await noted(page, /Read engine: 26/);
  await page.reload();
  await noted(page, /Read engine: 26/);
});

test("two lamps that answer together have a strip and a record each", async ({ page, browser }) => {
  test.setTimeout(150_000);
  const film = await madeFilm(browser, "two", {
    dialect: longShort,
    codes: ["12"],
    second: ["23"],
    seconds: 45,
    container: "webm",
  });
  await openGarage(page);
  await page.getByRole("button", { name: "New job for SM 233 K" }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await expect(page.getByRole("link", { name: "On to the hook-up" })).toBeVisible();
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await filmTab(page);
  await bring(page, film);
  await expect(page.getByText(/times true time/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("list", { name: "Codes read" })).toHaveCount(2, { timeout: 30_000 });
  await expect(page.getByRole("list", { name: "Codes read" }).nth(0)).toContainText("12");
  await expect(page.getByRole("list", { name: "Codes read" }).nth(1)).toContainText("23");
  await page.getByRole("button", { name: "Record this reading" }).click();
  await noted(page, /Read engine: 12/i);
  await noted(page, /Read .*: 23/);
});

test("without a vehicle the dialect is named, also of a film that its metadata turn; the patch can be drawn", async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000);
  const film = await madeFilm(browser, "turned", { dialect: even, codes: ["31"], seconds: 45, rotation: 90 });
  await page.goto("/watch");
  await filmTab(page);
  await bring(page, film);
  await expect(page.getByText(/times true time/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/It blinks like .*Pellworth/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("31");
  // The film stands upright: higher than wide.
  const shown = (await page.locator("video").boundingBox())!;
  expect(shown.height).toBeGreaterThan(shown.width);
  const patch = (await page.getByRole("button", { name: "Lamp: this patch is watched" }).boundingBox())!;
  const [x, y] = [patch.x + patch.width / 2, patch.y + patch.height / 2];
  const draw = page.getByRole("button", { name: "Draw the lamp myself" });
  const canvas = page.getByRole("application", { name: "Draw a box around the lamp" });
  // Thought better of, by finger and by key: the film stays as it was read.
  await draw.click();
  await page.getByRole("button", { name: "Leave it" }).click();
  await expect(canvas).toBeHidden();
  await draw.click();
  await expect(canvas).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(canvas).toBeHidden();
  await draw.click();
  await page.mouse.move(x - 14, y - 14);
  await page.mouse.down();
  await page.mouse.move(x + 14, y + 14, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText("Your box is watched.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/times true time/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("31", { timeout: 30_000 });
  // What is watched is what was drawn, though the film is stored lying on its side.
  const own = (await page.getByRole("button", { name: "Lamp: this patch is watched" }).boundingBox())!;
  expect(Math.abs(own.x + own.width / 2 - x)).toBeLessThan(12);
  expect(Math.abs(own.y + own.height / 2 - y)).toBeLessThan(12);
});

test("what is no film, or holds no lamp, says what is wrong; what was read stays", async ({ page, browser }) => {
  test.setTimeout(180_000);
  const good = await madeFilm(browser, "short", { dialect: even, codes: ["11"], seconds: 30 });
  const dark = await madeFilm(browser, "dark", {
    dialect: { ...even, phases: [{ kind: "steady", lamp: "dark", ms: 0 }], loopFrom: null },
    codes: [],
    seconds: 14,
  });
  // Once a second, as an indicator blinks.
  const indicator = await madeFilm(browser, "indicator", {
    dialect: { ...even, empty: { kind: "even", onMs: 500, offMs: 500 } },
    codes: [],
    seconds: 25,
  });
  const bytes = readFileSync(good);
  const file = (name: string, buffer: Buffer, mimeType = "video/mp4") => ({ name, mimeType, buffer });
  const png = Buffer.from("89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c489", "hex");
  const wav = Buffer.concat([Buffer.from("RIFF$\0\0\0WAVEfmt "), Buffer.alloc(40)]);
  await page.goto("/watch");
  await filmTab(page);
  const cases: [File, RegExp][] = [
    [file("lamp.mp4", png), /can't be read as a film. Bring an MP4/],
    [file("lamp.mp4", Buffer.alloc(0)), /file is empty/],
    [file("lamp.mp4", wav), /can't be read as a film/],
    [dark, /No lamp that blinks was found|is not a trouble lamp giving codes/],
  ];
  for (const [given, says] of cases) {
    await bring(page, given);
    await expect(page.getByRole("alert")).toContainText(says, { timeout: 60_000 });
  }
  await another(page);
  await bring(page, indicator);
  await expect(page.getByRole("alert")).toContainText("blinks evenly, as an indicator", { timeout: 60_000 });
  await expect(sentence(page)).toHaveText("This only blinks in even time.", { timeout: 30_000 });
  await expect(page.getByRole("list", { name: "Codes read" })).toBeHidden();
  await another(page);
  // A film that is cut in the middle of a code: it says so, and all that can be read is.
  await bring(page, file("lamp.mp4", bytes.subarray(0, Math.round(bytes.length * 0.7))));
  await expect(page.getByRole("alert")).toContainText("breaks off in the middle", { timeout: 60_000 });
  await expect.poll(() => marks(page).count()).toBeGreaterThan(5);
  await another(page);
  const webm = await madeFilm(browser, "cut", { dialect: even, codes: ["11"], seconds: 30, container: "webm" });
  const whole = readFileSync(webm);
  await bring(page, file("cut.webm", whole.subarray(0, Math.round(whole.length * 0.8)), "video/webm"));
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("11", { timeout: 60_000 });
  // Four gigabytes of nothing are not read, only looked into.
  writeFileSync(`${FILMS}/huge.mp4`, "");
  truncateSync(`${FILMS}/huge.mp4`, 4_300_000_000);
  await another(page);
  await bring(page, `${FILMS}/huge.mp4`);
  await expect(page.getByRole("alert")).toContainText(/can't be read as a film/, { timeout: 60_000 });
});

test("a browser that decodes for no worker plays the film, and cancelling keeps what was read", async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  const film = await madeFilm(browser, "played", { dialect: even, codes: ["11"], seconds: 75 });
  await page.addInitScript(() => Reflect.deleteProperty(window, "VideoDecoder"));
  await page.goto("/watch");
  await filmTab(page);
  await bring(page, film);
  await expect.poll(() => marks(page).count(), { timeout: 60_000 }).toBeGreaterThan(6);
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByRole("button", { name: "Watch another" })).toBeVisible();
  expect(await marks(page).count()).toBeGreaterThan(6);
});
