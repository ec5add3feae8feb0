import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { root } from "./ensure.mjs";

/** Opens a page in which films of a lamp are drawn and encoded. The app's own rules forbid foreign scripts, so it is a page of its own. */
export async function openMaker(browser) {
  const page = await (await browser.newContext()).newPage();
  await page.route("https://maker.test/**", (route) =>
    route.request().url().endsWith(".js")
      ? route.fulfill({
          contentType: "text/javascript",
          body: readFileSync(`${root}/test-results/bench/film-maker.js`),
        })
      : route.fulfill({ contentType: "text/html", body: '<script type="module" src="/film-maker.js"></script>' }),
  );
  await page.goto("https://maker.test/");
  await page.waitForFunction(() => globalThis.filmMaker);
  return page;
}

/** A film as planned, drawn once and kept with its truth beside it. */
export async function drawn(maker, plan, path) {
  const truth = `${path}.truth.json`;
  if (!existsSync(path) || !existsSync(truth)) {
    mkdirSync(`${root}/test-results/films`, { recursive: true });
    const made = await maker.evaluate((p) => globalThis.filmMaker.make(p), plan);
    writeFileSync(path, Buffer.from(made.bytes, "base64"));
    writeFileSync(truth, JSON.stringify({ codes: plan.codes, lit: made.lit, codec: made.codec }));
  }
  const { codes, lit } = JSON.parse(readFileSync(truth, "utf8"));
  return { lists: [{ codes, lit }] };
}
