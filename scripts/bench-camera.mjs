import { parseArgs } from "node:util";
import { chromium } from "@playwright/test";
import { ensureChromium, ensureFilmMaker, withDemo } from "./ensure.mjs";
import { cameraFilm, dialectOf, FILMS, openMaker, tabOf } from "./film-maker.mjs";

// A camera of 1280x720 at 30 pictures a second through the real page: pictures skipped, what held the page up, and how soon a flash
// shows on the strip.
const { values: given } = parseArgs({ options: { seconds: { type: "string", default: "60" } } });
/** The camera plays it over and over; where it begins again the list breaks off, so that no watch ends by itself. */
const FILM_S = 20;
await ensureFilmMaker();

await withDemo(4182, async (browser, base) => {
  const maker = await openMaker(browser);
  const path = `${FILMS}/camera-20.y4m`;
  const edges = await maker.evaluate(
    ([d, ms]) => globalThis.filmMaker.edges(d, ["26", "43", "14"], ms),
    [dialectOf("lead-in"), FILM_S * 1000],
  );
  cameraFilm(path, { width: 1280, height: 720, seconds: FILM_S }, edges);
  await maker.context().close();
  const args = [
    "--no-sandbox",
    "--disable-gpu",
    "--no-first-run",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
    `--use-file-for-fake-video-capture=${path}`,
  ];
  const own = await chromium.launch({ executablePath: ensureChromium(), args });
  const context = await own.newContext({ viewport: { width: 1280, height: 800 }, permissions: ["camera"] });
  const page = await context.newPage();
  await page.addInitScript(measure);
  await page.goto(`${base}/watch`);
  await tabOf(page, "Camera");
  await page.getByRole("button", { name: "Start the camera" }).click();
  const told = page.locator("[data-pictures]");
  await told.waitFor();
  let [pictures, skipped] = [0, 0];
  const began = Date.now();
  while (Date.now() - began < Number(given.seconds) * 1000 && (await told.count())) {
    const now = await told.evaluate((e) => [Number(e.dataset.pictures), Number(e.dataset.skipped)]).catch(() => null);
    if (now) [pictures, skipped] = now;
    await page.waitForTimeout(500);
  }
  const watched = Math.round((Date.now() - began) / 1000);
  const { late, never, ...rest } = await page.evaluate(() => ({
    late: window.late,
    never: window.never,
    held: window.held,
    own: window.own,
    start: window.start,
  }));
  const held = taskTimes(rest);
  late.sort((a, b) => a - b);
  console.log(
    `camera 1280x720, ${watched} s: ${pictures} pictures, ${skipped} skipped (${((100 * skipped) / (pictures + skipped)).toFixed(1)} %)`,
  );
  console.log(
    `main thread held for over 50 ms: ${held.length ? held.map(([at, ms]) => `${ms} ms at ${at} s`).join(", ") : "never"}`,
  );
  console.log(
    `from the capture of a flash's first picture to its mark on the strip, once the lamp is watched: median ${late[late.length >> 1]} ms, longest ${late.at(-1)} ms of ${late.length} flashes; without a mark in 600 ms: ${never.length ? never.map((at) => `at ${at} s`).join(", ") : "none"}`,
  );
  await own.close();
});

/**
 * Tasks that held the page up once the camera was watched, less what the bench did itself in them by looking at pictures: [s from
 * the first picture, ms].
 */
function taskTimes({ held, own, start }) {
  const within = (from, ms) =>
    own.filter(([at]) => at >= from && at < from + ms).reduce((sum, [, took]) => sum + took, 0);
  return held
    .map(([from, ms]) => [Math.round((from - start) / 100) / 10, Math.round(ms - within(from, ms))])
    .filter(([at, ms]) => at >= 0 && ms > 50);
}

/** In the page: long tasks, and the time from the capture of each picture in which a flash begins to one mark more on the strip. */
function measure() {
  Object.assign(window, { held: [], own: [], late: [], never: [], start: Infinity });
  new PerformanceObserver((list) =>
    window.held.push(...list.getEntries().map((e) => [e.startTime, e.duration])),
  ).observe({ type: "longtask" });
  const spot = new OffscreenCanvas(4, 4).getContext("2d", { willReadFrequently: true });
  const marks = () => document.querySelectorAll('[role="option"]').length;
  let lit = false;
  let count = 0;
  // When the strip got longer. The worker has the pictures before the page shows them, and the page leaves some out: a mark may stand
  // before the first lit picture that was seen here.
  const BEFORE_MS = 120;
  const longer = [];
  const pair = (captured) => {
    const k = longer.findIndex((at) => at >= captured - BEFORE_MS);
    if (k < 0) return window.never.push(Math.round((captured - window.start) / 100) / 10);
    window.late.push(Math.round(longer[k] - captured));
    longer.splice(0, k + 1);
  };
  const look = (video, now, { captureTime }) => {
    const began = performance.now();
    spot.drawImage(video, video.videoWidth / 2 - 2, video.videoHeight / 2 - 2, 4, 4, 0, 0, 4, 4);
    const bright = spot.getImageData(1, 1, 1, 1).data[0] > 130;
    window.own.push([began, performance.now() - began]);
    // Without the camera's own time the picture counts from when it is shown.
    const at = captureTime ?? now;
    if (bright && !lit && document.querySelector("[data-lamp][data-chosen]")) setTimeout(() => pair(at), 600);
    lit = bright;
    video.requestVideoFrameCallback((t, of) => look(video, t, of));
  };
  let looking = null;
  new MutationObserver(() => {
    const video = document.querySelector("video");
    if (video && video !== looking) {
      window.start = performance.now();
      looking = video;
      video.requestVideoFrameCallback((t, of) => look(video, t, of));
    }
    const now = marks();
    if (now > count) longer.push(performance.now());
    count = now;
  }).observe(document, { childList: true, subtree: true });
}
