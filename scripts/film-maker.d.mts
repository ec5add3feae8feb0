import type { Browser, Page } from "@playwright/test";
import type { FilmPlan } from "../bench/film-maker";

export const FILMS: string;
export function openMaker(browser: Browser): Promise<Page>;
export function drawn(
  maker: Page,
  plan: FilmPlan,
  path: string,
): Promise<{ lists: { codes: string[]; lit: [number, number][] }[] }>;
export function cameraFilm(
  path: string,
  size: { width: number; height: number; seconds: number },
  edges: readonly (readonly [t: number, lit: 0 | 1])[],
): void;
