import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  writeFileSync,
  writeSync,
} from "node:fs";
import { root } from "./ensure.mjs";

/** Films of a lamp that were drawn for tests, benches and pictures, each kept under its name. */
export const FILMS = `${root}/test-results/films`;

/** A dialect of the packs. */
export function dialectOf(id) {
  const packs = readdirSync(`${root}/packs`).filter((f) => f.endsWith(".json"));
  return packs.flatMap((f) => JSON.parse(readFileSync(`${root}/packs/${f}`, "utf8")).dialects).find((d) => d.id === id);
}

/** Opens a page in which films of a lamp are drawn and encoded. The app's own rules forbid foreign scripts, so it is a page of its own. */
export async function openMaker(browser) {
  const page = await (await browser.newContext()).newPage();
  await page.route("https://maker.test/**", (route) =>
    route.request().url().endsWith(".js")
      ? route.fulfill({
          contentType: "text/javascript",
          body: readFileSync(`${root}/test-results/bench/film-maker.js`),
        })
      : route.fulfill({
          contentType: "text/html",
          body: '<input type="file"><script type="module" src="/film-maker.js"></script>',
        }),
  );
  await page.goto("https://maker.test/");
  await page.waitForFunction(() => "filmMaker" in globalThis);
  return page;
}

/** Writes a file whole or not at all, since two tests may want it at once. */
function keep(path, write) {
  mkdirSync(FILMS, { recursive: true });
  const half = `${path}.${process.pid}`;
  write(half);
  renameSync(half, path);
}

/** A film as planned, drawn once and kept with its truth beside it. */
export async function drawn(maker, plan, path) {
  const truth = `${path}.truth.json`;
  if (!existsSync(path) || !existsSync(truth)) {
    const made = await maker.evaluate((p) => globalThis.filmMaker.make(p), plan);
    keep(truth, (half) => writeFileSync(half, JSON.stringify({ codes: plan.codes, lit: made.lit, codec: made.codec })));
    keep(path, (half) => writeFileSync(half, Buffer.from(made.bytes, "base64")));
  }
  const { codes, lit } = JSON.parse(readFileSync(truth, "utf8"));
  return { lists: [{ codes, lit }] };
}

/**
 * What a fake camera plays over and over: a plain wall with an amber lamp in its middle, 30 pictures a second, uncompressed.
 * @param edges when the lamp changes, ms, and its state then
 */
export function cameraFilm(path, { width: w, height: h, seconds }, edges) {
  if (existsSync(path)) return;
  const wall = Buffer.alloc(w * h * 1.5, 128);
  const tile = Math.round(w / 20);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) wall[y * w + x] = 50 + ((Math.floor(x / tile) * 7 + Math.floor(y / tile) * 5) % 40);
  const [left, right, top, bottom] = [0.47 * w, 0.53 * w, 0.47 * h, 0.53 * h];
  keep(path, (half) => {
    const file = openSync(half, "w");
    writeSync(file, `YUV4MPEG2 W${w} H${h} F30:1 Ip A1:1 C420jpeg\n`);
    for (let k = 0; k < seconds * 30; k++) {
      const picture = Buffer.from(wall);
      if (edges.findLast(([t]) => t <= (k * 1000) / 30)?.[1])
        for (let y = Math.round(top); y < bottom; y++)
          for (let x = Math.round(left); x < right; x++) {
            picture[y * w + x] = 190;
            picture[w * h + (y >> 1) * (w / 2) + (x >> 1)] = 80;
            picture[(w * h * 5) / 4 + (y >> 1) * (w / 2) + (x >> 1)] = 165;
          }
      writeSync(file, "FRAME\n");
      writeSync(file, picture);
    }
    closeSync(file);
  });
}

/** Takes a way to watch. The page is there before it listens: the tab is tried until it answers. */
export async function tabOf(page, name) {
  const tab = page.getByRole("tab", { name });
  while ((await tab.getAttribute("aria-selected")) !== "true") {
    await tab.click();
    await page.waitForTimeout(200);
  }
}
