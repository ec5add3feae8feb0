import type { Browser } from "@playwright/test";
import { existsSync, readFileSync } from "node:fs";
import type { Dialect } from "@core/flash/dialect/dialect";
import type { Pack } from "@core/pack/pack";
import type { FilmPlan } from "../bench/film-maker";
import { drawn, FILMS, openMaker } from "../scripts/film-maker.mjs";

export function dialectOf(pack: string, id: string): Dialect {
  const { dialects } = JSON.parse(readFileSync(`packs/${pack}.json`, "utf8")) as Pack;
  return dialects.find((d) => d.id === id)!;
}

/** A small film, drawn and encoded in a page of its own. @returns its path */
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
  const path = `${FILMS}/test-${name}.${whole.container}`;
  if (existsSync(path)) return path;
  const maker = await openMaker(browser);
  await drawn(maker, whole, path);
  await maker.context().close();
  return path;
}
