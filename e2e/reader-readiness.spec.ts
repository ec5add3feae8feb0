import { cameraFilm, FILMS } from "../scripts/film-maker.mjs";
import { withCamera } from "./chromium";
import { expect, expectAccessible, sentence, test } from "./fixtures";
import { noted, record, takeSteps, toHookUp } from "./ways";

// Lit for some seconds, then blinks as a lamp does whose monitors are not complete, and lit again; the film goes round. It blinks so
// quickly that half of what the lamp tells lies in the watch wherever in its first ten seconds the key comes.
const BLINKS = Array.from({ length: 13 }, (_, i) => 27_000 + 700 * i);
const film = `${FILMS}/camera-readiness-3.y4m`;
const edges: [number, 0 | 1][] = [
  [0, 1],
  ...BLINKS.flatMap((t): [number, 0 | 1][] => [
    [t, 0],
    [t + 350, 1],
  ]),
];
cameraFilm(film, { width: 320, height: 180, seconds: 60 }, edges);

test.use(withCamera(film));

test("the camera counts the blinks of a readiness lamp once it is told where the lamp is", async ({ page }) => {
  test.setTimeout(120_000);
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
  // The film goes on meanwhile: it blinks when the lamp tells, as long as the key comes within ten seconds of it.
  await key.click();
  await expect(sentence(page)).toHaveText("Wait. The camera watches.");
  await expect(sentence(page)).toHaveText("Not ready: the monitors are not complete.", { timeout: 60_000 });
  // Looked at once it is told: while it counts the camera needs the processor.
  await expectAccessible(page, "readiness by camera");
  await record(page);
  await noted(page, /Not ready/);
});
