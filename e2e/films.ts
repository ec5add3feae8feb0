import type { Browser } from "@playwright/test";
import {
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  writeFileSync,
  writeSync,
  closeSync,
} from "node:fs";
import { encode } from "@core/flash/encode";
import type { Dialect } from "@core/flash/dialect";
import type { Pack } from "@core/pack/pack";
import type { FilmPlan, MadeFilm } from "../bench/film-maker";

const DIR = "test-results/films";

export function dialectOf(pack: string, id: string): Dialect {
  const { dialects } = JSON.parse(readFileSync(`packs/${pack}.json`, "utf8")) as Pack;
  return dialects.find((d) => d.id === id)!;
}

/** Draws and encodes a film in a page of its own; kept between runs under its name. */
export async function madeFilm(
  browser: Browser,
  name: string,
  plan: Partial<FilmPlan> & Pick<FilmPlan, "dialect" | "codes">,
): Promise<string> {
  const whole: FilmPlan = {
    profile: "clean",
    seed: 3,
    seconds: 40,
    fps: 15,
    width: 320,
    height: 180,
    container: "mp4",
    rotation: 0,
    ...plan,
  };
  const path = `${DIR}/test-${name}.${whole.container}`;
  if (existsSync(path)) return path;
  mkdirSync(DIR, { recursive: true });
  const page = await (await browser.newContext()).newPage();
  await page.route("https://maker.test/**", (route) =>
    route.request().url().endsWith(".js")
      ? route.fulfill({ contentType: "text/javascript", body: readFileSync("test-results/bench/film-maker.js") })
      : route.fulfill({ contentType: "text/html", body: '<script type="module" src="/film-maker.js"></script>' }),
  );
  await page.goto("https://maker.test/");
  await page.waitForFunction(() => "filmMaker" in globalThis);
  const made = await page.evaluate(
    (p) => (globalThis as unknown as { filmMaker: { make: (p: FilmPlan) => Promise<MadeFilm> } }).filmMaker.make(p),
    whole,
  );
  await page.context().close();
  const half = `${path}.${process.pid}`;
  writeFileSync(half, Buffer.from(made.bytes, "base64"));
  renameSync(half, path);
  return path;
}

/** What a fake camera plays over and over: a plain wall with a lamp, 30 pictures a second, uncompressed. */
export function cameraFilm(name: string, dialect: Dialect, codes: string[], seconds: number): string {
  const path = `${DIR}/camera-${name}.y4m`;
  if (existsSync(path)) return path;
  mkdirSync(DIR, { recursive: true });
  const [w, h] = [320, 180];
  const edges = encode(dialect, { stored: codes }, seconds * 1000);
  const wall = Buffer.alloc(w * h * 1.5, 128);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) wall[y * w + x] = (((x >> 4) * 7 + (y >> 4) * 5) % 40) + 50;
  const half = `${path}.${process.pid}`;
  const file = openSync(half, "w");
  writeSync(file, `YUV4MPEG2 W${w} H${h} F30:1 Ip A1:1 C420jpeg\n`);
  for (let k = 0; k < seconds * 30; k++) {
    const lit = edges.findLast(([t]) => t <= (k * 1000) / 30)?.[1];
    const picture = Buffer.from(wall);
    if (lit)
      for (let y = 84; y < 96; y++)
        for (let x = 150; x < 170; x++) {
          picture[y * w + x] = 190;
          picture[w * h + (y >> 1) * (w / 2) + (x >> 1)] = 80;
          picture[(w * h * 5) / 4 + (y >> 1) * (w / 2) + (x >> 1)] = 165;
        }
    writeSync(file, "FRAME\n");
    writeSync(file, picture);
  }
  closeSync(file);
  renameSync(half, path);
  return path;
}
